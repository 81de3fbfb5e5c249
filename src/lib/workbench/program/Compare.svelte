<!-- Two stacks block by block, and whether the program still does what it did at an earlier moment of its history. -->
<script lang="ts">
  import Choice from '../../ui/Choice.svelte';
  import Button from '../../ui/Button.svelte';
  import { say } from '../../../../core/words.ts';
  import { sentence } from '../../../../core/language/catalogue.ts';
  import { compareLists } from '../../../../core/language/refactor.ts';
  import { TOLERANCE, type Sameness } from '../../../../core/trace/same.ts';
  import { useWorkbench } from '../workbench.svelte.ts';
  import BlockLink from './BlockLink.svelte';
  import Panel from './Panel.svelte';
  let { id, close }: { id: string; close: () => void } = $props();
  const w = useWorkbench();
  const program = $derived(w.session.project.program);
  const holders = $derived([
    ...program.stacks
      .filter((s) => s.steps.length)
      .map((s) => ({ id: s.steps[0].id, name: sentence(s.steps[0], program), steps: s.steps })),
    ...program.routines.map((r) => ({ id: r.id, name: say('routine {name}', { name: r.name }), steps: r.steps }))
  ]);
  const first = $derived(holders.find((h) => h.id === id) ?? holders[0]);
  let other = $state('');
  const second = $derived(holders.find((h) => h.id === other) ?? holders.find((h) => h.id !== first?.id));
  const lines = $derived(first && second ? compareLists(first.steps, second.steps) : []);
  const differences = $derived(lines.filter((l) => l.what !== 'same').length);

  let before = $state(0);
  let result = $state.raw<Sameness>();
  let busy = $state(false);
  async function stillTheSame() {
    busy = true;
    const past = w.session.past[w.session.past.length - 1 - before]?.project ?? w.session.project;
    result = await w.runs.compare(past, w.session.project);
    busy = false;
  }
</script>

<Panel title={say('Compare')} {close}>
  {#if first && second}
    <p><b>{first.name}</b> {say('with')}</p>
    <Choice aria-label={say('The other stack')} value={second.id} onchange={(e) => (other = e.currentTarget.value)}>
      {#each holders.filter((h) => h.id !== first.id) as h (h.id)}<option value={h.id}>{h.name}</option>{/each}
    </Choice>
    <p class="font-semibold {differences ? 'text-clay' : 'text-moss'}" role="status">
      {differences === 0
        ? say('They are the same.')
        : say('They differ in {n, plural, one {# place} other {# places}}.', { n: differences })}
    </p>
    <ol class="flex flex-col gap-1">
      {#each lines as line, i (i)}
        <li
          class="rounded-md px-1.5 py-0.5 {line.what === 'same' ? '' : 'bg-[var(--claywash)]'}"
          style:margin-left="{line.depth * 14}px"
        >
          {#if line.what !== 'same'}<small class="font-semibold text-clay">{line.what}</small><br />{/if}
          {#if line.a}<BlockLink id={line.a.id} />{/if}
          {#if line.b && line.what !== 'same'}<BlockLink id={line.b.id} />{/if}
        </li>
      {/each}
    </ol>
  {:else}<p class="text-soft">
      {say('There is only one stack. Duplicate it, change the copy, and compare the two.')}
    </p>{/if}
  <hr class="border-rule" />
  <h4 class="font-semibold">{say('Does it still do the same?')}</h4>
  <p class="text-soft">{say('Rehearses the program as it was and as it is now, and compares what both did.')}</p>
  {#if w.session.past.length}
    <label class="flex items-center gap-2"
      >{say('As it was before')}
      <Choice class="min-w-0 flex-1" bind:value={before}>
        {#each [...w.session.past].reverse().slice(0, 30) as past, i (i)}<option value={i}>{past.label}</option>{/each}
      </Choice></label
    >
    <Button look="go" class="self-start" disabled={busy} onclick={stillTheSame}
      >{busy ? say('Rehearsing both ...') : say('Rehearse both')}</Button
    >
    {#if result}
      <p class="font-semibold {result.same ? 'text-moss' : 'text-clay'}" role="status">
        {#if result.same}{say('Yes, for all of {s} s: path, rest, pictures, servos, tones and log.', {
            s: result.seconds.toFixed(2)
          })}
        {:else}{say('No. They part at {n} s. {says}', { n: (result.atUs / 1e6).toFixed(2), says: result.says })}{/if}
      </p>
      {#if !result.same && result.block}<BlockLink id={result.block} />{/if}
      <p class="text-[13px] text-soft">
        {say('The same is what lies within {cm} cm, {deg} ° and {s} s (and {share} % of the time gone by).', {
          cm: TOLERANCE.cm,
          deg: TOLERANCE.deg,
          s: TOLERANCE.seconds,
          share: TOLERANCE.share * 100
        })}
      </p>
    {/if}
  {:else}<p class="text-soft">{say('Nothing was changed yet.')}</p>{/if}
</Panel>
