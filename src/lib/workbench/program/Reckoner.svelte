<!-- Calculates rather than guesses: each page shows its formula with the numbers in it, and its result goes into a block. -->
<script lang="ts">
  import Choice from '../../ui/Choice.svelte';
  import Button from '../../ui/Button.svelte';
  import NumberField from '../../ui/NumberField.svelte';
  import { retell, say, word } from '../../../../core/words.ts';
  import { PAGES, type Field, type Line } from '../../../../core/reckon/pages.ts';
  import { catalogue, definition } from '../../../../core/language/catalogue.ts';
  import { setSlot, changeStep } from '../../../../core/language/edit.ts';
  import { allSteps } from '../../../../core/language/program.ts';
  import { channel } from '../../../../core/trace/trace.ts';
  import { measure } from '../../../../core/trace/measure.ts';
  import { sampleAt, tickAt } from '../../../../core/trace/query.ts';
  import { useWorkbench } from '../workbench.svelte.ts';
  let { close }: { close: () => void } = $props();
  const w = useWorkbench();
  const { runs } = w;
  let key = $state<string>('distance');
  const page = $derived(PAGES.find((p) => p.key === key)!);
  /** what was typed, by page and field */
  let typed = $state.raw<Record<string, number>>({});
  const kit = $derived(w.session.project.kit);
  const valueOf = (f: Field): number => typed[`${key}.${f.key}`] ?? f.begins(kit);
  const values = $derived(Object.fromEntries(page.fields.map((f) => [f.key, valueOf(f)])));
  const good = $derived(page.fields.every((f) => Number.isFinite(values[f.key])));
  const lines = $derived(page.work(values));
  const put = (f: Field, value: number) => (typed = { ...typed, [`${key}.${f.key}`]: value });
  const show = (l: Line) => (Number.isFinite(l.value) ? l.value.toFixed(l.places) : '…');

  /** where else a number can come from: the kit sheet, the cursors of the trace, the value now */
  function sources(f: Field): { name: string; value: number }[] {
    const out: { name: string; value: number }[] = [];
    if (f.sheet) out.push({ name: say('kit sheet'), value: f.begins(kit) });
    const run = runs.run;
    if (!run || run.version < 0) return out;
    for (const at of f.takes ?? []) {
      const c = channel(run.trace, at);
      if (!c || run.trace.ticks === 0) continue;
      const title = retell(c.title);
      out.push({
        name: runs.busy ? say('{title} now', { title }) : say('{title} at the playhead', { title }),
        value: sampleAt(c, tickAt(runs.playheadUs, run.trace.ticks))
      });
      const { a, b } = w.trace;
      const m = a !== undefined && b !== undefined ? measure(c, run.trace.ticks, a, b) : undefined;
      if (m) {
        out.push(
          { name: say('{title} at A', { title }), value: m.a },
          { name: say('{title} at B', { title }), value: m.b }
        );
        out.push({ name: say('{title}, A to B', { title }), value: m.difference });
      }
    }
    return out;
  }
  const step = $derived(
    w.selected ? [...allSteps(w.session.project.program)].find((s) => s.id === w.selected) : undefined
  );
  /** where a result can go: the amount of a measured block in its unit, or the number of the same unit, or the first number */
  function targetOf(l: Line): { slot: string; unit?: string; name: string } | undefined {
    if (!step || !catalogue.has(step.kind)) return undefined;
    const { slots, label } = definition(step.kind);
    if ('unit' in slots && slots.unit.type === 'choice') {
      const unit = slots.unit.options.find((o) => o === l.unit || (l.unit === 'turns' && o === 'wheel turns'));
      if (unit) return { slot: 'amount' in slots ? 'amount' : 'time', unit, name: label[0] };
    }
    const numbers = Object.entries(slots).filter(([, s]) => s.type === 'number' || s.type === 'any');
    const same = numbers.find(([, s]) => 'unit' in s && s.unit === l.unit);
    const slot = (same ?? numbers[0])?.[0];
    return slot ? { slot, name: label[0] } : undefined;
  }
  function write(l: Line) {
    const target = targetOf(l);
    if (!step || !target) return;
    const value = Number(l.value.toFixed(Math.max(l.places, 3)));
    let program = setSlot(w.session.project.program, step.id, target.slot, value);
    if (target.unit)
      program = changeStep(program, step.id, (s) => ({ ...s, slots: { ...s.slots, unit: target.unit! } }));
    w.session.program(say('put a reckoned number into a block'), program);
  }
  const first = $derived(targetOf(lines[0]));
</script>

<div
  class="absolute bottom-2 left-2 z-30 flex max-h-[calc(100%-1rem)] w-[430px] max-w-[calc(100%-1rem)] flex-col rounded-xl border border-rule bg-card shadow-lg"
  role="region"
  aria-label={say('Reckoner')}
>
  <div class="flex items-center gap-2 border-b border-rule px-3 py-1.5">
    <h3 class="text-[16px]">{say('Reckoner')}</h3>
    <Choice size="sm" class="min-w-0 flex-1" aria-label={say('What is reckoned')} bind:value={key}
      >{#each PAGES as p (p.key)}<option value={p.key}>{word(p.title)}</option>{/each}</Choice
    >
    <Button look="quiet" onclick={close}>{say('Close')}</Button>
  </div>
  <div class="flex flex-col gap-2 overflow-auto p-3">
    {#each page.fields as f (page.key + f.key)}
      {@const from = sources(f)}
      <div class="flex items-center justify-between gap-2">
        <label class="flex min-w-0 flex-1 items-center justify-between gap-2"
          ><span class="min-w-0">{word(f.name)}</span>
          <span class="shrink-0"
            ><NumberField
              size="sm"
              class="w-24! text-right font-mono"
              live
              value={Number(valueOf(f).toFixed(4))}
              put={(v) => put(f, v)}
            /> <span class="inline-block w-10">{word(f.unit)}</span></span
          ></label
        >
        <Choice
          size="sm"
          class="w-20 text-[12px] text-soft"
          aria-label={say('Take {name} from', { name: word(f.name) })}
          disabled={!from.length}
          value=""
          onchange={(e) => {
            const chosen = from[Number(e.currentTarget.value)];
            if (chosen) put(f, Number(chosen.value.toFixed(3)));
            e.currentTarget.value = '';
          }}
          ><option value="">{say('take …')}</option>{#each from as s, i (s.name)}<option value={i}
              >{s.name}: {s.value.toFixed(2)}</option
            >{/each}</Choice
        >
      </div>
    {/each}
    <ul class="flex flex-col gap-1 rounded-lg bg-linen p-2" aria-live="polite">
      {#each lines as l, i (l.name)}
        <li class="grid grid-cols-[minmax(0,1fr)_auto] items-baseline gap-x-2">
          <span class={i === 0 ? 'font-bold' : ''}>{word(l.name)}</span>
          <span class="text-right font-mono {i === 0 ? 'font-bold' : ''}"
            ><output data-testid={i === 0 ? 'reckoned' : undefined} data-line={l.name}>{show(l)}</output>
            {word(l.unit)}
            {#if step && targetOf(l)}<Button
                look="quiet"
                class="px-1 underline"
                disabled={!good || !Number.isFinite(l.value)}
                aria-label={say('Put {name} into the block', { name: word(l.name) })}
                title={say('Put into the block: {name}', { name: word(targetOf(l)!.name) })}
                onclick={() => write(l)}>↗</Button
              >{/if}</span
          >
          {#if l.formula}<small class="col-span-2 font-mono text-soft">= {l.formula}</small>{/if}
        </li>
      {/each}
    </ul>
    <Button size="sm" class="justify-center" disabled={!first || !good} onclick={() => write(lines[0])}
      >{first
        ? say('Put into the block: {name}', { name: word(first.name) })
        : say('Choose a block with a number first')}</Button
    >
    {#if key === 'servo'}<Button look="quiet" class="underline" href="/project/{w.session.id}/dial" target="_blank"
        >{say('Print a dial card for the horn')}</Button
      >{/if}
  </div>
</div>
