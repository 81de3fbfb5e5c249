<!-- Where the run is to stop: before blocks, on values, on contact. -->
<script lang="ts">
  import Tick from '../../ui/Tick.svelte';
  import Field from '../../ui/Field.svelte';
  import Choice from '../../ui/Choice.svelte';
  import Button from '../../ui/Button.svelte';
  import NumberField from '../../ui/NumberField.svelte';
  import Trash from '@lucide/svelte/icons/trash-2';
  import { channelSpecs } from '../../../../core/run/channels.ts';
  import { SIGNS, type Seen, type Stop, type Test } from '../../../../core/run/stops.ts';
  import { typedNumber } from '../../../../core/language/values.ts';
  import { retell, say } from '../../../../core/words.ts';
  import { useWorkbench } from '../workbench.svelte.ts';
  import { stopText } from './why.ts';
  let { chosen, named }: { chosen: string | undefined; named: (id: string) => string } = $props();
  const w = useWorkbench();
  const { runs } = w;
  const specs = $derived(
    channelSpecs(w.session.project.kit, w.session.project.mat).filter((c) => !/^(facing|thing|lifted)/.test(c.key))
  );
  const titles = $derived(new Map(specs.map((c) => [c.key, c.title])));
  const variables = $derived(
    w.session.project.text === undefined
      ? w.session.project.program.variables.map((v) => v.name)
      : Object.keys(runs.values)
  );
  let kind = $state<Stop['on']>('block');
  let what = $state('');
  let is = $state<(typeof SIGNS)[number]>('<');
  let than = $state('10');
  let times = $state(1);
  let tests = $state(false);
  const looked = $derived(what || (variables[0] ? `v ${variables[0]}` : `c ${specs[0]?.key}`));
  const seen = $derived<Seen>(looked.startsWith('v ') ? { variable: looked.slice(2) } : { channel: looked.slice(2) });
  const test = $derived<Test>({ of: seen, is, than: typedNumber(than) ?? than });
  function put() {
    const stop: Stop | undefined =
      kind === 'block'
        ? chosen
          ? { on: 'block', block: chosen, ...(tests ? { test } : {}), ...(times > 1 ? { times } : {}) }
          : undefined
        : kind === 'change'
          ? { on: 'change', of: seen }
          : kind === 'limit'
            ? { on: 'limit', test }
            : { on: 'contact' };
    if (stop) runs.setStops([...runs.stops.filter((s) => JSON.stringify(s) !== JSON.stringify(stop)), stop]);
  }
  const asksValue = $derived(kind === 'change' || kind === 'limit' || (kind === 'block' && tests));
</script>

<div>
  <h3 class="text-[13px] font-bold">{say('Stops')}</h3>
  <ul class="mt-0.5 flex flex-col gap-0.5" data-testid="stops">
    {#each runs.stops as stop, i (JSON.stringify(stop))}
      <li class="flex items-start gap-1.5">
        <Tick
          class="mt-0.5"
          checked={!stop.off}
          aria-label={say('Stop is on')}
          onchange={(e) =>
            runs.setStops(runs.stops.map((s, k) => (k === i ? { ...s, off: !e.currentTarget.checked } : s)))}
        />
        <span class="min-w-0 flex-1 leading-snug {stop.off ? 'text-soft line-through' : ''}"
          >{stopText(stop, named, titles)}</span
        >
        <Button
          look="quiet"
          class="px-1"
          aria-label={say('Take the stop away')}
          title={say('Take the stop away')}
          onclick={() => runs.setStops(runs.stops.filter((_, k) => k !== i))}><Trash size={13} /></Button
        >
      </li>
    {:else}<li class="text-soft">{say('The run goes through. Put a stop, and it stands still there.')}</li>{/each}
  </ul>
  <form
    class="mt-1.5 flex flex-col gap-1.5 rounded-lg bg-linen p-2"
    onsubmit={(e) => {
      e.preventDefault();
      put();
    }}
  >
    <label class="flex items-center gap-2"
      ><span class="w-12 shrink-0">{say('Stop')}</span><Choice
        size="sm"
        class="min-w-0 flex-1"
        aria-label={say('Where to stop')}
        bind:value={kind}
      >
        <option value="block">{say('before the chosen block')}</option>
        <option value="change">{say('when a value changes')}</option>
        <option value="limit">{say('when a value passes a limit')}</option>
        <option value="contact">{say('when it touches something')}</option>
      </Choice></label
    >
    {#if kind === 'block'}
      <div class="flex items-center gap-3 text-[13px]">
        <label class="flex items-center gap-1"><Tick bind:checked={tests} />{say('only if')}</label>
        <label class="flex items-center gap-1"
          >{say('from time')}<NumberField size="sm" class="w-12! text-right" min={1} bind:value={times} />{say(
            'on'
          )}</label
        >
      </div>
    {/if}
    {#if asksValue}
      <div class="flex items-center gap-1">
        <Choice
          size="sm"
          class="min-w-0 flex-1"
          aria-label={say('Which value')}
          value={looked}
          onchange={(e) => (what = e.currentTarget.value)}
        >
          {#each variables as name (name)}<option value="v {name}">{name}</option>{/each}
          {#each specs as c (c.key)}<option value="c {c.key}">{retell(c.title)}</option>{/each}
        </Choice>
        {#if kind !== 'change'}
          <Choice size="sm" aria-label={say('How it compares')} bind:value={is}
            >{#each SIGNS as s (s)}<option>{s}</option>{/each}</Choice
          >
          <Field class="w-16! py-0.5 text-right font-mono" aria-label={say('Limit')} bind:value={than} />
        {/if}
      </div>
    {/if}
    <Button type="submit" size="sm" class="justify-center" disabled={kind === 'block' && !chosen}
      >{kind === 'block' && !chosen ? say('Choose a block first') : say('Put the stop')}</Button
    >
  </form>
</div>
