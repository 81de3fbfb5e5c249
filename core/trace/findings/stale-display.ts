/** stale-display: the display still shows what a variable held before it changed. */
import { allSteps, walkSteps, type Step } from '../../language/program.ts';
import { say } from '../../words.ts';
import { eventsOf, rowsOfBlock } from '../apart.ts';
import { endUs } from '../trace.ts';
import { seconds, type Found, type Rule } from './finding.ts';

/** So long it stood there, µs. */
const STOOD_US = 300_000;

export const staleDisplay: Rule = ({ trace, program }) => {
  if (!program) return [];
  const last = eventsOf(trace, 'display').at(-1);
  const writes = [...allSteps(program)].filter((s) => s.kind === 'display.write' && s.slots.how !== 'passing');
  const shows = last && writes.find((s) => s.id === last.block);
  if (!last || !shows) return [];
  const variablesOf = (step: Step): string[] =>
    [...walkSteps([step])].flatMap((s) => (s.kind === 'var.value' ? [String(s.slots.variable)] : []));
  const { changes } = trace;
  const { start, end } = trace.spans;
  // what was written again and looks the same is no event: the newest run of any block that shows it counts
  const lastShown = (id: string): number =>
    Math.max(
      ...writes
        .filter((s) => variablesOf(s).includes(id))
        .map((s) => rowsOfBlock(trace, s.id).at(-1))
        .map((row) => (row === undefined ? 0 : end[row] || start[row]))
    );
  const shown = program.variables.filter((v) => variablesOf(shows).includes(v.id));
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
        blocks: [shows.id],
        fromUs: shownUs,
        toUs: changes.tUs[at],
        lanes: ['display', 'variables']
      }
    ];
  });
};
