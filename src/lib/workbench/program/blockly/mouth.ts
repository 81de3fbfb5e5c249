/**
 * A block that holds others, dropped round blocks that hang together: the library only takes in what hangs on nothing. The
 * mouth wins where it is nearer to a block's top than the block's own top is to where it could be joined.
 */
import * as Blockly from 'blockly/core';
import { mouthsOf, STEM } from './renderer.ts';

const NEAR = 28;

/** Where a connection is; what the library keeps of it lags behind while a block is dragged. */
export const placeOf = (block: Blockly.BlockSvg, connection: Blockly.RenderedConnection): Blockly.utils.Coordinate =>
  Blockly.utils.Coordinate.sum(block.getRelativeToSurfaceXY(), connection.getOffsetInBlock());

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

/**
 * Where a dragged block would join in the innermost mouth that a point lies in: before the first block whose middle is below
 * the point, or at the end. Places in the workspace's units.
 */
export function mouthAt(
  block: Blockly.BlockSvg,
  point: Blockly.utils.Coordinate
): Blockly.RenderedConnection | undefined {
  const own = new Set(block.getDescendants(false));
  let inner: { at: Blockly.RenderedConnection; depth: number } | undefined;
  for (const holder of block.workspace.getAllBlocks(false)) {
    // most blocks have none; of those that are not dragged the library knows where their connections are
    for (const { input, top, bottom } of mouthsOf(holder)) {
      const mouth = holder.getInput(input)!.connection as Blockly.RenderedConnection;
      const offset = mouth.getOffsetInBlock();
      const [left, above] = [mouth.x - offset.x, mouth.y - offset.y];
      if (point.x < left + STEM || point.y < above + top || point.y > above + bottom) continue;
      if (own.has(holder) || holder.isInsertionMarker()) continue;
      const held: Blockly.BlockSvg[] = [];
      for (let b = mouth.targetBlock(); b; b = b.getNextBlock()) held.push(b);
      const depth = depthOf(holder);
      if (
        point.x > left + Math.max(holder.width, ...held.map((b) => STEM + b.width)) ||
        (inner && inner.depth >= depth)
      )
        continue;
      let at = mouth;
      for (const b of held.filter((one) => !one.isInsertionMarker())) {
        if (point.y < b.previousConnection.y + b.height / 2 || !b.nextConnection) break;
        at = b.nextConnection;
      }
      inner = { at, depth };
    }
  }
  const fits = inner && block.workspace.connectionChecker.canConnect(block.previousConnection, inner.at, false);
  return fits ? inner!.at : undefined;
}
const depthOf = (block: Blockly.BlockSvg): number => {
  let depth = 0;
  for (let above = block.getSurroundParent(); above; above = above.getSurroundParent()) depth++;
  return depth;
};
