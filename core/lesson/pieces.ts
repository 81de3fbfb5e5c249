/** The pieces that a lesson's text can hold: each is a fenced block of Markdown whose first word says which one it is. */
import { later } from '../words.ts';

export type PieceDef = {
  /** its name where pieces are chosen, and what it is for */
  label: string;
  line: string;
  /** what it names after its word: so many programs of the lesson, or an errand of this computer */
  names?: { of: 'program' | 'errand'; least: number; most: number };
  /** what stands in it at first */
  first: string;
  /** it asks the pupil for something */
  asks?: true;
};
/** In the order in which they are offered. */
export const PIECES = {
  objective: {
    label: later('Objective'),
    line: later('what a pupil can do afterwards'),
    first: later('Afterwards you can ...')
  },
  program: {
    label: later('Program'),
    line: later('drawn as blocks; it can be rehearsed here and taken to the workbench'),
    names: { of: 'program', least: 1, most: 1 },
    first: ''
  },
  question: {
    label: later('Question'),
    line: later('with answers to choose from, or with room to write'),
    names: { of: 'program', least: 0, most: 1 },
    first: later('What will it do?\n\n- [ ] one answer\n- [x] the answer that is right'),
    asks: true
  },
  place: {
    label: later('Where will it stop?'),
    line: later('a place on the mat is pointed at, then the run decides'),
    names: { of: 'program', least: 1, most: 1 },
    first: later('Where will it stop? Point at the place.'),
    asks: true
  },
  errand: {
    label: later('Errand'),
    line: later('the task, and how far one is with it'),
    names: { of: 'errand', least: 1, most: 1 },
    first: '',
    asks: true
  },
  misconception: {
    label: later('Misconception'),
    line: later('the wrong program and the right one, and what each does'),
    names: { of: 'program', least: 2, most: 2 },
    first: later('Some think that ...')
  },
  ways: {
    label: later('Several ways'),
    line: later('programs beside one another, and whether they do the same'),
    names: { of: 'program', least: 2, most: 4 },
    first: ''
  },
  teacher: {
    label: later("Teacher's notes"),
    line: later('only the teacher sees and prints them'),
    first: later('Watch out for ...')
  }
} as const satisfies Readonly<Record<string, PieceDef>>;
export type PieceKind = keyof typeof PIECES;
export const isPiece = (word: string): word is PieceKind => Object.hasOwn(PIECES, word);
export const pieceDef = (kind: PieceKind): PieceDef => PIECES[kind];
/** Code that is shown as it stands, and is no piece. */
export const PLAIN = ['', 'text', 'python'];
