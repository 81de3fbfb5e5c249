/** Runs that a device made out of reach: kept with it, also while no page is there, and brought back in order. */
import { unzipped } from '../../../../core/bytes.ts';
import { Run } from '../runs.svelte.ts';
import type { DeviceLink } from './device.svelte.ts';
import { fetchedSays } from './says.ts';

/** Puts a run that waits into its memory, so that it is there when this page is not. */
export async function keepAway(d: DeviceLink, run: Run): Promise<void> {
  const { name, project, trace, predictions } = run;
  const packed = await d.workbench.runs
    .pack({ name, at: new Date().toISOString(), kind: 'device', project, trace, predictions }, true)
    .catch(() => undefined);
  if (packed && d.waiting.includes(run)) d.kept = { ...d.kept, runs: [...(d.kept.runs ?? []), packed] };
}
/** What it did out of reach comes into the trace, in order, each a run of its own. @returns that, in words */
export async function fetchFrom(d: DeviceLink): Promise<string> {
  const { runs } = d.workbench;
  const came = d.waiting;
  if (!came.length) return '';
  d.waiting = [];
  runs.away = undefined;
  d.kept = { ...d.kept, runs: undefined };
  for (const one of came) {
    let run = one instanceof Run ? one : undefined;
    if (!run) {
      const read = await runs.open(new TextDecoder().decode(await unzipped(one as Uint8Array)), d.unit.name);
      if (read.ok) run = read.run;
    }
    if (!run) continue;
    runs.device = run;
    if (run.trace.ended) runs.onEnd?.(run);
  }
  await d.remember();
  return fetchedSays(came.length);
}
