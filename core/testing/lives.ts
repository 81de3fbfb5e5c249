/** Runs as people have them: random programs, with things done to the device, rests, values changed by hand and a stop. */
import fc from 'fast-check';
import { barrow, trowel } from '../kit/kit.ts';
import { quirksOf } from '../kit/quirks.ts';
import { STAND_INS } from '../kit/units.ts';
import { newProject, type Project } from '../project.ts';
import { Bench } from '../run/bench.ts';
import { Interpreter } from '../run/interpreter.ts';
import { specOf, type RunOptions } from '../run/spec.ts';
import type { Input } from '../trace/inputs.ts';
import { isOfTheRun } from '../trace/track.ts';
import { hall } from './build.ts';
import { randomProgram } from './random.ts';

const wholes = (min: number, max: number) => fc.integer({ min, max });
/** Everything a person can do, as the schema of inputs has it. */
export const anyInput: fc.Arbitrary<Input> = fc.oneof(
  fc.constantFrom('Dot' as const, 'Bar' as const).map((press) => ({ press })),
  fc.constantFrom('Dot' as const, 'Bar' as const).map((release) => ({ release })),
  fc.boolean().map((nose) => ({ nose })),
  fc.record({ key: fc.constantFrom('W', 'Up', '3'), down: fc.boolean() }),
  fc.record({ edge: fc.constantFrom('left' as const, 'right' as const), touched: fc.boolean() }),
  fc.record({ stick: fc.constantFrom('left, left-right' as const, 'right, up-down' as const), at: wholes(-100, 100) }),
  fc.record({ sideways: wholes(-90, 90), forwards: wholes(-90, 90) }).map((lean) => ({ lean })),
  fc.double({ min: 0, max: 2, noNaN: true }).map((shake) => ({ shake })),
  wholes(0, 80).map((toss) => ({ toss })),
  wholes(0, 80).map((drop) => ({ drop })),
  fc.record({ light: wholes(0, 100), temperature: wholes(-5, 40) }).map((around) => ({ around })),
  fc.constantFrom('go', 'b c').map((message) => ({ message })),
  fc.constant({ message: 'go', from: 'Barrow 7' }),
  fc.boolean().map((lift) => ({ lift })),
  fc.record({ x: wholes(40, 260), y: wholes(40, 260), facing: wholes(0, 359) }).map((carry) => ({ carry })),
  fc
    .record({ ahead: wholes(-5, 5), turn: wholes(-20, 20), seconds: fc.constantFrom(0.1, 0.5) })
    .map((push) => ({ push })),
  fc.boolean().map((soil) => ({ soil })),
  fc.constant({ word: true as const }),
  fc
    .record({
      variable: fc.constantFrom('count', 'Länge'),
      to: fc.oneof(wholes(-9, 9), fc.constantFrom(0.1, 1e-7, 12345.678), fc.constantFrom('moss', '🌱', ''))
    })
    .map((set) => ({ set })),
  fc.constant({ stop: true as const })
);

/** What happens in turn: time goes by, the run rests before a step, somebody does something, perhaps to the other device. */
type Happening = { forUs: number; rests: boolean; does: Input; beside: boolean };
export type Life = { project: Project; options: RunOptions; happenings: Happening[] };
export const anyLife: fc.Arbitrary<Life> = fc
  .record({
    program: randomProgram,
    seed: wholes(1, 1000),
    unit: fc.option(fc.constantFrom(...STAND_INS)),
    noise: fc.boolean(),
    onBattery: fc.boolean(),
    limitS: fc.constantFrom(0.4, 1, 1.5),
    start: fc.record({ x: fc.constantFrom(0.6, 1.5), y: fc.constantFrom(0.7, 1.5), facingDeg: wholes(0, 359) }),
    company: fc.option(randomProgram, { freq: 5 }),
    happenings: fc.array(
      fc.record({ forUs: wholes(100, 250_000), rests: fc.boolean(), does: anyInput, beside: fc.boolean() }),
      {
        maxLength: 10
      }
    )
  })
  .map(({ program, seed, unit, noise, onBattery, limitS, start, company, happenings }) => {
    const others = company ? [{ name: 'the other', program: company, kit: trowel }] : undefined;
    const project = { ...newProject('Life', barrow, hall), program, start, ...(others ? { others } : {}) };
    const quirks = unit ? quirksOf(unit.serial, barrow) : undefined;
    const options = specOf({ program, kit: barrow, mat: hall, seed, noise, onBattery, limitS, start, others, quirks });
    return { project, options: { ...options, name: 'Life' }, happenings };
  });

/** Lives it through, as the worker of the page does. */
export function live({ options, happenings }: Life): Bench {
  const bench = new Bench(options);
  const interpreter = new Interpreter(bench);
  for (const { forUs, rests, does, beside } of happenings) {
    const untilUs = bench.worldUs + forUs;
    interpreter.stopBefore = rests ? () => bench.now >= untilUs : undefined;
    while (bench.worldUs < untilUs && interpreter.advance(untilUs) === 'running');
    interpreter.stopBefore = undefined;
    if (bench.ended) return bench;
    const ofTheRun = isOfTheRun(does);
    const to = beside && !ofTheRun ? options.others?.[0]?.name : undefined;
    bench.input({ tUs: ofTheRun ? bench.now : bench.worldUs, input: does, ...(to ? { to } : {}) });
    if ('set' in does && interpreter.here !== undefined) interpreter.takeSets();
  }
  while (interpreter.advance(Infinity) !== 'ended');
  return bench;
}
