import type { Kit } from '../../kit/kit.ts';
import type { Mat } from '../../yard/mat.ts';
import type { Program } from '../program.ts';
import { later } from '../../words.ts';

export const SEVERITIES = [later('will not work'), later('probably not meant'), later('consider')] as const;
export type Severity = (typeof SEVERITIES)[number];
/** What can be put right in one click: a change of the program, of the kit, or of both. */
export type Mend = {
  label: string;
  apply: (program: Program, kit: Kit) => { program: Program; kit: Kit };
  /** of a text project: its text put right */
  text?: (text: string) => string;
};
export type Remark = {
  rule: string;
  severity: Severity;
  blocks: string[];
  /** what will happen */
  says: string;
  /** what to do */
  todo: string;
  mends: Mend[];
};
export type Looked = {
  program: Program;
  kit: Kit;
  mat?: Mat;
  /** other devices in the yard */
  others?: readonly { program: Program }[];
};
/** A rule is a pure function of program, kit and mat. */
export type Rule = (looked: Looked) => Remark[];

/** Remarks that keep a program from starting at all. */
export const stopsStart = (remark: Remark): boolean =>
  ['not-a-number', 'not-whole', 'nameless', 'no-loop', 'input-elsewhere', 'slow-trigger'].includes(remark.rule);
/** What a remark that was set aside is known by: its rule and its blocks; of the kit alone, its words. */
export const remarkKey = (remark: Pick<Remark, 'rule' | 'blocks' | 'says'>): string =>
  `${remark.rule} ${remark.blocks.length ? remark.blocks.join(' ') : remark.says.slice(0, 500)}`;
