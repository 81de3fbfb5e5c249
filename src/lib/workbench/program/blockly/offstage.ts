/** While a block is dragged, stacks out of sight are not drawn: painting a thousand blocks at each move is too slow. */
import * as Blockly from 'blockly/core';

const MARGIN = 80;
/** Draws what is in sight alone, or everything again. */
export function offstage(ws: Blockly.WorkspaceSvg, dragging: boolean): void {
  const { left, top, width, height } = ws.getMetricsManager().getViewMetrics(true);
  const view = new Blockly.utils.Rect(top - MARGIN, top + height + MARGIN, left - MARGIN, left + width + MARGIN);
  const dragged = Blockly.getSelected();
  for (const block of ws.getTopBlocks(false)) {
    const hidden = dragging && block !== dragged && !view.intersects(block.getBoundingRectangle());
    block.getSvgRoot().style.display = hidden ? 'none' : '';
  }
}
