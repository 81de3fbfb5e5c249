<!-- A pupil goes to another class of the teacher's, with all work. -->
<script lang="ts">
  import { say } from '../../../core/words.ts';
  import Button from '../ui/Button.svelte';
  import Choice from '../ui/Choice.svelte';
  import Dialog from '../ui/Dialog.svelte';
  import Remark from '../ui/Remark.svelte';
  import { ask } from './ask.ts';
  import type { OpenedClass, Pupil } from './class.ts';
  let { pupil = $bindable(), of, moved }: { pupil: Pupil | undefined; of: OpenedClass; moved: () => void } = $props();
  let to = $state('');
  let problem = $state('');
  async function move() {
    const answer = await ask(`/api/classes/${of.id}/pupils/${pupil!.id}`, 'PUT', { to });
    problem = answer.ok ? '' : answer.problem;
    if (!answer.ok) return;
    [pupil, to] = [undefined, ''];
    moved();
  }
</script>

<Dialog
  bind:open={() => pupil !== undefined, (is) => (pupil = is ? pupil : undefined)}
  title={say('{name} goes to another class', { name: pupil?.nickname ?? '' })}
  size="xs"
>
  <p class="text-soft">
    {say(
      'All projects and everything handed in go along. The words of the card stay good; the class code is that of the other class, so print the card there again.'
    )}
  </p>
  <Choice class="w-full!" bind:value={to} aria-label={say('To which class')}>
    <option value="" disabled>{say('choose a class')}</option>
    {#each of.others as one (one.id)}<option value={one.id}>{one.name}</option>{/each}
  </Choice>
  {#if problem}<Remark look="line">{problem}</Remark>{/if}
  <div class="flex justify-end gap-2">
    <Button onclick={() => (pupil = undefined)}>{say('Leave it')}</Button>
    <Button look="go" disabled={!to} onclick={move}>{say('Move')}</Button>
  </div>
</Dialog>
