/** Calibrating one device: two measured runs on a bare floor; what follows from them is worked out in kit/calibration.ts. */
import { calibration, STRAIGHT_CM, TURNS, type Calibration } from '../kit/calibration.ts';
import type { Motion } from '../kit/drive.ts';
import type { Kit } from '../kit/kit.ts';
import type { Quirks } from '../kit/quirks.ts';
import { newStep } from '../language/catalogue.ts';
import { emptyProgram, type Program, type Slot } from '../language/program.ts';
import { sampleAt } from '../trace/query.ts';
import { channel, type Trace } from '../trace/trace.ts';
import type { Mat } from '../yard/mat.ts';
import { planeAngle } from '../yard/bodies.ts';
import { wheelKey } from '../kit/keys.ts';
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
/** How the machine moved as a whole, as one twist from its first pose to its last (the logarithm of SE(2)); m and rad. */
function motionIn(trace: Trace): Motion {
  const turn = -turnedIn(trace) * RAD;
  const [x, y] = ['x', 'y'].map((key) => sampleAt(channel(trace, key)!, trace.ticks - 1));
  const { start } = trace.header.run;
  const facing = planeAngle(start.facingDeg);
  const [dx, dy] = [x - start.x, y - start.y];
  const [ahead, left] = [dx * Math.cos(facing) + dy * Math.sin(facing), dy * Math.cos(facing) - dx * Math.sin(facing)];
  const half = turn / 2;
  // a whole turn leads back to where it began: then nothing can be told of the way
  const stretch = Math.abs(Math.sin(half)) < 1e-9 ? 1 : half / Math.tan(half);
  return { ahead: stretch * ahead + half * left, left: stretch * left - half * ahead, turn };
}
const turnsIn = (kit: Kit, trace: Trace): number[] =>
  kit.wheels.map(({ id }) => sampleAt(channel(trace, wheelKey('turns', id))!, trace.ticks - 1));

/** @param quirks of the device that is measured @returns what was measured, and the measures that follow from it */
export function calibrate({ measured: _, ...kit }: Kit, quirks: Quirks, seed = 1): Calibration {
  const run = (program: Program): Trace =>
    rehearse({ program, kit, mat: measuringFloor, seed, quirks, onBattery: true, limitS: 60 });
  const straight = run(
    only('drive.measure', { way: 'ahead', amount: STRAIGHT_CM, unit: 'cm', power: 40, ending: 'brake' })
  );
  const spin = run(only('turn.angle', { side: 'right', angle: 360 * TURNS, power: 30, ending: 'brake' }));
  return calibration(
    kit,
    { motion: motionIn(straight), turns: turnsIn(kit, straight) },
    { motion: { ahead: 0, left: 0, turn: -turnedIn(spin) * RAD }, turns: turnsIn(kit, spin) }
  );
}
