/** For npm run speed: opening a program against the block library alone opening the same blocks. */
import * as Blockly from 'blockly/core';
import type { Program } from '../../../../../core/language/program.ts';
import { bringIn } from './convert.ts';

const TURNS = 5;
const middle = (list: number[]): number => [...list].sort((a, b) => a - b)[Math.floor(list.length / 2)];

/** @returns milliseconds, the median of a few turns each, until everything is drawn */
export async function opening(ws: Blockly.WorkspaceSvg, program: Program): Promise<{ ours: number; library: number }> {
  const state = Blockly.serialization.workspaces.save(ws);
  const took = async (open: () => void): Promise<number> => {
    Blockly.Events.disable();
    ws.clear();
    Blockly.Events.enable();
    await Blockly.renderManagement.finishQueuedRenders();
    const start = performance.now();
    open();
    await Blockly.renderManagement.finishQueuedRenders();
    return performance.now() - start;
  };
  const ours: number[] = [];
  const library: number[] = [];
  for (let turn = 0; turn <= TURNS; turn++) {
    const l = await took(() => Blockly.serialization.workspaces.load(state, ws, { recordUndo: false }));
    const o = await took(() => bringIn(ws, program));
    // the first turn warms up
    if (turn) {
      library.push(l);
      ours.push(o);
    }
  }
  return { ours: middle(ours), library: middle(library) };
}
