<!-- One thing that the kit sheet asks of a part: a choice or a number. -->
<script lang="ts">
  import type { Ask } from '../../../core/kit/forms.ts';
  import type { Part } from '../../../core/kit/kit.ts';
  import { word } from '../../../core/words.ts';
  import Choice from '../ui/Choice.svelte';
  import NumberField from '../ui/NumberField.svelte';
  let {
    part,
    ask,
    change
  }: { part: Part; ask: Ask<Part>; change: (what: string, socket: string, to: Partial<Part>) => void } = $props();
</script>

{#if ask.type === 'choice'}
  <Choice
    size="sm"
    aria-label={ask.aria(part)}
    title={ask.title && word(ask.title)}
    value={ask.of(part)}
    onchange={(e) => change(word(ask.change), part.socket, ask.put(e.currentTarget.value, part))}
    >{#each ask.options() as [value, says] (value)}<option {value}>{says}</option>{/each}</Choice
  >
{:else}
  <NumberField
    size="sm"
    class="{ask.max > 1000 ? 'w-20!' : 'w-14!'} text-right"
    aria-label={ask.aria(part)}
    min={ask.min}
    max={ask.max}
    value={ask.of(part)}
    put={(n) => change(word(ask.change), part.socket, ask.put(n, part))}
  />
{/if}
