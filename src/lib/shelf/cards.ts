/** What the shelf shows of a project, and of a version of one. */
import { later } from '../../../core/words.ts';
import type { Bar } from './thumb.ts';

/** Cards that come at a time. */
export const PAGE_OF_SHELF = 24;

export type OnShelf = {
  bars: Bar[];
  toCheck: number;
  parked: number;
  /** by what its mat and its kit are told from others */
  mat?: string;
  kit?: string;
};
export type Card = OnShelf & {
  id: string;
  name: string;
  device: string;
  demo: boolean;
  changedAt: number;
  label: string;
  /** of a copy from a link: of what, and whose */
  origin?: string | null;
};
export type DeletedCard = Card & { /** how long it can still be taken back */ days: number };
export type VersionCard = { id: number; at: number; name: string; bars: Bar[]; blocks: number };

/** The groups in which the demo projects stand: each is the label of its projects. */
export const DEMO_GROUPS = {
  first: later('First steps'),
  moving: later('Moving'),
  sensing: later('Sensing, light and sound'),
  hand: later('The hand board'),
  mistakes: later('Mistakes to find')
} as const;
