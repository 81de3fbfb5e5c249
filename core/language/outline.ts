/**
 * A stack as a flow chart, with the symbols of ISO 5807: terminators, processes, predefined processes, decisions. A table
 * stays one symbol with its rows. What is switched off is left out.
 */
import { branches, cannot, caseCount, hasOtherwise, questions, tableRows } from './blocks/choose.ts';
import { sentence } from './catalogue.ts';
import { isLive, isStep, type Program, type Step } from './program.ts';
import { later, say, word } from '../words.ts';

export type FlowNode = {
  id: string;
  kind: 'terminator' | 'process' | 'routine' | 'decision' | 'table' | 'junction';
  text: string;
  /** the block that it stands for */
  block?: string;
};
export type FlowEdge = { from: string; to: string; label?: string };
export type Flow = { id: string; title: string; nodes: FlowNode[]; edges: FlowEdge[] };
/** An arrow that has no end yet. */
type Open = { from: string; label?: string };
type Loop = { head: () => string; leaves: Open[] };

/** One chart for each stack that can run and each routine. @param partName what the part in a socket is called */
export function flowsOf(program: Program, partName: (socket: string) => string): Flow[] {
  return [
    ...program.stacks.filter(isLive).map((s) => {
      const title = sentence(s.steps[0], program, partName);
      return chart(s.id, title, s.steps[0].id, s.steps.slice(1), program, partName);
    }),
    ...program.routines.map((r) => {
      const title = `${say('routine {name}', { name: r.name })}${r.inputs?.length ? `: ${r.inputs.map((i) => i.name).join(', ')}` : ''}`;
      return chart(r.id, title, r.id, r.steps, program, partName);
    })
  ];
}

function chart(
  id: string,
  title: string,
  owner: string,
  list: readonly Step[],
  program: Program,
  partName: (socket: string) => string
): Flow {
  const nodes: FlowNode[] = [];
  const edges: FlowEdge[] = [];
  const add = (kind: FlowNode['kind'], text: string, block?: string): string => {
    const node = { id: `${id}.${nodes.length}`, kind, text, ...(block ? { block } : {}) };
    nodes.push(node);
    return node.id;
  };
  const join = (open: readonly Open[], to: string): void => {
    for (const { from, label } of open) edges.push({ from, to, ...(label ? { label: word(label) } : {}) });
  };
  const told = (slot: Step['slots'][string] | undefined): string =>
    isStep(slot) ? sentence(slot, program, partName) : slot === undefined ? '...' : String(slot);
  const ask = (step: Step, slot: string): string => `${told(step.slots[slot])}?`;

  const steps = (body: readonly Step[], open: Open[], loop: Loop | undefined): Open[] => {
    let now = open;
    for (const step of body) {
      if (step.off) continue;
      // nothing leads here any more
      if (now.length === 0) break;
      now = one(step, now, loop);
    }
    return now;
  };
  const plain = (step: Step, open: Open[], kind: FlowNode['kind'] = 'process'): Open[] => {
    const node = add(kind, sentence(step, program, partName), step.id);
    join(open, node);
    return [{ from: node }];
  };
  /** a loop whose question is asked before each turn */
  const asked = (step: Step, open: Open[], text: string, goesOn: 'yes' | 'no'): Open[] => {
    const head = add('decision', text, step.id);
    join(open, head);
    const loop: Loop = { head: () => head, leaves: [] };
    join(steps(step.bodies?.do ?? [], [{ from: head, label: goesOn }], loop), head);
    return [{ from: head, label: goesOn === 'yes' ? 'no' : 'yes' }, ...loop.leaves];
  };
  /** a loop whose question is asked after each turn */
  const askedAfter = (step: Step, open: Open[], text: string, goesOn: 'yes' | 'no'): Open[] => {
    const top = add('junction', '', step.id);
    join(open, top);
    let question: string | undefined;
    const head = (): string => (question ??= add('decision', text, step.id));
    const loop: Loop = { head, leaves: [] };
    const end = steps(step.bodies?.do ?? [], [{ from: top }], loop);
    // a question that nobody comes to is not drawn
    if (end.length === 0 && question === undefined) return loop.leaves;
    join(end, head());
    edges.push({ from: head(), to: top, label: word(goesOn) });
    return [{ from: head(), label: goesOn === 'yes' ? 'no' : 'yes' }, ...loop.leaves];
  };
  const one = (step: Step, open: Open[], loop: Loop | undefined): Open[] => {
    switch (step.kind) {
      case 'choose.if': {
        const exits: Open[] = [];
        let now = open;
        for (let n = 1; n <= branches(step); n++) {
          const node = add('decision', ask(step, `if${n}`), step.id);
          join(now, node);
          exits.push(...steps(step.bodies?.[`then${n}`] ?? [], [{ from: node, label: 'yes' }], loop));
          now = [{ from: node, label: 'no' }];
        }
        return [...exits, ...(hasOtherwise(step) ? steps(step.bodies!.otherwise, now, loop) : now)];
      }
      case 'choose.table': {
        const n = questions(step);
        const node = add('table', Array.from({ length: n }, (_, q) => ask(step, `q${q + 1}`)).join('\n'), step.id);
        join(open, node);
        return tableRows(n)
          .filter((row) => !cannot(step).includes(row))
          .flatMap((row) => {
            const label = [...row].map((c) => (c === 'y' ? say('yes') : say('no'))).join(', ');
            return steps(step.bodies?.[row] ?? [], [{ from: node, label }], loop);
          });
      }
      case 'choose.match': {
        const node = add('decision', ask(step, 'value'), step.id);
        join(open, node);
        const exits: Open[] = [];
        for (let n = 1; n <= caseCount(step); n++)
          exits.push(...steps(step.bodies?.[`do${n}`] ?? [], [{ from: node, label: told(step.slots[`c${n}`]) }], loop));
        const rest: Open[] = [{ from: node, label: later('otherwise') }];
        return [...exits, ...(hasOtherwise(step) ? steps(step.bodies!.otherwise, rest, loop) : rest)];
      }
      case 'repeat.times':
        return asked(step, open, say('turns left of {count}?', { count: told(step.slots.count) }), 'yes');
      case 'repeat.for':
        return asked(step, open, say('{time} s over?', { time: told(step.slots.time) }), 'no');
      case 'repeat.count': {
        const name = program.variables.find((v) => v.id === step.slots.variable)?.name ?? '?';
        const { from, to, step: by } = step.slots;
        return asked(
          step,
          open,
          say('{name} goes from {from} to {to} in steps of {by}: more?', {
            name,
            from: told(from),
            to: told(to),
            by: told(by)
          }),
          'yes'
        );
      }
      case 'repeat.each': {
        const name = program.variables.find((v) => v.id === step.slots.variable)?.name ?? '?';
        return asked(
          step,
          open,
          say('{name} is the next of {list}: is there one?', { name, list: told(step.slots.list) }),
          'yes'
        );
      }
      case 'repeat.until':
        return (step.slots.look === 'after' ? askedAfter : asked)(step, open, ask(step, 'condition'), 'no');
      case 'repeat.while':
        return (step.slots.look === 'after' ? askedAfter : asked)(step, open, ask(step, 'condition'), 'yes');
      case 'repeat.ever': {
        const top = add('junction', '', step.id);
        join(open, top);
        const own: Loop = { head: () => top, leaves: [] };
        join(steps(step.bodies?.do ?? [], [{ from: top }], own), top);
        return own.leaves;
      }
      case 'repeat.leave': {
        const end = plain(step, open);
        loop?.leaves.push(...end);
        return [];
      }
      case 'repeat.next': {
        const end = plain(step, open);
        if (loop) join(end, loop.head());
        return [];
      }
      case 'routine.give':
        plain(step, open, 'terminator');
        return [];
      case 'routine.do':
        return plain(step, open, 'routine');
      default:
        return plain(step, open);
    }
  };
  const first = add('terminator', title, owner);
  const rest = steps(list, [{ from: first }], undefined);
  if (rest.length) join(rest, add('terminator', say('end')));
  return { id, title, nodes, edges };
}
