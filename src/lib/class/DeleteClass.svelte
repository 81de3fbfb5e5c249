<!-- The class goes with everything. There is no way back, so its name is asked for. -->
<script lang="ts">
  import { goto } from '$app/navigation';
  import { say } from '../../../core/words.ts';
  import Button from '../ui/Button.svelte';
  import Dialog from '../ui/Dialog.svelte';
  import Named from '../ui/Named.svelte';
  import Remark from '../ui/Remark.svelte';
  import { ask } from './ask.ts';
  import type { HeldStill, OpenedClass } from './class.ts';
  import { heldStill } from './held-still.ts';
  let { open = $bindable(), of }: { open: boolean; of: OpenedClass } = $props();
  let typed = $state('');
  let problem = $state('');
  /** it is gone, and what still holds it is read before one goes on */
  let held = $state('');
  async function go() {
    const answer = await ask<{ left: HeldStill[] }>(`/api/classes/${of.id}`, 'DELETE');
    if (!answer.ok) return void (problem = answer.problem);
    held = heldStill(answer.value.left);
    if (!held) await goto('/class');
  }
</script>

<Dialog bind:open title={say('Delete this class with everything')} size="xs">
  {#if held}
    <p>{say('The class is deleted.')}</p>
    <Remark data-testid="held-still">{held}</Remark>
    <div class="flex justify-end"><Button look="go" href="/class">{say('To the classes')}</Button></div>
  {:else}
    <p>
      {say(
        'The {n, plural, one {# pupil} other {# pupils}} of this class go, with their projects, versions, runs, errands, lessons, comments and everything that was handed in. There is no way back.',
        { n: of.pupils.length }
      )}
    </p>
    <p class="text-soft">
      {say(
        'They go from the backups that were made with ./mossbell backup too, as long as those are where they were made. Which ones still hold them is said then. Other copies are files of your own: delete those too.'
      )}
    </p>
    <Named label={say('To go on, write the name of the class: {name}', { name: of.name })} bind:value={typed} />
    {#if problem}<Remark look="line">{problem}</Remark>{/if}
    <div class="flex justify-end gap-2">
      <Button onclick={() => (open = false)}>{say('Leave it')}</Button>
      <Button look="go" disabled={typed.trim() !== of.name} onclick={go}>{say('Delete it')}</Button>
    </div>
  {/if}
</Dialog>
