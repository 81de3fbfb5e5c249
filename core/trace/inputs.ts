/** Inputs files: JSON lines such as {"t": 1.25, "press": "Dot"}, the same shape the recorder writes. */
import * as z from 'zod';
import type { TimedInput, Trace } from './trace.ts';

const t = z.number().min(0).max(36000);
const tilt = z.number().min(-180).max(180).optional();
const share = z.number().min(0).max(100).optional();
const cm = z.number().min(-1000).max(1000);
const newton = z.number().min(-50).max(50).optional();
const line = z.union([
  z.strictObject({ t, press: z.enum(['Dot', 'Bar']) }),
  z.strictObject({ t, release: z.enum(['Dot', 'Bar']) }),
  z.strictObject({ t, nose: z.boolean() }),
  z.strictObject({ t, key: z.string().min(1).max(20), down: z.boolean() }),
  z.strictObject({ t, edge: z.enum(['left', 'right']), touched: z.boolean() }),
  z.strictObject({ t, stick: z.string().max(40), at: z.number().min(-100).max(100) }),
  z.strictObject({ t, lean: z.strictObject({ sideways: tilt, forwards: tilt, turned: tilt }) }),
  z.strictObject({ t, shake: z.number().min(0).max(60) }),
  z.strictObject({ t, toss: z.number().min(0).max(300) }),
  z.strictObject({ t, around: z.strictObject({ light: share, temperature: z.number().optional(), moisture: share }) }),
  z.strictObject({ t, message: z.string().min(1).max(60) }),
  z.strictObject({ t, lift: z.boolean() }),
  z.strictObject({
    t,
    carry: z.strictObject({ x: cm, y: cm, facing: z.number().min(-3600).max(3600) })
  }),
  z.strictObject({
    t,
    push: z.strictObject({ ahead: newton, right: newton, turn: newton, seconds: z.number().min(0).max(10) })
  }),
  z.strictObject({ t, drop: z.number().min(0).max(300) }),
  z.strictObject({ t, soil: z.boolean() }),
  z.strictObject({ t, word: z.literal(true) })
]);

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
    const parsed = line.safeParse(value);
    if (!parsed.success)
      return {
        ok: false,
        problem: `line ${i + 1} is not an input: it takes "t" in seconds and one of "press", "release" (Dot or Bar), "nose", "key", "edge", "stick", "lean", "shake", "toss", "drop", "lift", "carry", "push", "soil", "around", "message" or "word", as docs/formats/cli.md says.`
      };
    const { t, ...input } = parsed.data;
    inputs.push({ tUs: Math.round(t * 1e6), input });
  }
  return { ok: true, inputs };
}
export const recordedInputs = (trace: Trace): TimedInput[] =>
  trace.events.flatMap((e) => (e.type === 'input' ? [{ tUs: e.tUs, input: e.input }] : []));
export const writeInputs = (inputs: readonly TimedInput[]): string =>
  inputs.map(({ tUs, input }) => JSON.stringify({ t: tUs / 1e6, ...input })).join('\n') + '\n';
