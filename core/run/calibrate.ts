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
/** How far the machine moved ahead, to its left and round, all along the way as it faced at each moment; m and rad. */
function motionIn(trace: Trace): Motion {
  const [x, y, facing] = ['x', 'y', 'facing'].map((key) => channel(trace, key)!);
  let [px, py] = [trace.header.run.start.x, trace.header.run.start.y];
  let [ahead, left] = [0, 0];
  for (let tick = 0; tick < trace.ticks; tick++) {
    const angle = planeAngle(sampleAt(facing, tick));
    const [nx, ny] = [sampleAt(x, tick), sampleAt(y, tick)];
    ahead += (nx - px) * Math.cos(angle) + (ny - py) * Math.sin(angle);
    left += (ny - py) * Math.cos(angle) - (nx - px) * Math.sin(angle);
    [px, py] = [nx, ny];
  }
  return { ahead, left, turn: -turnedIn(trace) * RAD };
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
    { motion: motionIn(spin), turns: turnsIn(kit, spin) }
  );
}
