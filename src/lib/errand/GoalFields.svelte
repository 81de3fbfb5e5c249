<!-- The fields of a goal, as its definition names them. -->
<script lang="ts">
  import type { Field as Definition } from '../../../core/errand/goal.ts';
  import { goalDef, type Goal } from '../../../core/errand/goals.ts';
  import { definition } from '../../../core/language/catalogue.ts';
  import { measuredOf, sensorsOf } from './sensors.ts';
  import { lampsOf, type Kit } from '../../../core/kit/kit.ts';
  import type { Mat } from '../../../core/yard/mat.ts';
  import { word } from '../../../core/words.ts';
  import Choice from '../ui/Choice.svelte';
  import Dots from '../ui/Dots.svelte';
  import Field from '../ui/Field.svelte';
  import NumberField from '../ui/NumberField.svelte';
  let { goal, kit, mat, put }: { goal: Goal; kit: Kit; mat: Mat; put: (goal: Goal) => void } = $props();
  const fields = $derived(Object.entries(goalDef(goal.kind)?.fields ?? {}) as [string, Definition][]);
  const value = (key: string) => (goal as unknown as Record<string, unknown>)[key];
  const give = (key: string, v: unknown) => put({ ...goal, [key]: v } as Goal);
  const namesOf = (f: Definition): [string, string][] => {
    if (f.type === 'hoop') return mat.hoops.map((h) => [h.name, h.name]);
    if (f.type === 'lamp') return lampsOf(kit).map((l) => [l, word(l)]);
    if (f.type === 'servo')
      return kit.parts.filter((p) => p.type === 'servo' || p.type === 'spin').map((p) => [p.socket, p.name]);
    if (f.type === 'sensor') return sensorsOf(kit).map((kind) => [kind, word(definition(kind).label[0])]);
    if (f.type === 'channel') return measuredOf(kit).map(({ key, title }) => [key, word(title)]);
    return f.type === 'choice' ? Object.entries(f.of).map(([k, v]) => [k, word(v)]) : [];
  };
  const numbers = (text: string): number[] | undefined => {
    const list = text
      .split(/[\s;]+/)
      .filter(Boolean)
      .map((t) => Number(t.replace(',', '.')));
    return list.length && list.every(Number.isFinite) ? list : undefined;
  };
</script>

{#each fields as [key, f] (key)}
  <label class="flex items-center gap-1.5"
    ><span class="text-soft">{word(f.label)}</span>
    {#if f.type === 'number'}<NumberField
        size="sm"
        class="w-16!"
        value={value(key) as number}
        put={(n) => give(key, n)}
        min={f.min}
        max={f.max}
        step={0.1}
        aria-label={word(f.label)}
      />{f.unit}
    {:else if f.type === 'numbers'}<Field
        size="sm"
        class="w-32!"
        value={(value(key) as number[]).join(' ')}
        aria-label={word(f.label)}
        onchange={(e) => {
          const list = numbers(e.currentTarget.value);
          if (list) give(key, list);
          else e.currentTarget.value = (value(key) as number[]).join(' ');
        }}
      />{f.unit}
    {:else if f.type === 'picture'}
      {#if kit.display}<svg width="58" height="40" viewBox="-29 -20 58 40" aria-hidden="true"
          ><Dots display={kit.display} picture={value(key) as string} wide={58} high={40} /></svg
        >{/if}
    {:else if f.type === 'text'}<Field
        size="sm"
        class="w-36!"
        value={value(key) as string}
        aria-label={word(f.label)}
        onchange={(e) => e.currentTarget.value.trim() && give(key, e.currentTarget.value.trim())}
      />
    {:else}<Choice
        size="sm"
        value={value(key)}
        aria-label={word(f.label)}
        onchange={(e) => give(key, e.currentTarget.value)}
        >{#each namesOf(f) as [k, name] (k)}<option value={k}>{name}</option>{/each}</Choice
      >{/if}</label
  >
{/each}
