/** What a run is made of: everything that decides it, in one value. With it the same run can be made again, anywhere. */
import CRC32 from 'crc-32';
import type { Kit } from '../kit/kit.ts';
import type { Program } from '../language/program.ts';
import type { Project } from '../project.ts';
import { recordedInputs } from '../trace/track.ts';
import type { Conditions, TimedInput, Trace, TraceHeader } from '../trace/trace.ts';
import type { Mat, Pose } from '../yard/mat.ts';

/** Longest simulated time of a rehearsal, s. */
export const LIMIT_S = 120;

/** Another device in the same yard, with its own program. */
export type Companion = { name: string; program: Program; kit: Kit; start?: Pose };

/** Everything that decides a run; nothing else may. A text runs on the stand-in's MicroPython instead of `program`. */
export type RunSpec = Conditions & {
  program: Program;
  text?: string;
  kit: Kit;
  mat: Mat;
  others: readonly Companion[];
  /** what a person does during the run, also when it is stopped */
  inputs: readonly TimedInput[];
};
/** A spec of which what is usual is left out, and what a run is called. */
export type RunOptions = Pick<RunSpec, 'program' | 'kit' | 'mat' | 'seed'> &
  Partial<RunSpec> & {
    /** ids that spans refer to, where they are not the program's blocks: lines of a text on the stand-in */
    blocks?: readonly string[];
    name?: string;
    device?: string;
    runner?: TraceHeader['runner'];
  };

export const specOf = (o: RunOptions): RunSpec => ({
  program: o.program,
  ...(o.text === undefined ? {} : { text: o.text }),
  kit: o.kit,
  mat: o.mat,
  others: o.others ?? [],
  inputs: [...(o.inputs ?? [])].sort((a, b) => a.tUs - b.tUs),
  seed: o.seed,
  start: { ...(o.start ?? o.mat.start) },
  limitS: o.limitS ?? LIMIT_S,
  noise: o.noise ?? true,
  onBattery: o.onBattery ?? false,
  open: o.open ?? false,
  ...(o.quirks ? { quirks: { ...o.quirks } } : {})
});
export const conditionsOf = ({ seed, start, limitS, noise, onBattery, open, quirks }: RunSpec): Conditions => ({
  seed,
  start,
  limitS,
  noise,
  onBattery,
  open,
  ...(quirks ? { quirks } : {})
});
/** What makes a run again, from what is kept of it: the project that ran, and its record. */
export const specOfRun = (
  { program, text, kit, mat, others }: Project,
  { header, events }: Pick<Trace, 'header' | 'events'>
): RunOptions => ({
  ...specOf({ program, text, kit, mat, others, ...header.run, inputs: recordedInputs({ events }) }),
  name: header.name,
  device: header.device
});

/** Of what a value says, in whatever order its fields were written; what value blocks cover says nothing. */
export const hash = (value: unknown): string => {
  const inOrder = (key: string, v: unknown): unknown => {
    if (key === 'covered') return undefined;
    return typeof v === 'object' && v !== null && !Array.isArray(v)
      ? Object.fromEntries(Object.entries(v).sort(([a], [b]) => (a < b ? -1 : 1)))
      : v;
  };
  return (CRC32.str(JSON.stringify(value, inOrder)) >>> 0).toString(16).padStart(8, '0');
};
/** Of all that decides a run before it begins; what is done during it is in its record. */
export const hashesOf = (spec: RunSpec): TraceHeader['hashes'] => ({
  program: hash(spec.text ?? spec.program),
  kit: hash(spec.kit),
  mat: hash(spec.mat),
  run: hash([spec.program, spec.text ?? null, spec.kit, spec.mat, spec.others, conditionsOf(spec)])
});
