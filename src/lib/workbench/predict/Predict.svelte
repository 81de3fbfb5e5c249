<!-- What will happen? Said before the run, compared after it; one person or a whole class. -->
<script lang="ts">
  import Table from '../../ui/Table.svelte';
  import Field from '../../ui/Field.svelte';
  import Button from '../../ui/Button.svelte';
  import Lines from '../../ui/Lines.svelte';
  import X from '@lucide/svelte/icons/x';
  import Trash from '@lucide/svelte/icons/trash-2';
  import { outcomes } from '../../../../core/predict.ts';
  import { hasWheels } from '../../../../core/kit/kit.ts';
  import { say } from '../../../../core/words.ts';
  import { headingAt } from '../../../../core/units.ts';
  import { useWorkbench } from '../workbench.svelte.ts';
  const w = useWorkbench();
  const { runs, predict } = w;
  const over = $derived(
    !predict.asks && runs.run && runs.run.version >= 0 && runs.run.trace.ended && runs.run.predictions.length
      ? runs.run
      : undefined
  );
  /** headings are told as blocks say them: from how it faces at the start */
  const start = $derived(over?.trace.header.run.start ?? w.session.project.start ?? w.session.project.mat.start);
  const results = $derived(over ? outcomes(over.predictions, over.trace) : []);
  const n = (v: number) => v.toFixed(1);
</script>

<div
  class="absolute bottom-2 left-2 z-20 flex max-h-[calc(100%-1rem)] w-[min(360px,calc(100%-1rem))] flex-col rounded-xl border border-rule bg-card shadow-lg"
  role="region"
  aria-label={say('Predict')}
>
  <div class="flex items-center justify-between border-b border-rule py-1 pr-1.5 pl-3">
    <h3 class="text-[14px]">{over ? say('Expected and what came') : say('What will happen?')}</h3>
    <Button look="quiet" class="px-1" aria-label={say('Close')} onclick={() => predict.shut()}><X size={15} /></Button>
  </div>
  <div class="flex flex-col gap-2 overflow-auto p-2.5 text-[13.5px]">
    {#if over}
      <Table data-testid="outcomes">
        <thead class="text-left text-[12px] text-soft"
          ><tr
            ><th class="font-semibold">{say('Who')}</th><th class="font-semibold">{say('expected')}</th><th
              class="text-right font-semibold">{say('off by')}</th
            ></tr
          ></thead
        >
        <tbody>
          {#each results as r, i (i)}
            <tr class="border-t border-rule"
              ><td class="pr-2">{r.who || '–'}</td><td class="pr-2"
                >{#if r.place}x {n(r.place.x * 100)}, y {n(r.place.y * 100)} cm, {headingAt(
                    r.place.facingDeg - start.facingDeg,
                    0
                  )}°{/if}
                {r.words ?? ''}</td
              ><td class="text-right whitespace-nowrap"
                >{#if r.offCm !== undefined}{n(r.offCm)} cm, {n(r.offDeg ?? 0)}°{/if}</td
              ></tr
            >
          {/each}
        </tbody>
      </Table>
      {#if results.some((r) => r.words)}<p class="text-soft">
          {say('Words: look at the trace and the display, and say in your own words what was different.')}
        </p>{/if}
      <Button size="sm" class="justify-center" onclick={() => predict.again()}>{say('Predict again')}</Button>
    {:else}
      {#if hasWheels(w.session.project.kit)}
        <p>{say('Drag the pale robot to where it will stop, and turn it the way it will face.')}</p>
      {/if}
      <label class="flex flex-col gap-0.5"
        >{say('Or in words: which picture, which value, how many turns')}<Lines
          rows={2}
          bind:value={predict.words}
        /></label
      >
      <div class="flex gap-1.5">
        <Field
          class="min-w-0 flex-1 py-1"
          placeholder={say('Nickname')}
          aria-label={say('Nickname')}
          bind:value={predict.who}
        />
        <Button look="go" size="sm" disabled={!predict.place && !predict.words.trim()} onclick={() => predict.put()}
          >{say('That is my guess')}</Button
        >
      </div>
      {#if predict.list.length}
        <ul data-testid="predictions">
          {#each predict.list as p, i (i)}<li class="flex items-center gap-2">
              <span class="min-w-0 flex-1 truncate"
                ><b>{p.who || '–'}</b>
                {#if p.place}x {n(p.place.x * 100)}, y {n(p.place.y * 100)} cm, {headingAt(
                    p.place.facingDeg - start.facingDeg,
                    0
                  )}°{/if}
                {p.words ?? ''}</span
              ><Button
                look="quiet"
                class="px-1"
                aria-label={say('Take the guess out')}
                onclick={() => (predict.list = predict.list.filter((_, k) => k !== i))}><Trash size={13} /></Button
              >
            </li>{/each}
        </ul>
        <p class="text-soft">{say('Now rehearse, or send it to the device: one run decides.')}</p>
      {/if}
    {/if}
  </div>
</div>
