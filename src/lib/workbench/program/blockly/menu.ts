/** The menu of a block: ours alone. */
import * as Blockly from 'blockly/core';
import { cannot, tableRows } from '../../../../../core/language/blocks/choose.ts';
import { catalogue } from '../../../../../core/language/catalogue.ts';
import type { Reshape } from '../../../../../core/language/edit.ts';
import type { Program, Step } from '../../../../../core/language/program.ts';
import { allSteps } from '../../../../../core/language/program.ts';
import { tagsOf } from './convert.ts';
import { later, say, word } from '../../../../../core/words.ts';

export type MenuActions = {
  program: () => Program;
  /** ids that an action is for: all that are chosen, or this block */
  chosen: (block: Blockly.BlockSvg) => string[];
  duplicate: (block: Blockly.BlockSvg, below: boolean) => void;
  copy: (block: Blockly.BlockSvg) => void;
  note: (block: Blockly.BlockSvg) => void;
  off: (block: Blockly.BlockSvg, off: boolean, below: boolean) => void;
  park: (block: Blockly.BlockSvg, parked: boolean) => void;
  pull: (block: Blockly.BlockSvg) => void;
  reshape: (block: Blockly.BlockSvg, change: Reshape) => void;
  loop: (block: Blockly.BlockSvg) => void;
  routine: (block: Blockly.BlockSvg) => void;
  compare: (block: Blockly.BlockSvg) => void;
  inputs: (block: Blockly.BlockSvg) => void;
  rename: (block: Blockly.BlockSvg) => void;
  remove: (block: Blockly.BlockSvg) => void;
  line: (block: Blockly.BlockSvg) => void;
  help: (block: Blockly.BlockSvg) => void;
  stop: (block: Blockly.BlockSvg) => void;
  stops: (block: Blockly.BlockSvg) => boolean;
  toHere: (block: Blockly.BlockSvg) => void;
  tryJust: (block: Blockly.BlockSvg) => void;
};
const { ScopeType } = Blockly.ContextMenuRegistry;
let current: MenuActions;

type Show = (b: Blockly.BlockSvg) => boolean;
const isStep: Show = (b) => !b.outputConnection && b.type !== 'routine.define';
const stepOf = (b: Blockly.BlockSvg): Step | undefined => [...allSteps(current.program())].find((s) => s.id === b.id);
const grows =
  (...kinds: string[]): Show =>
  (b) =>
    kinds.includes(b.type);

export function registerMenu(actions: MenuActions): void {
  current = actions;
  const registry = Blockly.ContextMenuRegistry.registry;
  if (registry.getItem('mb.duplicate')) return;
  for (const id of [
    'blockInline',
    'blockCollapseExpand',
    'blockHelp',
    'blockDisable',
    'blockComment',
    'blockDuplicate',
    'blockDelete',
    'workspaceDelete',
    'collapseWorkspace',
    'expandWorkspace',
    'undoWorkspace',
    'redoWorkspace',
    'cleanWorkspace'
  ])
    if (registry.getItem(id)) registry.unregister(id);
  let weight = 0;
  const item = (
    id: string,
    text: string | ((b: Blockly.BlockSvg) => string),
    act: (b: Blockly.BlockSvg) => void,
    show: Show = () => true
  ): void =>
    registry.register({
      id: `mb.${id}`,
      weight: ++weight,
      scopeType: ScopeType.BLOCK,
      displayText: ({ block }) => (typeof text === 'string' ? word(text) : text(block!)),
      preconditionFn: ({ block }) => (block && !block.isShadow() && show(block) ? 'enabled' : 'hidden'),
      callback: ({ block }) => act(block!)
    });
  const several = (b: Blockly.BlockSvg): string => {
    const n = current.chosen(b).length;
    return n > 1 ? say(' {n} blocks', { n }) : '';
  };
  item('help', later('What does it do?'), (b) => current.help(b));
  const runs: Show = (b) => isStep(b) && catalogue.get(b.type)?.shape !== 'starter';
  item(
    'tryJust',
    later('Try just this …'),
    (b) => current.tryJust(b),
    (b) => !b.outputConnection
  );
  item(
    'stop',
    (b) => (current.stops(b) ? say('Take the stop away') : say('Stop the run here')),
    (b) => current.stop(b),
    runs
  );
  item('toHere', later('Run to here'), (b) => current.toHere(b), runs);
  item(
    'duplicate',
    (b) => say('Duplicate{several}', { several: several(b) }),
    (b) => current.duplicate(b, false)
  );
  item(
    'duplicateBelow',
    later('Duplicate with all below'),
    (b) => current.duplicate(b, true),
    (b) => !!b.getNextBlock()
  );
  item(
    'copy',
    (b) => say('Copy{several}', { several: several(b) }),
    (b) => current.copy(b)
  );
  item(
    'note',
    (b) => (tagsOf(b).note ? say('Change the note') : say('Add a note')),
    (b) => current.note(b),
    (b) => !b.outputConnection
  );
  item(
    'line',
    later('Its line in the notebook'),
    (b) => current.line(b),
    (b) => !b.outputConnection
  );
  item(
    'pull',
    later('Pull out just this block'),
    (b) => current.pull(b),
    (b) => isStep(b) && !!b.getPreviousBlock() && !!b.getNextBlock()
  );
  item(
    'off',
    (b) => (b.hasDisabledReason('off') ? say('Switch on') : say('Switch off')),
    (b) => current.off(b, !b.hasDisabledReason('off'), false),
    isStep
  );
  item(
    'offBelow',
    (b) => (b.hasDisabledReason('off') ? say('Switch on, with all below') : say('Switch off, with all below')),
    (b) => current.off(b, !b.hasDisabledReason('off'), true),
    (b) => isStep(b) && !!b.getNextBlock()
  );
  item(
    'park',
    later('Park this stack'),
    (b) => current.park(b, true),
    (b) =>
      !tagsOf(b.getRootBlock()).parked &&
      b.getRootBlock().type !== 'routine.define' &&
      !b.getRootBlock().outputConnection
  );
  item(
    'unpark',
    later('Take out of the park'),
    (b) => current.park(b, false),
    (b) => !!tagsOf(b.getRootBlock()).parked
  );
  const shape = (id: string, text: string, change: Reshape, show: Show): void =>
    item(id, text, (b) => current.reshape(b, change), show);
  const bodies = (b: Blockly.BlockSvg): string[] => Object.keys(stepOf(b)?.bodies ?? {});
  shape('moreIf', later('Add: otherwise if'), 'more', grows('choose.if'));
  shape(
    'lessIf',
    later('Take away the last otherwise if'),
    'less',
    (b) => b.type === 'choose.if' && bodies(b).includes('then2')
  );
  shape('moreCase', later('Add a case'), 'more', grows('choose.match'));
  shape(
    'lessCase',
    later('Take away the last case'),
    'less',
    (b) => b.type === 'choose.match' && bodies(b).includes('do2')
  );
  const branching = grows('choose.if', 'choose.match');
  shape('otherwise', later('Add: otherwise'), 'otherwise', (b) => branching(b) && !bodies(b).includes('otherwise'));
  shape(
    'noOtherwise',
    later('Take away otherwise'),
    'no otherwise',
    (b) => branching(b) && bodies(b).includes('otherwise')
  );
  shape('third', later('Ask a third question'), 'more', (b) => b.type === 'choose.table' && !bodies(b).includes('yyy'));
  shape('two', later('Ask two questions only'), 'less', (b) => b.type === 'choose.table' && bodies(b).includes('yyy'));
  for (const row of [...tableRows(2), ...tableRows(3)]) {
    const name = [...row].map((c) => (c === 'y' ? 'yes' : 'no')).join(' ');
    const has: Show = (b) => b.type === 'choose.table' && bodies(b).includes(row);
    shape(
      `cannot${row}`,
      say('{name} cannot happen', { name }),
      `cannot ${row}`,
      (b) => has(b) && !cannot(stepOf(b)!).includes(row)
    );
    shape(
      `can${row}`,
      say('{name} can happen', { name }),
      `can ${row}`,
      (b) => has(b) && cannot(stepOf(b)!).includes(row)
    );
  }
  shape('morePlace', later('Add a place'), 'more', grows('list.new'));
  shape(
    'lessPlace',
    later('Take away the last place'),
    'less',
    (b) => b.type === 'list.new' && 'i1' in (stepOf(b)?.slots ?? {})
  );
  item(
    'inputs',
    later('What it needs: its inputs'),
    (b) => current.inputs(b),
    (b) => b.type === 'routine.define'
  );
  item(
    'loop',
    later('Put these into a loop'),
    (b) => current.loop(b),
    (b) => isStep(b) && !!b.previousConnection
  );
  item(
    'routine',
    later('Make a routine of these'),
    (b) => current.routine(b),
    (b) => isStep(b) && !!b.previousConnection
  );
  item(
    'compare',
    later('Compare this stack with another'),
    (b) => current.compare(b),
    (b) => !b.getRootBlock().outputConnection
  );
  item(
    'rename',
    later('Rename everywhere'),
    (b) => current.rename(b),
    (b) => ['variable', 'list', 'routine', 'input', 'name'].some((f) => b.getField(f)) || b.type === 'routine.define'
  );
  item(
    'delete',
    (b) => say('Take out{several}', { several: several(b) }),
    (b) => current.remove(b)
  );
}

const KEYS =
  'copy cut paste keyboard_nav_copy keyboard_nav_cut keyboard_nav_paste duplicate undo redo delete list_shortcuts';
const ITEMS = 'blockCopyFromContextMenu blockCutFromContextMenu blockPasteFromContextMenu edit move blockDelete';
/** Takes keys and menu entries of the libraries away that we have ourselves; to be called when a sheet is made. */
export function ownKeys(): void {
  const { registry } = Blockly.ShortcutRegistry;
  for (const name of KEYS.split(' ')) if (registry.getRegistry()[name]) registry.unregister(name);
  for (const id of ITEMS.split(' ')) {
    const entry = Blockly.ContextMenuRegistry.registry.getItem(id);
    // the library takes it back itself when the sheet is gone, so it is hidden, not taken out
    if (entry && 'preconditionFn' in entry) entry.preconditionFn = () => 'hidden';
  }
}
