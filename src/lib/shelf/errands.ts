/** What the shelf shows of an errand. */
import { later } from '../../../core/words.ts';
import type { Told } from '../../../core/errand/task.ts';

export type OfErrand = { name: Told; story: Told; level: 1 | 2 | 3; device: string; goals: number };
export type ErrandCard = OfErrand & {
  id: string;
  ships: boolean;
  /** one may take it off the shelf */
  own: boolean;
  /** one may have its file, with its solution */
  whole: boolean;
  /** one's own tries, and how many met all goals */
  tries: number;
  met: number;
};
export const LEVEL_NAMES: Readonly<Record<1 | 2 | 3, string>> = {
  1: later('To begin with'),
  2: later('With some thought'),
  3: later('For those who like it hard')
};
