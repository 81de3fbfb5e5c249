/** stale-display: the display still shows what a variable held before it changed. */
import { shows, takesTime } from '../../language/facts.ts';
import { inputSlot } from '../../language/blocks/reuse.ts';
import { allSteps, isStep, walkSteps, type Program, type Step } from '../../language/program.ts';
import { say } from '../../words.ts';
import { eventsOf, rowsOfBlock } from '../apart.ts';
import { endUs } from '../trace.ts';
import { momentOf, seconds, type Found, type Rule } from './finding.ts';

/** So long it stood there, µs. */
const STOOD_US = 300_000;

/** Ids of the variables that a block asks: itself, through routines whose answer it takes, and what its routine is given. */
function readsOf(program: Program, step: Step): ReadonlySet<string> {
  const all = [...allSteps(program)];
  const read = new Set<string>();
  const been = new Set<string>();
  const look = (steps: readonly Step[]): void => {
    for (const s of walkSteps(steps)) {
      const { variable, routine, input } = s.slots;
      const next = `${s.kind} ${String(routine ?? input)}`;
      if (s.kind === 'var.value') read.add(String(variable));
      else if (been.has(next)) continue;
      else if (s.kind === 'routine.value') {
        been.add(next);
        look(program.routines.find((r) => r.id === routine)?.steps ?? []);
      } else if (s.kind === 'routine.input') {
        been.add(next);
        look(all.map((one) => one.slots[inputSlot(String(input))]).filter(isStep));
      }
    }
  };
  look([step]);
  return read;
}

export const staleDisplay: Rule = ({ trace, program }) => {
  if (!program) return [];
  const last = eventsOf(trace, 'display').at(-1);
  const writes = [...allSteps(program)]
    .filter((s) => (shows(s) || s.kind.startsWith('pixel.')) && !takesTime(s))
    .map((step) => ({ step, reads: readsOf(program, step) }));
  const now = last && writes.find(({ step }) => step.id === last.block);
  if (!last || !now) return [];
  const { changes } = trace;
  const { start, end } = trace.spans;
  // what was written again and looks the same is no event: the newest run of any block that shows it counts
  const lastShown = (id: string): number =>
    Math.max(
      ...writes
        .filter(({ reads }) => reads.has(id))
        .map(({ step }) => rowsOfBlock(trace, step.id).at(-1))
        .map((row) => (row === undefined ? 0 : end[row] || start[row]))
    );
  const shown = program.variables.filter((v) => now.reads.has(v.id));
  return shown.flatMap(({ id, name }): Found[] => {
    const shownUs = lastShown(id);
    const variable = trace.names.indexOf(name);
    let at = -1;
    for (let row = 0; row < changes.count; row++) if (changes.variable[row] === variable) at = row;
    if (at < 0 || changes.tUs[at] <= shownUs || endUs(trace) - changes.tUs[at] < STOOD_US) return [];
    return [
      {
        rule: 'stale-display',
        weight: 52,
        says: say(
          '{name} changed at {s} s, and the display was written before that, at {shown} s: it still shows the old value.',
          {
            name,
            s: seconds(changes.tUs[at]),
            shown: seconds(shownUs)
          }
        ),
        todo: say('Write it again after the change.'),
        figures: [momentOf(changes.tUs[at]), momentOf(shownUs)],
        blocks: [now.step.id],
        fromUs: shownUs,
        toUs: changes.tUs[at],
        lanes: ['display', 'variables']
      }
    ];
  });
};
