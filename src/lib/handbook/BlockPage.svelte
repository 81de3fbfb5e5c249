<!-- One block of the handbook, made from its definition: what it does, its slots, an example that runs, its Python. -->
<script lang="ts">
  import Remark from '../ui/Remark.svelte';
  import Table from '../ui/Table.svelte';
  import Button from '../ui/Button.svelte';
  import { later, say, word } from '../../../core/words.ts';
  import { goto } from '$app/navigation';
  import { aPart } from '../../../core/kit/parts/parts.ts';
  import { catalogue, definition } from '../../../core/language/catalogue.ts';
  import { SECTIONS, type PartType, type SlotSpec } from '../../../core/language/define.ts';
  import { MISSING } from '../../../core/language/lookover/rules/kit-lacks.ts';
  import { exampleOf, exampleText, kitFor } from '../../../core/language/example.ts';
  import { newProject } from '../../../core/project.ts';
  import { longAisle } from '../../../core/yard/mats.ts';
  import { ICONS } from '../ui/icons.ts';
  let { kind, heading = true }: { kind: string; heading?: boolean } = $props();
  const def = $derived(definition(kind));
  const section = $derived(SECTIONS[def.section]);
  const text = $derived(exampleText(kind));
  const slots = $derived(Object.entries(def.slots).filter(([, s]) => s.type !== 'rows'));
  const WHAT: Record<SlotSpec['type'], string> = {
    number: later('a number'),
    choice: later('a choice'),
    part: later('a part of the kit'),
    variable: later('a variable'),
    list: later('a list'),
    routine: later('a routine'),
    input: later('an input'),
    name: later('a name'),
    rows: later('rows that cannot happen'),
    condition: later('a condition'),
    picture: later('a picture'),
    text: later('text'),
    items: later('a list'),
    any: later('any value')
  };
  const range = (s: SlotSpec): string => {
    if (s.type === 'choice') return s.options.map((o) => word(o, kind)).join(', ');
    if (s.type !== 'number') return '';
    const ends =
      s.max === undefined
        ? s.min === undefined
          ? ''
          : say('from {min}', { min: s.min })
        : say('{x} to {max}', { x: s.min ?? '...', max: s.max });
    return [ends, s.unit, s.whole ? say('whole') : ''].filter(Boolean).join(', ');
  };
  let trouble = $state('');
  async function openExample() {
    const project = {
      ...newProject(say('Example: {label}', { label: word(def.label[0]) }).slice(0, 80), kitFor(kind), longAisle),
      program: exampleOf(kind)
    };
    const answer = await fetch('/api/projects', {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(project)
    });
    if (answer.ok) await goto(`/project/${(await answer.json()).id}`);
    else trouble = (await answer.json()).message;
  }
  const related = $derived(
    [...catalogue.values()].filter((d) => d.section === def.section && d.kind !== kind).slice(0, 6)
  );
</script>

<article class="flex flex-col gap-3" data-testid="block-page">
  {#if heading}<h1 class="font-display text-[26px]">{word(def.label[0])}</h1>{/if}
  <p class="flex items-center gap-2 text-soft">
    <svg
      viewBox="0 0 24 24"
      width="18"
      height="18"
      fill="none"
      stroke-width="2.2"
      stroke-linecap="round"
      stroke-linejoin="round"
      style="stroke: var(--{section.family})"
      aria-hidden="true">{@html ICONS[def.section]}</svg
    >{word(section.title)} · {word(def.label[1])}
  </p>
  <p
    class="self-start rounded-[7px] border border-l-[9px] px-3 py-1.5 font-semibold"
    style="--c: var(--{section.family}); border-color: color-mix(in srgb, var(--c) 34%, var(--card)); border-left-color: var(--c); background: color-mix(in srgb, var(--c) 7%, var(--card))"
  >
    {#each word(def.words).split(/(\{[^}]*\})/) as piece, i (i)}{#if piece.startsWith('{>')}<br /><span
          class="text-soft">{say('... blocks ...')}</span
        ><br />{:else if piece.startsWith('{')}<span class="rounded bg-card px-1.5 text-[14px]"
          >{word(piece.slice(1, -1), 'slot')}</span
        >{:else}{piece}{/if}{/each}
  </p>
  <p class="max-w-prose">{word(def.help)}</p>
  {#if def.mistake}<Remark tone="ink" role={null} class="max-w-prose"
      ><b>{say('Watch out.')}</b> {word(def.mistake)}</Remark
    >{/if}
  {#if slots.length}
    <Table class="max-w-prose text-[14px]">
      <thead class="text-soft"
        ><tr
          ><th class="py-1 pr-3">{say('Slot')}</th><th class="pr-3">{say('takes')}</th><th class="pr-3"
            >{say('range')}</th
          ><th>{say('comes with')}</th></tr
        ></thead
      >
      <tbody>
        {#each slots as [name, spec] (name)}<tr class="border-t border-rule"
            ><td class="py-1 pr-3 font-semibold">{word(name, 'slot')}</td><td class="pr-3">{word(WHAT[spec.type])}</td
            ><td class="pr-3">{range(spec)}</td><td
              >{'default' in spec && typeof spec.default !== 'object' ? word(String(spec.default), kind) : ''}</td
            ></tr
          >{/each}
      </tbody>
    </Table>
  {/if}
  <h2 class="mt-1 text-[16px] font-semibold">{say('Example')}</h2>
  <pre
    class="overflow-auto rounded-lg border border-rule bg-linen p-3 font-mono text-[13px] leading-[1.45]">{text.trim()}</pre>
  <div><Button look="go" onclick={openExample}>{say('Open this example')}</Button></div>
  {#if trouble}<Remark look="line">{trouble}</Remark>{/if}
  {#if def.needs?.length}<p class="text-soft">
      {say('Offered where the kit has: {n}.', {
        n: def.needs.map((need) => (need in MISSING ? word(MISSING[need]) : aPart(need as PartType))).join(', ')
      })}
    </p>{/if}
  <p class="text-soft">
    {say('See also:')}
    {#each related as d, i (d.kind)}{i ? ', ' : ''}<a class="underline" href="/handbook/block/{d.kind}"
        >{word(d.label[0])}</a
      >{/each}
  </p>
</article>
