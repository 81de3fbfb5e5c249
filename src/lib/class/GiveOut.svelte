<!-- An errand, a lesson or a project is given out: to the class or a group, from now or later, with or without an end. -->
<script lang="ts">
  import { toldIn, type Told } from '../../../core/errand/task.ts';
  import { say } from '../../../core/words.ts';
  import Button from '../ui/Button.svelte';
  import Choice from '../ui/Choice.svelte';
  import Dialog from '../ui/Dialog.svelte';
  import Field from '../ui/Field.svelte';
  import Remark from '../ui/Remark.svelte';
  import { ask } from './ask.ts';
  import type { OpenedClass } from './class.ts';
  type Named = { id: string; name: Told };
  let {
    open = $bindable(),
    of,
    errands,
    lessons,
    projects,
    groups,
    given
  }: {
    open: boolean;
    of: OpenedClass;
    errands: Named[];
    lessons: Named[];
    projects: Named[];
    groups: string[];
    given: () => void;
  } = $props();
  /** its kind and its id */
  let what = $state('');
  let group = $state('');
  let from = $state('');
  let until = $state('');
  let problem = $state('');
  const at = (local: string): number | undefined => (local ? new Date(local).getTime() : undefined);
  async function give() {
    const [kind, target] = what.split('/');
    const answer = await ask(`/api/classes/${of.id}/given`, 'POST', {
      kind,
      target,
      group,
      ...(from ? { fromAt: at(from) } : {}),
      untilAt: at(until) ?? null
    });
    problem = answer.ok ? '' : answer.problem;
    if (!answer.ok) return;
    open = false;
    given();
  }
</script>

<Dialog bind:open title={say('Give out')} size="sm">
  <div class="grid grid-cols-[auto_1fr] items-center gap-x-3 gap-y-2.5">
    <label for="give-what" class="font-semibold">{say('What')}</label>
    <Choice id="give-what" class="w-full!" bind:value={what}>
      <option value="" disabled>{say('choose an errand, a lesson or a project')}</option>
      <optgroup label={say('Errands')}
        >{#each errands as one (one.id)}<option value="errand/{one.id}">{toldIn(one.name)}</option>{/each}</optgroup
      >
      <optgroup label={say('Lessons')}
        >{#each lessons as one (one.id)}<option value="lesson/{one.id}">{toldIn(one.name)}</option>{/each}</optgroup
      >
      <optgroup label={say('Projects')}
        >{#each projects as one (one.id)}<option value="project/{one.id}">{toldIn(one.name)}</option>{/each}</optgroup
      >
    </Choice>
    <label for="give-group" class="font-semibold">{say('To')}</label>
    <Choice id="give-group" bind:value={group}
      ><option value="">{say('the whole class')}</option>{#each groups as g (g)}<option value={g}>{g}</option
        >{/each}</Choice
    >
    <label for="give-from" class="font-semibold">{say('From')}</label>
    <span class="flex items-center gap-2"
      ><Field id="give-from" type="datetime-local" bind:value={from} />{#if !from}<span class="text-soft"
          >{say('now')}</span
        >{/if}</span
    >
    <label for="give-until" class="font-semibold">{say('Until')}</label>
    <span class="flex items-center gap-2"
      ><Field id="give-until" type="datetime-local" bind:value={until} />{#if !until}<span class="text-soft"
          >{say('no end')}</span
        >{/if}</span
    >
  </div>
  <p class="text-soft">
    {say(
      'Each pupil, or pair, gets a project of their own to do it in; a project goes out as it is now. After the end it cannot be begun any more; what was begun stays, and what is handed in is late.'
    )}
  </p>
  {#if problem}<Remark look="line">{problem}</Remark>{/if}
  <div class="flex justify-end gap-2">
    <Button onclick={() => (open = false)}>{say('Leave it')}</Button>
    <Button look="go" disabled={!what} onclick={give}>{say('Give it out')}</Button>
  </div>
</Dialog>
