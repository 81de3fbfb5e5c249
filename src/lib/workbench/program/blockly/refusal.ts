/** Why a value that was dropped on a slot did not go in: a short word instead of silence. */
import * as Blockly from 'blockly/core';
import { SAYS } from './blocks.ts';
import { placeOf } from './mouth.ts';
import { later, say, word } from '../../../../../core/words.ts';

const NEAR = 30;
const what = (checks: readonly string[] | null): string =>
  !checks ? later('a value') : checks.length > 4 ? later('a value') : (SAYS[checks[0]] ?? later('a value'));

export function refusal(block: Blockly.BlockSvg): string | undefined {
  const out = block.outputConnection;
  if (!out || out.isConnected()) return undefined;
  const here = placeOf(block, out);
  let nearest: { slot: Blockly.RenderedConnection; distance: number } | undefined;
  for (const other of block.workspace.getAllBlocks(false)) {
    if (other === block || other.isShadow() || block.getDescendants(false).includes(other)) continue;
    for (const input of other.inputList) {
      const slot = input.connection as Blockly.RenderedConnection | null;
      if (!slot || input.type !== Blockly.inputs.inputTypes.VALUE) continue;
      const distance = Blockly.utils.Coordinate.distance(here, placeOf(other, slot));
      if (distance < NEAR && (!nearest || distance < nearest.distance)) nearest = { slot, distance };
    }
  }
  if (!nearest) return undefined;
  const checker = block.workspace.connectionChecker;
  if (checker.canConnect(out, nearest.slot, false)) return undefined;
  const wants = what(nearest.slot.getCheck());
  return say('That slot takes {wants}. This block gives {gives}.', {
    wants: word(wants),
    gives: word(what(out.getCheck()))
  });
}
