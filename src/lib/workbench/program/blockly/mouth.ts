/**
 * A block that holds others, dropped round blocks that hang together: the library only takes in what hangs on nothing. The
 * mouth wins where it is nearer to a block's top than the block's own top is to where it could be joined.
 */
import * as Blockly from 'blockly/core';
import { placeOf } from './refusal.ts';

const NEAR = 28;

/** What is taken in if the dragged block is let go here: the first of the blocks, and the body that they go into. */
export function mouthOver(block: Blockly.BlockSvg): { from: string; body: string } | undefined {
  const mouth = block.inputList.find((i) => i.type === Blockly.inputs.inputTypes.STATEMENT);
  if (!mouth?.connection || mouth.connection.targetBlock() || block.getNextBlock()) return undefined;
  const here = placeOf(block, mouth.connection as Blockly.RenderedConnection);
  const top = block.getRelativeToSurfaceXY();
  const own = new Set(block.getDescendants(false));
  let nearest: { from: string; distance: number } | undefined;
  let joins = Infinity;
  for (const other of block.workspace.getAllBlocks(false)) {
    if (own.has(other) || other.isShadow() || other.isInsertionMarker()) continue;
    if (other.nextConnection && block.previousConnection)
      joins = Math.min(joins, Blockly.utils.Coordinate.distance(top, placeOf(other, other.nextConnection)));
    if (!other.previousConnection) continue;
    const distance = Blockly.utils.Coordinate.distance(here, placeOf(other, other.previousConnection));
    if (distance < NEAR && (!nearest || distance < nearest.distance)) nearest = { from: other.id, distance };
  }
  return nearest && nearest.distance < joins ? { from: nearest.from, body: mouth.name } : undefined;
}
