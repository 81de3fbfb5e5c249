<!-- Who teaches on this computer; and a teacher who leaves, whose classes go to another one. -->
<script lang="ts">
  import { invalidateAll } from '$app/navigation';
  import { page } from '$app/state';
  import { say } from '../../../core/words.ts';
  import Button from '../ui/Button.svelte';
  import Choice from '../ui/Choice.svelte';
  import Dialog from '../ui/Dialog.svelte';
  import Named from '../ui/Named.svelte';
  import Remark from '../ui/Remark.svelte';
  import { ask } from './ask.ts';
  import type { Signed, Teacher } from './class.ts';
  let { teachers }: { teachers: readonly (Teacher & { classes: number })[] } = $props();
  const me = $derived((page.data.me as Signed).id);
  const isFirst = $derived(teachers.some((t) => t.own && t.id === me));
  let leaving = $state.raw<Teacher>();
  let to = $state('');
  let passphrase = $state('');
  let problem = $state('');
  async function leave(e: SubmitEvent) {
    e.preventDefault();
    const answer = await ask(`/api/teachers/${leaving!.id}`, 'DELETE', { passphrase, to });
    problem = answer.ok ? '' : answer.problem;
    if (!answer.ok) return;
    if (leaving!.id === me) return location.assign('/');
    [leaving, to, passphrase] = [undefined, '', ''];
    await invalidateAll();
  }
</script>

<h2 class="text-[17px]">{say('Who teaches here')}</h2>
<ul data-testid="staff">
  {#each teachers as teacher (teacher.id)}<li class="flex items-center gap-2 border-t border-rule py-1.5">
      <b class="min-w-0 truncate">{teacher.nickname}</b>
      <small class="flex-1 text-soft"
        >{say('{n, plural, =0 {no class} one {# class} other {# classes}}', { n: teacher.classes })}{teacher.own
          ? ` · ${say('the first')}`
          : ''}</small
      >
      {#if teachers.length > 1 && (isFirst || teacher.id === me)}<Button
          size="sm"
          onclick={() => ([leaving, to, problem] = [teacher, '', ''])}
          >{teacher.id === me ? say('I leave') : say('Leaves')}</Button
        >{/if}
    </li>{/each}
</ul>
<Dialog
  bind:open={() => leaving !== undefined, (is) => (leaving = is ? leaving : undefined)}
  title={say('{name} leaves', { name: leaving?.nickname ?? '' })}
  size="xs"
>
  <form class="flex flex-col gap-3" onsubmit={leave}>
    <p class="text-soft">
      {say(
        'Classes, errands and lessons become another teacher’s. Projects of their own are deleted. There is no way back.'
      )}
    </p>
    <label class="flex flex-col gap-1 font-semibold"
      >{say('To whom they go')}<Choice class="w-full! font-normal" bind:value={to}>
        <option value="" disabled>{say('choose a teacher')}</option>
        {#each teachers.filter((t) => t.id !== leaving?.id) as one (one.id)}<option value={one.id}
            >{one.nickname}</option
          >{/each}
      </Choice></label
    >
    <Named label={say('Your passphrase')} bind:value={passphrase} type="password" autocomplete="current-password" />
    {#if problem}<Remark look="line">{problem}</Remark>{/if}
    <div class="flex justify-end gap-2">
      <Button onclick={() => (leaving = undefined)}>{say('Leave it')}</Button>
      <Button look="go" type="submit" disabled={!to || !passphrase}>{say('Do it')}</Button>
    </div>
  </form>
</Dialog>
