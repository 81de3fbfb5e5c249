/**
 * What the block library does with blocks besides drawing them, where ours differs: nothing on the sheet moves without a
 * hand, and a block that is let go in a mouth goes in, wherever in the mouth the pointer is.
 */
import * as Blockly from 'blockly/core';
import { mouthAt, mouthOver } from './mouth.ts';

type Candidate = {
  local: Blockly.RenderedConnection;
  neighbour: Blockly.RenderedConnection;
  distance: number;
};
/** What looks for the place that a dragged block would join; the library keeps it to itself. */
type Looks = { getConnectionCandidate(block: Blockly.BlockSvg, moved: Blockly.utils.Coordinate): Candidate | null };

/** Blocks that lie near others are pushed aside by the library: a place is somebody's choice. */
export function keepPlaces(): void {
  Blockly.RenderedConnection.prototype.bumpAwayFrom = () => {};
}

class IntoMouths extends Blockly.dragging.BlockDragStrategy {
  constructor(dragged: Blockly.BlockSvg) {
    super(dragged);
    let pointer: Blockly.utils.Coordinate | undefined;
    const { drag } = this;
    this.drag = (to: Blockly.utils.Coordinate, event?: PointerEvent) => {
      pointer =
        event &&
        Blockly.utils.svgMath.screenToWsCoordinates(
          dragged.workspace,
          new Blockly.utils.Coordinate(event.clientX, event.clientY)
        );
      drag.call(this, to);
    };
    const looks = this as unknown as Looks;
    const nearest = looks.getConnectionCandidate.bind(this);
    looks.getConnectionCandidate = (block, moved) => {
      const local = block.previousConnection;
      // a block that takes in others is let go round them, not into what holds them
      const neighbour = pointer && local && !mouthOver(block) ? mouthAt(block, pointer) : undefined;
      return neighbour ? { local, neighbour, distance: 0 } : nearest(block, moved);
    };
  }
}
/** How a block is dragged: set where it is made. A sheet that is not drawn has no dragging. */
export function draggedByPointer(block: Blockly.Block): void {
  if (block instanceof Blockly.BlockSvg) block.setDragStrategy(new IntoMouths(block));
}
