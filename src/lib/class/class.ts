/** What the server tells about a class, a wall, what was given and handed in. */
import * as z from 'zod';
import type { Place } from '../../../core/class/spread.ts';
import type { Errand } from '../../../core/errand/errand.ts';
import type { Project } from '../../../core/project.ts';
import type { Shown } from '../../../core/class/shows.ts';
import type { Mat } from '../../../core/yard/mat.ts';
import type { Told, TryResult } from '../../../core/trace/tried.ts';
import type { Told as InLanguages } from '../../../core/errand/task.ts';
import type { Bar } from '../shelf/thumb.ts';
import type { Answer } from './reading.ts';

/** What a nickname may be: letters, digits, a few signs between; nothing that a page or a table could take for its own. */
export const LONGEST_NAME = 24;
export const nickname = z
  .string()
  .overwrite((name) => name.normalize('NFC').replace(/\s+/g, ' ').trim())
  .min(1)
  .max(LONGEST_NAME)
  .regex(/^[\p{L}\p{N}](?:[\p{L}\p{M}\p{N} .'’·_-]|\u200c|\u200d)*$/u);
export const group = z.string().trim().max(24);
export type Signed = {
  role: 'teacher' | 'pupil' | 'guest';
  id: string;
  nickname: string;
  /** of a pupil: the name of the class */
  class?: string;
};
/** `own`: the class is this teacher's, who does not only help with it */
export type ClassCard = { id: string; name: string; code: string; pupils: number; own: boolean };
export type Pupil = { id: string; nickname: string; group: string; partner?: string };
/** A backup that may still hold who was deleted; `away`: it is not where it was made. */
export type HeldStill = { file: string; away?: true };
/** A card as it is printed. */
export type PrintedCard = { nickname: string; words: string };
/** Cards once more, and of whom the words are known to nobody any more. */
export type CardsAgain = { cards: PrintedCard[]; unknown: string[] };
export type Teacher = { id: string; nickname: string; own: boolean };
export type Given = {
  id: string;
  kind: 'errand' | 'lesson' | 'project';
  target: string;
  name: InLanguages;
  group: string;
  fromAt: number;
  untilAt: number | null;
};
export type Collected = {
  handIn: string;
  /** of a pair both */
  nickname: string;
  group: string;
  projectId: string;
  /** the project's name */
  name: string;
  /** its pupil shows it to the room */
  shown: boolean;
  givenId: string | null;
  note: string;
  at: number;
  /** after the end of what was given out */
  late?: true;
  seenAt: number | null;
  backAt: number | null;
  /** its project was taken off the shelf */
  gone?: true;
  result?: Pick<TryResult, 'got' | 'of' | 'met'>;
  claimed?: true;
};
/** A link that leads to a pupil's project, whoever has it. */
export type PupilsLink = { projectId: string; name: string; by: string; at: number };
export type OpenedClass = {
  id: string;
  name: string;
  code: string;
  /** under which the room has this computer */
  addresses: string[];
  pupils: Pupil[];
  /** who has another name, since two had the same but for capitals or accents' codes */
  renamed: string[];
  given: Given[];
  collected: Collected[];
  links: PupilsLink[];
  /** the class is this teacher's; who teaches it too */
  own: boolean;
  teachers: Teacher[];
  /** other classes of this teacher, to which a pupil may go */
  others: { id: string; name: string }[];
};
/** Marks: pupils and what was given out; of each what came of it. */
export type Mark = {
  /** begun at all, and in which project */
  projectId?: string;
  tries: number;
  got?: number;
  of?: number;
  met?: boolean;
  /** what stands is what the browser said, or a run of a device */
  claimed?: true;
  /** the last hand-in that counts */
  handIn?: string;
  handedInAt?: number;
  late?: true;
  seenAt?: number;
  backAt?: number;
  /** of a lesson: steps gone through, of so many; questions answered right, of so many */
  steps?: number;
  ofSteps?: number;
  right?: number;
  ofQuestions?: number;
};
export type Marks = {
  given: Given[];
  rows: { id: string; nickname: string; group: string; marks: Mark[] }[];
};
/** What was handed in, run again: what is asked, and how each does. */
export type AgainTable = {
  goals: string[];
  /** what each of its situations is called, where it has several */
  situations: string[];
  rows: ({ handIn: string; nickname: string; projectId: string } & (
    | {
        /** in the first situation that was missed */
        goals: boolean[];
        met: boolean;
        situations: { says: string; met: boolean }[];
        seconds?: number;
        blocks?: number;
        stop: { x: number; y: number; facingDeg: number };
        told: Told[];
      }
    | { says: string }
  ))[];
};
/** What the class shows at one errand. */
export type ClassShows = {
  given: Given;
  others: { id: string; name: InLanguages }[];
  mat: Mat;
  goals: (Shown['goals'][number] & { words: string })[];
  found: Shown['found'];
  remarks: Shown['remarks'];
  slots: (Shown['slots'][number] & { says: string })[];
  stops: Shown['stops'];
  works: { nickname: string; projectId: string }[];
};
/** As a pupil finds it on the shelf. */
export type GivenToMe = Given & {
  /** of an errand: what it is about, the project it was begun in, how far it is */
  story?: InLanguages;
  projectId?: string;
  got?: number;
  of?: number;
  met?: boolean;
  handedInAt?: number;
  late?: true;
  /** the teacher gave it back to be worked on */
  backAt?: number;
};
export type HandIn = {
  id: string;
  at: number;
  note: string;
  withdrawnAt: number | null;
  seenAt: number | null;
  backAt: number | null;
  result?: TryResult;
  /** the result is what the browser said: the server has not run it, or cannot */
  claimed?: true;
};
export type Comment = {
  id: number;
  /** the one that it answers */
  under: number | null;
  block: string | null;
  text: string;
  at: number;
  changedAt: number | null;
  doneAt: number | null;
  by: string;
  /** who asks said it */
  mine: boolean;
};
/** A run that the class guesses together. */
export type Round = {
  id: string;
  classId: string;
  project: Project;
  /** how many of so many have guessed */
  guessed: number;
  of: number;
  mine?: Place;
  /** once it is decided: where it stopped, and all guesses */
  stop?: Place;
  guesses?: Place[];
};
/** What stands behind a link, and whose it is. */
export type Linked = { by: string } & ({ project: Project } | { errand: Pick<Errand, 'name' | 'story' | 'goals'> });
/** How a project is reached by who opens it. */
export type OfClass = {
  /** whose it is, where it is looked at by somebody else */
  by?: string;
  /** the other one of the pair */
  partner?: string;
  /** it can only be looked at from here */
  looks?: boolean;
  /** of a pupil's that the teacher looks at */
  classId?: string;
  shown?: 'asked' | 'yes' | null;
  /** of what was handed in: the teacher gave it back */
  back?: true;
  givenId?: string | null;
};
/** One pupil on the wall. */
export type WallCard = {
  id: string;
  nickname: string;
  group: string;
  here: boolean;
  doing: 'nothing yet' | 'building' | 'trying' | 'met' | 'handed in';
  project?: { id: string; name: string; bars: Bar[]; shown: 'asked' | 'yes' | null };
  errand?: { name: InLanguages; got: number; of: number; met: boolean };
  tries: number;
  told?: Told;
  /** when something was changed or tried last, and when it last came nearer to its goals */
  changedAt?: number;
  furtherAt?: number;
  handUpAt?: number;
  handedInAt?: number;
};
/** What a class answered to a lesson. */
export type LessonAnswers = {
  title: string;
  questions: { kind: string; markdown: string }[];
  steps: number;
  rows: {
    id: string;
    nickname: string;
    read?: {
      /** gone through, of so many */
      steps: number;
      ofSteps: number;
      /** to each question; `right` where it can be told */
      answers: { answer?: Answer; says?: string; right?: boolean }[];
    };
  }[];
};
