<!-- A class like this one: for the next year, or beside it. -->
<script lang="ts">
  import { goto } from '$app/navigation';
  import { say } from '../../../core/words.ts';
  import Button from '../ui/Button.svelte';
  import Dialog from '../ui/Dialog.svelte';
  import Named from '../ui/Named.svelte';
  import Remark from '../ui/Remark.svelte';
  import Tick from '../ui/Tick.svelte';
  import { ask } from './ask.ts';
  import type { OpenedClass } from './class.ts';
  let { open = $bindable(), of }: { open: boolean; of: OpenedClass } = $props();
  let name = $state('');
  let pupils = $state(true);
  let given = $state(true);
  let problem = $state('');
  async function make(e: SubmitEvent) {
    e.preventDefault();
    const answer = await ask<{ id: string }>(`/api/classes/${of.id}`, 'POST', { name, pupils, given });
    if (!answer.ok) return void (problem = answer.problem);
    [open, name, problem] = [false, '', ''];
    await goto(`/class/${answer.value.id}`);
  }
</script>

<Dialog bind:open title={say('A class like this one')} size="xs">
  <form class="flex flex-col gap-3" onsubmit={make}>
    <Named label={say('What is the class called?')} bind:value={name} maxlength={60} />
    <label class="flex items-start gap-2"
      ><Tick class="mt-1" bind:checked={pupils} /><span
        >{say('with its pupils')}<small class="block text-soft"
          >{say(
            'They begin anew there: their work stays here. Their words stay the same, the class code is another.'
          )}</small
        ></span
      ></label
    >
    <label class="flex items-start gap-2"
      ><Tick class="mt-1" bind:checked={given} /><span
        >{say('with what was given out')}<small class="block text-soft"
          >{say('Nothing of it is open at first: you open each when its time comes.')}</small
        ></span
      ></label
    >
    {#if problem}<Remark look="line">{problem}</Remark>{/if}
    <div class="flex justify-end gap-2">
      <Button onclick={() => (open = false)}>{say('Leave it')}</Button>
      <Button look="go" type="submit" disabled={!name.trim()}>{say('Make it')}</Button>
    </div>
  </form>
</Dialog>
