/** What is written down for the teacher to look through. */
import { later } from '../../../core/words.ts';

export const AUDITED = [
  'signed in',
  'wrong words',
  'new card',
  'signed out everywhere',
  'class made',
  'class deleted',
  'pupil added',
  'pupil removed',
  'passphrase changed',
  'name changed',
  'pupil renamed',
  'pupil moved',
  'cards printed',
  'class copied',
  'class handed over',
  'helper added',
  'helper removed',
  'teacher removed',
  'data saved',
  'link taken back'
] as const;
export type Audited = (typeof AUDITED)[number];
export const AUDIT_WORDS: Readonly<Record<Audited, string>> = {
  'signed in': later('signed in'),
  'wrong words': later('wrong words or passphrase, often'),
  'new card': later('got a new card'),
  'signed out everywhere': later('signed out everywhere'),
  'class made': later('a class was made'),
  'class deleted': later('a class was deleted with everything'),
  'pupil added': later('came into the class'),
  'pupil removed': later('taken out of the class, with all work'),
  'passphrase changed': later('the passphrase was changed'),
  'name changed': later('got another name, since somebody has the same'),
  'pupil renamed': later('got another name from the teacher'),
  'pupil moved': later('came from another class, with all work'),
  'cards printed': later('cards were shown again'),
  'class copied': later('a class was made like another one'),
  'class handed over': later('has this class now'),
  'helper added': later('teaches this class too'),
  'helper removed': later('does not teach this class any more'),
  'teacher removed': later('is no teacher here any more'),
  'data saved': later('everything of this pupil was saved to a file'),
  'link taken back': later('a link of this pupil was taken back')
};
export type AuditLine = { id: number; at: number; what: Audited; whom: string; class: string };
