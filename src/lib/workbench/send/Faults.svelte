<!-- What a teacher can switch on for a lesson: a bad cable, a device that is not in order, an empty battery. -->
<script lang="ts">
  import { CABLES, type CableName } from '../../../../board/standin/cable.ts';
  import { CONDITIONS, type Condition } from '../../../../board/standin/memory.ts';
  import { say, word } from '../../../../core/words.ts';
  import Button from '../../ui/Button.svelte';
  import Choice from '../../ui/Choice.svelte';
  import Tick from '../../ui/Tick.svelte';
  import { useWorkbench } from '../workbench.svelte.ts';
  const w = useWorkbench();
  const d = $derived(w.device);
  const busy = $derived(!!d.progress || d.running);
</script>

<div class="flex flex-col gap-2 text-[13.5px]">
  <p class="text-soft">
    {say(
      'For a lesson on what goes wrong. What is switched on here stays on until it is switched off, and the panel says so.'
    )}
  </p>
  <label class="flex items-center justify-between gap-3"
    >{say('What hangs on it')}
    <Choice
      size="sm"
      class="max-w-56"
      value={d.cableName}
      disabled={!!d.progress}
      onchange={(e) => (d.cableName = e.currentTarget.value as CableName)}
      >{#each Object.entries(CABLES) as [name, words] (name)}<option value={name}>{word(words)}</option>{/each}</Choice
    >
  </label>
  <label class="flex items-center justify-between gap-3"
    >{say('What is on it')}
    <Choice
      size="sm"
      class="max-w-56"
      value={d.condition}
      disabled={busy}
      onchange={(e) => d.setCondition(e.currentTarget.value as Condition)}
      >{#each Object.entries(CONDITIONS) as [name, words] (name)}<option value={name}>{word(words)}</option
        >{/each}</Choice
    >
  </label>
  <label class="flex items-center gap-2"
    ><Tick bind:checked={d.givesOut} disabled={!!d.progress} />{say(
      'Its battery gives out while something is sent'
    )}</label
  >
  <div class="flex items-center justify-between gap-3">
    {say('Battery')}
    <span class="flex gap-1.5">
      <Button size="sm" disabled={busy || !d.powered} onclick={() => d.setCharge(0.02)}>{say('nearly flat')}</Button>
      <Button size="sm" disabled={busy || !d.powered} onclick={() => d.setCharge(1)}>{say('full')}</Button>
    </span>
  </div>
</div>
