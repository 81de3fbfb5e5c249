/** Calibrating one device: two measured runs on a bare floor; what follows from them is worked out in kit/calibration.ts. */
import { calibration, STRAIGHT_CM, TURNS, type Calibration } from '../kit/calibration.ts';
import type { Kit } from '../kit/kit.ts';
import type { Quirks } from '../kit/quirks.ts';
import { newStep } from '../language/catalogue.ts';
import { emptyProgram, type Program, type Slot } from '../language/program.ts';
import { sampleAt, travelled } from '../trace/query.ts';
import { channel, type Trace } from '../trace/trace.ts';
import type { Mat } from '../yard/mat.ts';
import { rehearse } from './interpreter.ts';

const RAD = Math.PI / 180;

/** A bare floor of 3 m x 3 m with a robot in its middle. */
export const measuringFloor: Mat = {
  name: 'Measuring floor',
  width: 3,
  height: 3,
  colour: '#f7f6ee',
  reflectance: 88,
  airC: 20,
  start: { x: 1.5, y: 1, facingDeg: 0 },
  areas: [],
  lines: [],
  walls: [],
  things: [],
  hoops: [],
  marks: []
};
const only = (kind: string, slots: Record<string, Slot>): Program => {
  const step = newStep(kind, 'measured');
  return {
    ...emptyProgram(),
    stacks: [
      {
        id: 'run',
        x: 0,
        y: 0,
        steps: [newStep('begin.start', 'start'), { ...step, slots: { ...step.slots, ...slots } }]
      }
    ]
  };
};

/** Degrees clockwise from the start to the end, turns counted. */
export function turnedIn(trace: Trace): number {
  const facing = channel(trace, 'facing')!;
  let sum = 0;
  let before = trace.header.run.start.facingDeg;
  for (let tick = 0; tick < trace.ticks; tick++) {
    const now = sampleAt(facing, tick);
    const step = (now - before) / 360;
    sum += (step - Math.round(step)) * 360;
    before = now;
  }
  return sum;
}
const wheelTurns = (trace: Trace, side: 'Left' | 'Right'): number =>
  Math.abs(sampleAt(channel(trace, `turns${side}`)!, trace.ticks - 1));

/** @param quirks of the device that is measured @returns what was measured, and the measures that follow from it */
export function calibrate({ measured: _, ...kit }: Kit, quirks: Quirks, seed = 1): Calibration {
  const run = (program: Program): Trace =>
    rehearse({ program, kit, mat: measuringFloor, seed, quirks, onBattery: true, limitS: 60 });
  const straight = run(
    only('drive.measure', { way: 'ahead', amount: STRAIGHT_CM, unit: 'cm', power: 40, ending: 'brake' })
  );
  const spin = run(only('turn.angle', { side: 'right', angle: 360 * TURNS, power: 30, ending: 'brake' }));
  const driven = travelled(straight);
  const bent = turnedIn(straight) * RAD;
  const turned = turnedIn(spin) * RAD;
  const around = (wheelTurns(spin, 'Left') + wheelTurns(spin, 'Right')) / 2;
  return calibration(kit, {
    driven,
    bent,
    turned,
    left: wheelTurns(straight, 'Left'),
    right: wheelTurns(straight, 'Right'),
    around
  });
}
