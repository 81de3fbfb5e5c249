<!-- The class is asked where a program will stop: one of the teacher's own, a demo project, or one that a pupil shows to the room. -->
<script lang="ts">
  import { goto } from '$app/navigation';
  import { say } from '../../../core/words.ts';
  import Button from '../ui/Button.svelte';
  import Choice from '../ui/Choice.svelte';
  import Dialog from '../ui/Dialog.svelte';
  import Remark from '../ui/Remark.svelte';
  import type { Card } from '../shelf/cards.ts';
  import { ask } from './ask.ts';
  import type { OpenedClass } from './class.ts';
  let { open = $bindable(), of }: { open: boolean; of: OpenedClass } = $props();
  let own = $state.raw<readonly Card[]>([]);
  let demo = $state.raw<readonly Card[]>([]);
  const shown = $derived(of.collected.filter((c) => c.shown));
  let project = $state('');
  let problem = $state('');
  $effect(() => {
    if (!open) return;
    void ask<Card[]>('/api/projects').then((answer) => answer.ok && (own = answer.value));
    void ask<Card[]>('/api/projects?demo').then((answer) => answer.ok && (demo = answer.value));
  });
  async function begin() {
    const answer = await ask<{ id: string }>(`/api/classes/${of.id}/rounds`, 'POST', { project });
    if (answer.ok) await goto(`/predict/${answer.value.id}`);
    else problem = answer.problem;
  }
</script>

<Dialog bind:open title={say('Predict together')} size="sm">
  <p class="text-soft">
    {say(
      'Everyone in the class reads a program and marks where it will stop. Then it runs once, and the spread is drawn.'
    )}
  </p>
  <label class="flex flex-col gap-1 font-semibold"
    >{say('Which program')}<Choice class="w-full!" bind:value={project}>
      <option value="" disabled>{say('choose a program')}</option>
      {#if own.length}<optgroup label={say('Your projects')}
          >{#each own as c (c.id)}<option value={c.id}>{c.name}</option>{/each}</optgroup
        >{/if}
      {#if shown.length}<optgroup label={say('What pupils show')}
          >{#each shown as c (c.handIn)}<option value={c.projectId}>{c.nickname}</option>{/each}</optgroup
        >{/if}
      <optgroup label={say('Demo projects')}
        >{#each demo as c (c.id)}<option value={c.id}>{c.name}</option>{/each}</optgroup
      >
    </Choice></label
  >
  {#if of.collected.length > shown.length}<p class="text-[13px] text-soft">
      {say('A pupil’s program can be asked about once its pupil shows it to the room.')}
    </p>{/if}
  {#if problem}<Remark look="line">{problem}</Remark>{/if}
  <div class="flex justify-end gap-2">
    <Button onclick={() => (open = false)}>{say('Leave it')}</Button>
    <Button look="go" disabled={!project} onclick={begin}>{say('Ask the class')}</Button>
  </div>
</Dialog>
