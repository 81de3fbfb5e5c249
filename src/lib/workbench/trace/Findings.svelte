<script lang="ts">
  import Table from '../../ui/Table.svelte';
  import Button from '../../ui/Button.svelte';
  import type { Finding } from '../../../../core/trace/findings/findings.ts';
  import { AT_FIRST_SIGHT } from './view.svelte.ts';
  import { travelled } from '../../../../core/trace/query.ts';
  import { whatCame } from '../../../../core/trace/findings/came.ts';
  import { say } from '../../../../core/words.ts';
  import type { Run } from '../runs.svelte.ts';
  import { lineOf, sentences } from '../sentences.ts';
  import { useWorkbench } from '../workbench.svelte.ts';
  import Sheet from './Sheet.svelte';
  let { run, lead }: { run: Run; lead: (toUs: number, block?: string) => void } = $props();
  /** what its sensors' noise makes of standing still is less, m */
  const DROVE_M = 0.05;
  const w = useWorkbench();
  let all = $state(false);
  const shown = $derived(all ? w.found : w.found.slice(0, AT_FIRST_SIGHT));
  const names = $derived(sentences(run.project ?? w.session.project));
  const project = $derived(run.project ?? w.session.project);
  const came = $derived(run.version >= 0 && run.trace.ended ? whatCame(run.trace, project.kit, project.program) : []);
  const off = $derived(came.some((c) => !c.asAsked));
  /** of what drove, where nobody said what was meant, a guess tells it */
  const guess = $derived(travelled(run.trace) > DROVE_M && !run.predictions.length && !w.predict.open);
  function why(f: Finding) {
    lead(f.fromUs, f.blocks[0]);
    w.trace.show(f.fromUs, f.toUs, f.lanes);
  }
</script>

<Sheet title={say('Findings')}>
  {#if !w.found.length}<p class="px-2 {off ? '' : 'text-moss'}">
      {off
        ? say('No rule tells what went wrong. The table says what was asked, and what came of it.')
        : say('Nothing to find: the run did what it was asked.')}
      {#if guess && !w.since}<Button look="quiet" class="px-0 underline" onclick={() => w.predict.start()}
          >{say('Say where it should stop, then its place can be compared too')}</Button
        >{/if}
    </p>{/if}
  {#if w.since}<p class="mb-1.5 px-2 text-[13px] text-soft" data-testid="since">{w.since.says} {w.since.todo}</p>{/if}
  <ol class="flex flex-col gap-1.5">
    {#each shown as f (f.rule + f.fromUs + f.says)}
      <li
        class="rounded-lg border px-2.5 py-1.5 {w.trace.lit === f ? 'border-clay bg-[var(--claywash)]' : 'border-rule'}"
        onpointerenter={() => (w.trace.lit = f)}
        onpointerleave={() => (w.trace.lit = undefined)}
        onfocusin={() => (w.trace.lit = f)}
        onfocusout={() => (w.trace.lit = undefined)}
      >
        <Button look="bare" class="w-full text-left hover:underline" onclick={() => lead(f.fromUs, f.blocks[0])}
          ><span class="font-mono text-[12px] text-soft">{(f.fromUs / 1e6).toFixed(2)} s</span>
          <b class="font-semibold">{f.says}</b></Button
        >
        {#if f.blocks[0]}<small class="block text-soft"
            >{names.get(f.blocks[0]) ?? lineOf(f.blocks[0])}{#if f.at}&nbsp;· {say('at x {x}, y {y} cm', {
                x: (f.at.x * 100).toFixed(0),
                y: (f.at.y * 100).toFixed(0)
              })}{/if}</small
          >{/if}
        <p class="mt-0.5 flex items-baseline gap-2 text-[13px]">
          <span class="min-w-0 flex-1">{f.todo}</span>
          {#if f.lanes.length}<Button
              look="quiet"
              class="px-1.5 underline"
              title={say('The lanes that show it, at that moment')}
              onclick={() => why(f)}>{say('Why?')}</Button
            >{/if}
        </p>
        {#if f.more}
          <details class="mt-0.5 text-[13px]">
            <summary class="cursor-pointer text-soft"
              >{say('{n, plural, one {# thing follows} other {# things follow}} from it', {
                n: f.more.length
              })}</summary
            >
            <ul class="ml-4 list-disc">
              {#each f.more as m (m.rule + m.fromUs + m.says)}<li>
                  <Button look="bare" class="text-left align-top underline" onclick={() => lead(m.fromUs, m.blocks[0])}
                    >{m.says}</Button
                  >
                </li>{/each}
            </ul>
          </details>
        {/if}
      </li>
    {/each}
  </ol>
  {#if w.found.length > AT_FIRST_SIGHT}<Button look="quiet" class="mt-1 underline" onclick={() => (all = !all)}
      >{all ? say('Only the first') : say('{n} more', { n: w.found.length - AT_FIRST_SIGHT })}</Button
    >{/if}
  {#if came.length}
    <Table class="mt-2 text-[13px]">
      <thead class="text-left text-[12px] text-soft">
        <tr
          ><th class="px-2 font-semibold">{say('What')}</th><th class="px-2 text-right font-semibold">{say('asked')}</th
          ><th class="px-2 text-right font-semibold">{say('got')}</th><th class="px-2 text-right font-semibold"
            >{say('at rest')}</th
          ><th class="px-2 text-right font-semibold">{say('off by')}</th></tr
        >
      </thead>
      <tbody>
        {#each came as c, i (i)}
          <tr class="border-t border-rule {c.asAsked ? '' : 'font-semibold'}"
            ><td class="px-2 py-0.5"
              ><Button look="bare" class="underline" onclick={() => lead(c.tUs, c.block)}>{c.what}</Button></td
            >
            {#each [c.asked, c.got, c.rest, c.off] as text, k (k)}<td class="px-2 text-right">{text}</td>{/each}</tr
          >
        {/each}
      </tbody>
    </Table>
  {/if}
</Sheet>
