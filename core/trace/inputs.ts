/** Inputs files: JSON lines such as {"t": 1.25, "press": "Dot"}, the same shape the recorder writes. */
import * as z from 'zod';
import { STICKS } from '../language/blocks/sense.ts';
import { isOfTheRun } from './track.ts';
import type { TimedInput } from './trace.ts';

const t = z.number().min(0).max(36000);
const degrees = z.number().min(-180).max(180).optional();
const share = z.number().min(0).max(100).optional();
const cm = z.number().min(-1000).max(1000);
const newton = z.number().min(-50).max(50).optional();
const fallCm = z.number().min(0).max(300);
/** another device in the yard; the program and the run are of the first alone */
const to = z.string().min(1).max(80).optional();
const button = z.enum(['Dot', 'Bar']);

/** What a person does during a run: as the recorder writes it, a file has it (with `t` in seconds), and a run takes it. */
export const inputSchema = z.union([
  z.strictObject({ press: button }),
  z.strictObject({ release: button }),
  z.strictObject({ nose: z.boolean() }),
  /** a finger on the rim, so many degrees clockwise from the notch */
  z.strictObject({ rim: z.number().min(0).max(360), touched: z.boolean() }),
  z.strictObject({ key: z.string().min(1).max(20), down: z.boolean() }),
  z.strictObject({ edge: z.enum(['left', 'right']), touched: z.boolean() }),
  /** -100 to 100 % */
  z.strictObject({ stick: z.enum(STICKS), at: z.number().min(-100).max(100) }),
  /** degrees: sideways to the right, forwards away from the person, turned clockwise */
  z.strictObject({ lean: z.strictObject({ sideways: degrees, forwards: degrees, turned: degrees }) }),
  /** seconds, and how hard: g to and fro */
  z.strictObject({ shake: z.number().min(0).max(60), g: z.number().min(0.1).max(6).optional() }),
  /** cm */
  z.strictObject({ toss: fallCm }),
  /** what it is like where the device is held: light and moisture 0 to 100, temperature in degrees Celsius */
  z.strictObject({ around: z.strictObject({ light: share, temperature: z.number().optional(), moisture: share }) }),
  /** `from`: the device that sent it by radio */
  z.strictObject({ message: z.string().min(1).max(60), from: z.string().max(80).optional() }),
  /** a hand lifts the device, carries it (cm, degrees clockwise from up), sets it down */
  z.strictObject({ lift: z.boolean() }),
  z.strictObject({ carry: z.strictObject({ x: cm, y: cm, facing: z.number().min(-3600).max(3600) }) }),
  /** a push: newtons ahead and to the right, newton centimetres clockwise, seconds */
  z.strictObject({
    push: z.strictObject({ ahead: newton, right: newton, turn: newton, seconds: z.number().min(0).max(10) })
  }),
  /** let fall from so many cm */
  z.strictObject({ drop: fallCm }),
  /** its foot stuck into the soil, or pulled out */
  z.strictObject({ soil: z.boolean() }),
  /** the person's word to set off */
  z.strictObject({ word: z.literal(true) }),
  /** a variable changed by hand while the run was paused, by its name */
  z.strictObject({
    set: z.strictObject({ variable: z.string().max(200), to: z.union([z.number(), z.string().max(10_000)]) })
  }),
  /** the person stops the run */
  z.strictObject({ stop: z.literal(true) })
]);
export type Input = z.infer<typeof inputSchema>;

export function parseInputs(text: string): { ok: true; inputs: TimedInput[] } | { ok: false; problem: string } {
  const inputs: TimedInput[] = [];
  const lines = text.split('\n');
  for (let i = 0; i < lines.length; i++) {
    if (!lines[i].trim()) continue;
    let value: unknown;
    try {
      value = JSON.parse(lines[i]);
    } catch {
      return { ok: false, problem: `line ${i + 1} is not JSON. Each line looks like {"t": 1.25, "press": "Dot"}.` };
    }
    const { t: at, to: whom, ...rest } = Object(value) as { t?: unknown; to?: unknown };
    const seconds = t.safeParse(at);
    const other = to.safeParse(whom);
    const input = inputSchema.safeParse(rest);
    if (!seconds.success || !other.success || !input.success || (other.data && isOfTheRun(input.data)))
      return {
        ok: false,
        problem: `line ${i + 1} is not an input: it takes "t" in seconds and one of "press", "release" (Dot or Bar), "nose", "rim", "key", "edge", "stick", "lean", "shake", "toss", "drop", "lift", "carry", "push", "soil", "around", "message", "word", "set" or "stop", and "to" (the name of another device in the yard) where it is not for the first, as docs/formats/cli.md says.`
      };
    inputs.push({ tUs: Math.round(seconds.data * 1e6), input: input.data, ...(other.data ? { to: other.data } : {}) });
  }
  return { ok: true, inputs };
}
export const writeInputs = (inputs: readonly TimedInput[]): string =>
  inputs.map(({ tUs, input, to }) => JSON.stringify({ t: tUs / 1e6, ...(to ? { to } : {}), ...input })).join('\n') +
  '\n';
