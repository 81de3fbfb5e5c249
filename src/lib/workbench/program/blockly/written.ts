/** For tests: what the block library itself would write of a sheet, with the shadows that blocks cover, and with places. */
import * as Blockly from 'blockly/core';
import type { Program } from '../../../../../core/language/program.ts';
import { bringIn } from './convert.ts';

/** Blocks in the order of their ids; shadows have none of their own that would say anything. */
export function written(ws: Blockly.Workspace): string {
  const { blocks } = Blockly.serialization.workspaces.save(ws) as {
    blocks?: { blocks: Blockly.serialization.blocks.State[] };
  };
  const nameless = (key: string, value: unknown): unknown => {
    if (typeof value !== 'object' || value === null || Array.isArray(value)) return value;
    const { id: _, ...rest } = value as Record<string, unknown>;
    const entries = Object.entries(key === 'shadow' ? rest : value);
    return Object.fromEntries(entries.sort(([a], [b]) => (a < b ? -1 : 1)));
  };
  return JSON.stringify(
    (blocks?.blocks ?? []).sort((a, b) => (a.id! < b.id! ? -1 : 1)),
    nameless,
    1
  );
}
/** The same of a second sheet, which was never anything else than this program. */
export function anew(program: Program): string {
  const ws = Object.assign(new Blockly.Workspace(), { setResizesEnabled: () => {} });
  try {
    bringIn(ws as unknown as Blockly.WorkspaceSvg, program);
    return written(ws);
  } finally {
    ws.dispose();
  }
}
