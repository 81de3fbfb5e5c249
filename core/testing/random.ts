/** Random programs: of every block there is, for what must hold of any program; and such that run for a while and end. */
import fc from 'fast-check';
import { catalogue, slotsOf, slotSpec } from '../language/catalogue.ts';
import { cannot, tableRows } from '../language/blocks/choose.ts';
import { inputSlot } from '../language/blocks/reuse.ts';
import type { SlotSpec } from '../language/define.ts';
import { INPUT_TYPES, type Program, type Routine, type Slot, type Step } from '../language/program.ts';

/** Where a step stands: what is known there. */
type Around = { program: Program; inRoutine?: Routine; inLoop: boolean; runs: boolean; depth: number };
type Gen = fc.Arbitrary<Step>;

const id = (() => {
  let n = 0;
  return () => `x${++n}`;
})();
const NOTES = ['why', 'two\nlines', 'off: not really', '  indented', 'loose: ends', ': colon', 'ünï', 'a\n\nb'];
const PICTURE = fc
  .array(fc.array(fc.constantFrom('.', '#', '+', 'g'), { minLength: 7, maxLength: 7 }), { minLength: 1, maxLength: 6 })
  .map((rows) => ({ picture: rows.map((r) => r.join('')).join(' ') }));
const TEXT = fc.constantFrom(
  'moss',
  'a "quoted" one',
  'back\\slash',
  'two words',
  'Zähler',
  '🌱',
  "it's",
  'x\ty',
  'ends in a space ',
  ' 5',
  '007',
  '"1"'
);
const NUMBER = fc.oneof(fc.integer({ min: -20, max: 20 }), fc.constantFrom(0.5, 2.25, -1.5, 100));

const kinds = (shapes: string[]): string[] =>
  [...catalogue.values()].filter((d) => shapes.includes(d.shape)).map((d) => d.kind);
const VALUES = kinds(['value']);
const STEPS = kinds(['step', 'wrap']);
const ENDS = kinds(['end']);
/** Blocks that need something a short run does not have, or that wait for what never comes. */
const NEVER_RUN = new Set([
  'wait.until',
  'wait.touch',
  'servo.spin',
  'sense.colour',
  'display.write',
  'sound.play',
  'repeat.while',
  'repeat.until'
]);
/** What a value gives, so that programs that run are not all over at their first error. */
const fits = (kind: string, spec: SlotSpec): boolean => {
  const def = catalogue.get(kind)!;
  if (def.shape !== 'value') return false;
  const type = spec.type === 'items' ? 'list' : spec.type;
  return type === 'any' ? true : def.gives === type || (def.gives === 'any' && type !== 'list');
};

function slotOf(spec: SlotSpec, around: Around): fc.Arbitrary<Slot | undefined> {
  const { program, inRoutine, runs, depth } = around;
  const plain = program.variables.filter((v) => !v.list).map((v) => v.id);
  const lists = program.variables.filter((v) => v.list).map((v) => v.id);
  const inner = (odds: number, other: fc.Arbitrary<Slot | undefined>): fc.Arbitrary<Slot | undefined> => {
    if (depth <= 0) return other;
    const choices = VALUES.filter((k) => fits(k, spec) && allowed(k, around));
    return choices.length
      ? fc.oneof(
          { weight: odds, arbitrary: other },
          { weight: 1, arbitrary: fc.constantFrom(...choices).chain((k) => stepOf(k, { ...around, depth: depth - 1 })) }
        )
      : other;
  };
  switch (spec.type) {
    case 'number': {
      const low = Math.max(spec.min ?? -20, -20);
      const high = Math.min(spec.max ?? 20, 20);
      return inner(
        2,
        runs || spec.whole ? fc.integer({ min: Math.ceil(low), max: Math.floor(Math.max(low, high)) }) : NUMBER
      );
    }
    case 'choice':
      return fc.constantFrom(...spec.options);
    case 'part':
      return fc.constantFrom(
        ...({
          motor: ['J1', 'J2'],
          servo: ['J4', 'J5'],
          spin: ['J6'],
          line: ['J8', 'J9'],
          distance: ['J7'],
          colour: ['J10']
        }[spec.part] ?? ['J1'])
      );
    case 'variable':
      return fc.constantFrom(...plain);
    case 'list':
      return fc.constantFrom(...lists);
    case 'routine':
      return fc.constantFrom(...program.routines.map((r) => r.id));
    case 'input':
      return fc.constantFrom(...(inRoutine?.inputs ?? []).map((i) => i.id));
    case 'name':
      return spec.default === 'W' ? fc.constantFrom('W', 'Up', '3') : fc.constantFrom('go', 'Tür "auf"', 'b c');
    case 'rows':
      return fc.constantFrom('', 'nn', 'yn ny');
    case 'condition':
      // also what is no yes or no of its own: a variable
      return runs && depth <= 0
        ? fc.constant(undefined)
        : inner(
            2,
            plain.length
              ? fc.oneof(
                  fc.constant(undefined),
                  fc.constantFrom(...plain).map((v): Step => ({ id: id(), kind: 'var.value', slots: { variable: v } }))
                )
              : fc.constant(undefined)
          );
    case 'items':
      return inner(
        1,
        runs
          ? fc.constantFrom(...lists).map((l): Step => ({ id: id(), kind: 'list.value', slots: { list: l } }))
          : fc.constant(undefined)
      );
    case 'picture':
      return inner(2, PICTURE);
    case 'text':
      return inner(3, TEXT);
    default:
      return inner(2, fc.oneof(runs ? fc.integer({ min: -9, max: 9 }) : NUMBER, TEXT));
  }
}
function allowed(kind: string, { program, inRoutine, inLoop, runs }: Around): boolean {
  if (kind === 'routine.input') return !!inRoutine?.inputs?.length;
  if (kind === 'routine.value' || kind === 'routine.do') return program.routines.length > 0 && !(runs && inRoutine);
  if (kind === 'routine.give') return !!inRoutine;
  if (kind === 'repeat.leave' || kind === 'repeat.next') return inLoop;
  return !(runs && NEVER_RUN.has(kind));
}
function stepOf(kind: string, around: Around): Gen {
  const def = catalogue.get(kind)!;
  const body = (loop: boolean) =>
    listOf({ ...around, depth: around.depth - 1, inLoop: loop || around.inLoop }, around.depth > 0 ? 3 : 0);
  const grown: fc.Arbitrary<Partial<Step>> = def.grows
    ? fc
        .record({
          n: fc.integer({ min: 1, max: 3 }),
          otherwise: fc.boolean(),
          routine: fc.constantFrom(...program0(around))
        })
        .chain(({ n, otherwise, routine }) => {
          const bodies: Record<string, fc.Arbitrary<Step[]>> = {};
          if (kind === 'choose.if' || kind === 'choose.match') {
            for (let i = 1; i <= n; i++) bodies[`${kind === 'choose.if' ? 'then' : 'do'}${i}`] = body(false);
            if (otherwise) bodies.otherwise = body(false);
          }
          if (kind === 'choose.table') for (const row of tableRows(n === 3 ? 3 : 2)) bodies[row] = body(false);
          const slots: Record<string, Slot> = {};
          if (kind === 'list.new') for (let i = 1; i < n; i++) slots[`i${i}`] = 0;
          if ('routine' in def.slots) {
            slots.routine = routine;
            for (const i of around.program.routines.find((r) => r.id === routine)?.inputs ?? [])
              slots[inputSlot(i.id)] = 0;
          }
          return fc.record({
            slots: fc.constant(slots),
            ...(Object.keys(bodies).length ? { bodies: fc.record(bodies) } : {})
          });
        })
    : fc.constant({});
  return grown.chain((more): Gen => {
    const step: Step = { id: id(), kind, slots: {}, ...more };
    const slots: Record<string, fc.Arbitrary<Slot | undefined>> = {};
    for (const name of slotsOf(step, around.program)) {
      const spec = slotSpec(step, name, around.program)!;
      if (spec.type !== 'routine')
        slots[name] = slotOf(
          kind === 'picture.value' ? { type: 'picture', default: { picture: '' } } : spec,
          kind === 'picture.value' ? { ...around, depth: 0 } : around
        );
    }
    const bodyNames = def.grows || def.shape === 'value' ? [] : [...def.words.matchAll(/\{>(\w+)\}/g)].map((m) => m[1]);
    const loop = 'loop' in def && !!def.loop;
    return fc
      .record({
        slots: fc.record(slots),
        bodies: bodyNames.length
          ? fc.record(Object.fromEntries(bodyNames.map((b) => [b, body(loop)])))
          : fc.constant(more.bodies),
        note:
          def.shape === 'value' || around.runs
            ? fc.constant(undefined)
            : fc.option(fc.constantFrom(...NOTES), { nil: undefined, freq: 6 }),
        off:
          def.shape === 'value' || def.shape === 'starter'
            ? fc.constant(false)
            : fc.integer({ min: 0, max: 9 }).map((n) => n === 0)
      })
      .map(({ slots: filled, bodies, note, off }) => {
        const own: Record<string, Slot> = { ...more.slots };
        for (const name in filled)
          if (filled[name] !== undefined) own[name] = filled[name]!;
          else delete own[name];
        // rows of a table that cannot happen hold nothing, and are named in their order
        let held = bodies;
        if (kind === 'choose.table') {
          const rows = Object.keys(bodies!);
          own.cannot = cannot({ ...step, slots: own })
            .filter((r) => rows.includes(r))
            .sort((a, c) => rows.indexOf(a) - rows.indexOf(c))
            .join(' ');
          held = Object.fromEntries(
            rows.map((r) => [r, cannot({ ...step, slots: own }).includes(r) ? [] : bodies![r]])
          );
        }
        return {
          id: step.id,
          kind,
          slots: own,
          ...(held ? { bodies: held } : {}),
          ...(note ? { note } : {}),
          ...(off ? { off: true as const } : {})
        };
      });
  });
}
const program0 = ({ program }: Around): string[] =>
  program.routines.length ? program.routines.map((r) => r.id) : [''];

function listOf(around: Around, max: number): fc.Arbitrary<Step[]> {
  if (max === 0) return fc.constant([]);
  const choices = STEPS.filter((k) => allowed(k, around) && (around.depth > 0 || catalogue.get(k)!.shape === 'step'));
  const ends = ENDS.filter((k) => allowed(k, around) && (k !== 'repeat.ever' || around.depth > 0));
  return fc
    .tuple(
      fc.array(
        fc.constantFrom(...choices).chain((k) => stepOf(k, around)),
        { maxLength: max }
      ),
      fc.option(ends.length ? fc.constantFrom(...ends).chain((k) => stepOf(k, around)) : fc.constant(undefined), {
        freq: around.runs ? 8 : 4
      })
    )
    .map(([list, end]) => (end ? [...list, end] : list));
}

const TYPES = INPUT_TYPES;
function shell(runs: boolean): Program {
  return {
    stacks: [],
    loose: [],
    variables: [
      { id: 'v1', name: 'count' },
      { id: 'v2', name: 'Länge' },
      { id: 'v3', name: 'things', list: true }
    ],
    routines: [
      {
        id: 'r1',
        name: runs ? 'sum' : 'Do it!',
        inputs: (runs ? (['number', 'number'] as const) : TYPES).map((type, i) => ({
          id: `in${i}`,
          name: i ? `word ${i}` : 'Angle',
          type
        })),
        x: 0,
        y: 0,
        steps: []
      },
      { id: 'r2', name: 'ring', x: 0, y: 0, steps: [] }
    ]
  };
}
const STARTERS = kinds(['starter']);

/** Programs of every block, with notes, parked stacks, switched-off blocks, loose ones: they need not make sense. */
export const anyProgram: fc.Arbitrary<Program> = fc.constant(0).chain(() => {
  const program = shell(false);
  const around: Around = { program, inLoop: false, runs: false, depth: 2 };
  const stack = fc
    .tuple(
      fc.option(fc.constantFrom(...STARTERS).chain((k) => stepOf(k, { ...around, depth: k === 'begin.when' ? 1 : 0 }))),
      listOf(around, 4),
      fc.boolean(),
      fc.integer({ min: 0, max: 5 })
    )
    .map(([starter, steps, parked, off]) => ({
      id: id(),
      x: 0,
      y: 0,
      steps: [...(starter ? [off === 0 ? { ...starter, off: true as const } : starter] : []), ...steps],
      ...(parked ? { parked: true } : {})
    }))
    .filter((s) => s.steps.length > 0);
  return fc
    .record({
      stacks: fc.array(stack, { maxLength: 4 }),
      bodies: fc.tuple(...program.routines.map((r) => listOf({ ...around, inRoutine: r }, 3))),
      loose: fc.array(
        fc.constantFrom(...VALUES.filter((k) => k !== 'routine.input')).chain((k) => stepOf(k, around)),
        { maxLength: 2 }
      )
    })
    .map(({ stacks, bodies, loose }) => ({
      ...program,
      stacks,
      routines: program.routines.map((r, i) => ({ ...r, steps: bodies[i] })),
      loose: loose.map((value) => ({ x: 0, y: 0, value }))
    }));
});

/** Programs that run for a while in both runners, of blocks whose values fit their slots. */
export const randomProgram: fc.Arbitrary<Program> = fc.constant(0).chain(() => {
  const program = shell(true);
  const around: Around = { program, inLoop: false, runs: true, depth: 2 };
  const RUN_STARTERS = ['begin.start', 'begin.start', 'begin.every', 'begin.when', 'begin.message', 'begin.button'];
  const starter = fc
    .constantFrom(...RUN_STARTERS)
    .chain((kind) =>
      kind === 'begin.every'
        ? fc.integer({ min: 40, max: 400 }).map((time): Step => ({ id: id(), kind, slots: { time, unit: 'ms' } }))
        : stepOf(kind, { ...around, depth: kind === 'begin.when' ? 1 : 0, program: { ...program, routines: [] } })
    );
  const stack = fc
    .tuple(starter, listOf(around, 5))
    .map(([first, steps]) => ({ id: id(), x: 0, y: 0, steps: [first, ...steps] }));
  return fc
    .record({
      stacks: fc.array(stack, { minLength: 1, maxLength: 3 }),
      bodies: fc.tuple(...program.routines.map((r) => listOf({ ...around, inRoutine: r, depth: 1 }, 3))),
      given: fc.tuple(...program.routines.map((r) => stepOf('routine.give', { ...around, inRoutine: r, depth: 1 })))
    })
    .map(({ stacks, bodies, given }) => ({
      ...program,
      stacks,
      routines: program.routines.map((r, i) => ({
        ...r,
        steps: catalogue.get(bodies[i].at(-1)?.kind ?? '')?.shape === 'end' ? bodies[i] : [...bodies[i], given[i]]
      }))
    }));
});
