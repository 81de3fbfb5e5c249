/** The menu of a block: ours alone. */
import * as Blockly from 'blockly/core';
import { tagsOf } from './convert.ts';

export type MenuActions = {
  park(block: Blockly.BlockSvg, parked: boolean): void;
  reshape(block: Blockly.BlockSvg, change: 'more' | 'less' | 'otherwise' | 'no otherwise'): void;
  note(block: Blockly.BlockSvg): void;
};
const { ScopeType } = Blockly.ContextMenuRegistry;
let current: MenuActions;

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
  const item = (
    id: string,
    weight: number,
    text: string | ((b: Blockly.BlockSvg) => string),
    act: (b: Blockly.BlockSvg) => void,
    show: (b: Blockly.BlockSvg) => boolean = () => true
  ): void =>
    registry.register({
      id: `mb.${id}`,
      weight,
      scopeType: ScopeType.BLOCK,
      displayText: ({ block }) => (typeof text === 'string' ? text : text(block!)),
      preconditionFn: ({ block }) => (block && !block.isShadow() && show(block) ? 'enabled' : 'hidden'),
      callback: ({ block }) => act(block!)
    });
  const shape = (b: Blockly.BlockSvg) => b as unknown as { branches_: number; otherwise_: boolean };
  item('duplicate', 1, 'Duplicate', (b) => {
    const data = b.toCopyData(false);
    if (data) Blockly.clipboard.paste(data, b.workspace);
  });
  item(
    'duplicateBelow',
    2,
    'Duplicate with all below',
    (b) => {
      const data = b.toCopyData(true);
      if (data) Blockly.clipboard.paste(data, b.workspace);
    },
    (b) => !!b.getNextBlock()
  );
  item(
    'note',
    3,
    (b) => (tagsOf(b).note ? 'Change the note' : 'Add a note'),
    (b) => current.note(b)
  );
  item(
    'off',
    4,
    (b) => (b.hasDisabledReason('off') ? 'Switch on' : 'Switch off'),
    (b) => b.setDisabledReason(!b.hasDisabledReason('off'), 'off'),
    (b) => b.type !== 'routine.define'
  );
  item(
    'park',
    5,
    'Park this stack',
    (b) => current.park(b, true),
    (b) =>
      !tagsOf(b.getRootBlock()).parked &&
      b.getRootBlock().type !== 'routine.define' &&
      !b.getRootBlock().outputConnection
  );
  item(
    'unpark',
    5,
    'Take out of the park',
    (b) => current.park(b, false),
    (b) => !!tagsOf(b.getRootBlock()).parked
  );
  item(
    'more',
    6,
    'Add: otherwise if',
    (b) => current.reshape(b, 'more'),
    (b) => b.type === 'choose.if'
  );
  item(
    'less',
    7,
    'Take away the last otherwise if',
    (b) => current.reshape(b, 'less'),
    (b) => b.type === 'choose.if' && shape(b).branches_ > 1
  );
  item(
    'otherwise',
    8,
    'Add: otherwise',
    (b) => current.reshape(b, 'otherwise'),
    (b) => b.type === 'choose.if' && !shape(b).otherwise_
  );
  item(
    'noOtherwise',
    8,
    'Take away otherwise',
    (b) => current.reshape(b, 'no otherwise'),
    (b) => b.type === 'choose.if' && shape(b).otherwise_
  );
  item('delete', 9, 'Take out', (b) => b.checkAndDelete());
}
