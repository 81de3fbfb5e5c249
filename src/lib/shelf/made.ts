/** What the shelf shows of a mat or a machine of one's own, and the newest project that has it. */
import type { Kit } from '../../../core/kit/kit.ts';
import type { Mat } from '../../../core/yard/mat.ts';

export type Made = { id: string; project: string; name: string } & (
  { kind: 'mat'; mat: Mat } | { kind: 'kit'; kit: Kit }
);
