/** The first rules about what a program does in time. Each says what will happen and what to do. */
import { partAt, wheelMotor } from '../../kit/kit.ts';
import { bodiesOf, catalogue, nameOf, newStep, slotsOf, slotSpec } from '../catalogue.ts';
import { addStack, insertAfter, removeStep, setSlot } from '../edit.ts';
import { allIds, freshId, isStep, liveSteps, type Program, type Step } from '../program.ts';
import { typedNumber } from '../values.ts';
import type { Remark, Rule } from './remark.ts';
import { literal, liveLists, takesTime } from './walk.ts';
import { say, word } from '../../words.ts';

const RUNS = ['wheels.run', 'motor.run'];
const STOPS = [
  'wheels.stop',
  'motor.stop',
  'motor.span',
  ...['drive.measure', 'drive.facing', 'turn.angle', 'turn.gyro', 'turn.face', 'curve.angle', 'wheels.span']
];
const SHOWS = ['picture.show', 'picture.at', 'display.write', 'display.dark'];
const fresh = (program: Program, kind: string, slots: Step['slots'] = {}): Step => {
  const step = newStep(kind, freshId(allIds(program)), program);
  return { ...step, slots: { ...step.slots, ...slots } };
};
const stops = (step: Step, run: Step): boolean =>
  run.kind === 'motor.run'
    ? (step.kind.startsWith('motor.') && step.slots.motor === run.slots.motor) ||
      (!step.kind.startsWith('motor.') && STOPS.includes(step.kind))
    : STOPS.includes(step.kind);

/** never-stopped: a motor is started and nothing in the program stops it. */
export const neverStopped: Rule = ({ program }) => {
  const live = [...liveSteps(program)];
  const remarks: Remark[] = [];
  for (const run of live) {
    if (!RUNS.includes(run.kind)) continue;
    const zero =
      run.kind === 'motor.run'
        ? literal(run, 'power') === 0
        : literal(run, 'left') === 0 && literal(run, 'right') === 0;
    if (
      zero ||
      live.some(
        (s) =>
          s !== run &&
          (stops(s, run) || (s.kind === run.kind && (literal(s, 'power') === 0 || literal(s, 'left') === 0)))
      )
    )
      continue;
    // a loop for ever that steers by its sensors is meant to go on
    if (live.some((s) => s.kind === 'repeat.ever' && contains(s, run))) continue;
    const kind = run.kind === 'motor.run' ? 'motor.stop' : 'wheels.stop';
    remarks.push({
      rule: 'never-stopped',
      severity: 'probably not meant',
      blocks: [run.id],
      says:
        run.kind === 'motor.run'
          ? say('This motor is started and nothing stops it: it runs on when the program is over.')
          : say('The wheels are started and nothing stops them: the robot drives on when the program is over.'),
      todo: say('Wait as long as it should run, then stop it.'),
      mends: [
        {
          label: say('Add: wait 1 s, then stop'),
          apply: (p, kit) => {
            const wait = fresh(p, 'wait.time', { time: 1 });
            const stop = {
              ...fresh(p, kind, kind === 'motor.stop' ? { motor: run.slots.motor } : {}),
              id: `${wait.id}s`
            };
            return { program: insertAfter(p, run.id, [wait, stop]), kit };
          }
        }
      ]
    });
  }
  return remarks;
};
const contains = (outer: Step, inner: Step): boolean =>
  Object.values(outer.bodies ?? {}).some((b) => b.some((s) => s.id === inner.id || contains(s, inner)));

/** shown-for-no-time: a picture is replaced by the next one before anybody can see it. */
export const shownForNoTime: Rule = ({ program }) => {
  const remarks: Remark[] = [];
  for (const list of liveLists(program)) {
    let shown: Step | undefined;
    for (const step of list) {
      if (takesTime(step)) shown = undefined;
      if (!SHOWS.includes(step.kind)) continue;
      if (shown) {
        const before = shown;
        remarks.push({
          rule: 'shown-for-no-time',
          severity: 'probably not meant',
          blocks: [before.id, step.id],
          says: say('The first picture is replaced at once: it is shown for 0.1 ms, and nobody sees it.'),
          todo: say('Put a wait between the two.'),
          mends: [
            {
              label: say('Add: wait 0.5 s between them'),
              apply: (p, kit) => ({ program: insertAfter(p, before.id, [fresh(p, 'wait.time')]), kit })
            }
          ]
        });
      }
      shown = step.kind === 'display.dark' || takesTime(step) ? undefined : step;
    }
  }
  return remarks;
};

/** stop-at-once: a motor is stopped right after it was started. */
export const stopAtOnce: Rule = ({ program }) => {
  const remarks: Remark[] = [];
  for (const list of liveLists(program))
    list.forEach((run, i) => {
      if (!RUNS.includes(run.kind)) return;
      const next = list.slice(i + 1).findIndex((s) => takesTime(s) || (s.kind.endsWith('.stop') && stops(s, run)));
      const stop = next < 0 ? undefined : list[i + 1 + next];
      if (!stop?.kind.endsWith('.stop')) return;
      remarks.push({
        rule: 'stop-at-once',
        severity: 'probably not meant',
        blocks: [run.id, stop.id],
        says: say('It is stopped 0.1 ms after it was started: nothing will seem to happen.'),
        todo: say('Put a wait between the two, or use the block that runs for a time.'),
        mends: [
          {
            label: say('Add: wait 1 s between them'),
            apply: (p, kit) => ({ program: insertAfter(p, run.id, [fresh(p, 'wait.time', { time: 1 })]), kit })
          }
        ]
      });
    });
  return remarks;
};

/** not-joined: a stack without a starter never runs. */
export const notJoined: Rule = ({ program }) => [
  ...program.stacks
    .filter((s) => !s.parked && s.steps.length > 0 && catalogue.get(s.steps[0].kind)?.shape !== 'starter')
    .map((stack): Remark => ({
      rule: 'not-joined',
      severity: 'probably not meant',
      blocks: [stack.steps[0].id],
      says: say('These blocks hang on no starter: they never run.'),
      todo: say('Join them to a stack, park them, or take them out.'),
      mends: [
        {
          label: say('Put "at the start" on top'),
          apply: (p, kit) => ({
            program: {
              ...p,
              stacks: p.stacks.map((s) =>
                s.id === stack.id ? { ...s, steps: [fresh(p, 'begin.start'), ...s.steps] } : s
              )
            },
            kit
          })
        },
        {
          label: say('Park them'),
          apply: (p, kit) => ({
            program: { ...p, stacks: p.stacks.map((s) => (s.id === stack.id ? { ...s, parked: true } : s)) },
            kit
          })
        }
      ]
    })),
  ...program.loose.map((l): Remark => ({
    rule: 'not-joined',
    severity: 'consider',
    blocks: [l.value.id],
    says: say('This value lies loose: nothing uses it.'),
    todo: say('Put it into a slot, or take it out.'),
    mends: [{ label: say('Take it out'), apply: (p, kit) => ({ program: removeStep(p, l.value.id), kit }) }]
  }))
];

/** empty-loop, empty-starter: there is nothing to do in it. */
export const emptyLoop: Rule = ({ program }) => {
  const remarks: Remark[] = [];
  for (const step of liveSteps(program)) {
    if (!step.kind.startsWith('repeat.') || !step.bodies) continue;
    if (bodiesOf(step).every((b) => (step.bodies?.[b] ?? []).every((s) => s.off)))
      remarks.push({
        rule: 'empty-loop',
        severity: step.kind === 'repeat.until' ? 'consider' : 'probably not meant',
        blocks: [step.id],
        says: say('There is nothing in this loop to repeat.'),
        todo: say('Drag blocks into it, or take it out.'),
        mends: [{ label: say('Take it out'), apply: (p, kit) => ({ program: removeStep(p, step.id), kit }) }]
      });
  }
  for (const stack of program.stacks)
    if (!stack.parked && stack.steps.length === 1 && catalogue.get(stack.steps[0].kind)?.shape === 'starter')
      remarks.push({
        rule: 'empty-starter',
        severity: 'consider',
        blocks: [stack.steps[0].id],
        says: say('Nothing hangs on this starter.'),
        todo: say('Drag blocks below it.'),
        mends: []
      });
  if (program.stacks.length === 0) return remarks;
  if (![...program.stacks].some((s) => !s.parked && catalogue.get(s.steps[0]?.kind ?? '')?.shape === 'starter'))
    remarks.push({
      rule: 'no-starter',
      severity: 'will not work',
      blocks: [],
      says: say('No stack begins with a starter: nothing will run.'),
      todo: say('Take "at the start" from Begin.'),
      mends: [
        {
          label: say('Add "at the start"'),
          apply: (p, kit) => ({
            program: addStack(p, { id: freshId(allIds(p), 's'), x: 20, y: 20, steps: [fresh(p, 'begin.start')] }),
            kit
          })
        }
      ]
    });
  return remarks;
};

/** mirrored-motor: both wheels' motors turn their shafts the same way, but one is mounted mirrored. */
export const mirroredMotor: Rule = ({ program, kit }) => {
  const left = wheelMotor(kit, 'left');
  const right = wheelMotor(kit, 'right');
  if (!left || !right || left.mounted === right.mounted) return [];
  // somebody who says how a motor counts knows about it
  if ([...liveSteps(program)].some((s) => s.kind === 'motor.side')) return [];
  const mirrored = left.mounted === 'mirrored' ? left : right;
  const remarks: Remark[] = [];
  for (const list of liveLists(program))
    for (let i = 0; i + 1 < list.length; i++) {
      const [a, b] = [list[i], list[i + 1]];
      if (a.kind !== 'motor.run' || b.kind !== 'motor.run') continue;
      const sockets = [a.slots.motor, b.slots.motor];
      const [pa, pb] = [literal(a, 'power'), literal(b, 'power')];
      if (
        !sockets.includes(left.socket) ||
        !sockets.includes(right.socket) ||
        pa === undefined ||
        pb === undefined ||
        pa * pb <= 0
      )
        continue;
      remarks.push({
        rule: 'mirrored-motor',
        severity: 'probably not meant',
        blocks: [a.id, b.id],
        says: say(
          'Both motors get the same sign, but the {name} is mounted mirrored: the robot spins instead of driving.',
          { name: mirrored.name }
        ),
        todo: say('Use Run both wheels, which knows how they are mounted, or turn the sign round.'),
        mends: [
          {
            label: say('Use Run both wheels'),
            apply: (p, k) => {
              const power = { [String(a.slots.motor)]: Math.abs(pa), [String(b.slots.motor)]: Math.abs(pb) };
              const sign = (partAt(k, left.socket)?.mounted === 'mirrored' ? pb : pa) > 0 ? 1 : -1;
              const both = fresh(p, 'wheels.run', {
                left: sign * power[left.socket],
                right: sign * power[right.socket]
              });
              return { program: removeStep(removeStep(insertAfter(p, a.id, [both]), a.id), b.id), kit: k };
            }
          }
        ]
      });
    }
  return remarks;
};

const NAMES = new Set(['variable', 'list', 'routine', 'input']);
/** bad-number, missing: a slot that cannot be read; the program does not start. */
export const unreadable: Rule = ({ program }) => {
  const remarks: Remark[] = [];
  for (const step of liveSteps(program))
    for (const [name, spec] of Object.entries(slotSpecs(step, program))) {
      const slot = step.slots[name];
      if (isStep(slot)) continue;
      if (spec.type === 'number') {
        const n = typeof slot === 'number' ? slot : typedNumber(String(slot ?? ''));
        if (n === undefined)
          remarks.push({
            rule: 'not-a-number',
            severity: 'will not work',
            blocks: [step.id],
            says: say('"{x}" is not a number, so the program cannot start.', { x: String(slot ?? '') }),
            todo: say('Type a number, such as 30 or 0.5, or put a value block there.'),
            mends: [
              {
                label: say('Put {default} there', { default: spec.default }),
                apply: (p, kit) => ({ program: setSlot(p, step.id, name, spec.default), kit })
              }
            ]
          });
        else if ((spec.min !== undefined && n < spec.min) || (spec.max !== undefined && n > spec.max))
          remarks.push({
            rule: 'out-of-range',
            severity: 'probably not meant',
            blocks: [step.id],
            says: say('{n} is outside of what is possible here: {x} to {x2}.', {
              n,
              x: spec.min ?? say('anything'),
              x2: spec.max ?? say('anything')
            }),
            todo: say('The device will use the nearest it can.'),
            mends: []
          });
        else if (spec.whole && !Number.isInteger(n))
          remarks.push({
            rule: 'not-whole',
            severity: 'will not work',
            blocks: [step.id],
            says: say('{n} is not a whole number, and one is needed here.', { n }),
            todo: say('Type a whole number.'),
            mends: []
          });
      } else if (spec.type === 'condition' && slot === undefined)
        remarks.push({
          rule: 'no-condition',
          severity: 'probably not meant',
          blocks: [step.id],
          says: say('Its condition is empty, and an empty condition is never true.'),
          todo: say('Put a condition into the slot, from Work out or Sense.'),
          mends: []
        });
      else if (spec.type === 'items' && slot === undefined)
        remarks.push({
          rule: 'no-list',
          severity: 'will not work',
          blocks: [step.id],
          says: say('No list stands in its slot: the program will stop here.'),
          todo: say('Put a list there, from Remember.'),
          mends: []
        });
      else if (NAMES.has(spec.type) && nameOf(spec, String(slot), program) === undefined)
        remarks.push({
          rule: 'nameless',
          severity: 'will not work',
          blocks: [step.id],
          says: say('This block names no {type}.', { type: word(spec.type) }),
          todo: say('Choose a {type} in its list, or make one.', { type: word(spec.type) }),
          mends: []
        });
    }
  return remarks;
};
const slotSpecs = (step: Step, program: Program) =>
  Object.fromEntries(slotsOf(step, program).map((n) => [n, slotSpec(step, n, program)!]));
