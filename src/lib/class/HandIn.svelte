<!-- Handing in: the project as it is now is frozen, with a note and its last run; again as often as wanted, and withdrawn. -->
<script lang="ts">
  import { clockIn, say } from '../../../core/words.ts';
  import type { Project } from '../../../core/project.ts';
  import type { Session } from '../project/session.svelte.ts';
  import { createOnServer } from '../shelf/files.ts';
  import Button from '../ui/Button.svelte';
  import Dialog from '../ui/Dialog.svelte';
  import Lines from '../ui/Lines.svelte';
  import Remark from '../ui/Remark.svelte';
  import { toasts } from '../ui/toasts.svelte.ts';
  import { ask } from './ask.ts';
  import type { HandIn } from './class.ts';
  let { open = $bindable(), session, mine }: { open: boolean; session: Session; mine: boolean } = $props();
  let list = $state.raw<readonly HandIn[]>([]);
  let note = $state('');
  let problem = $state('');
  let busy = $state(false);
  const path = $derived(`/api/projects/${session.id}/hand-ins`);
  async function load() {
    const answer = await ask<HandIn[]>(path);
    if (answer.ok) list = answer.value;
    problem = answer.ok ? '' : answer.problem;
  }
  $effect(() => {
    if (open) void load();
  });
  async function hand() {
    busy = true;
    // what was just changed is part of it
    if (!session.of.looks && !(await session.settled())) {
      busy = false;
      problem = session.trouble || say('What you changed is not saved yet. Try again in a moment.');
      return;
    }
    const answer = await ask(path, 'POST', { note });
    busy = false;
    if (!answer.ok) return void (problem = answer.problem);
    [note, open] = ['', false];
    toasts.tell(say('It is handed in as it is now. You can go on, and hand in again.'));
  }
  async function withdraw(one: HandIn) {
    const answer = await ask(`${path}/${one.id}`, 'DELETE');
    if (answer.ok) await load();
    else problem = answer.problem;
  }
  async function look(one: HandIn) {
    const answer = await ask<Project>(`${path}/${one.id}`);
    if (!answer.ok) return void (problem = answer.problem);
    const name = say('{name}, handed in {time}', { name: answer.value.name.slice(0, 40), time: clock.format(one.at) });
    const made = await createOnServer({ ...answer.value, name: name.slice(0, 80) });
    if (made.ok) location.assign(`/project/${made.id}`);
    else problem = made.problem;
  }
  const clock = $derived(new Intl.DateTimeFormat(clockIn(), { dateStyle: 'short', timeStyle: 'short' }));
</script>

<Dialog bind:open title={mine ? say('Hand in') : say('What was handed in')} size="sm">
  {#if mine}
    <p class="text-soft">
      {say('The program is kept as it is now, with its last run. You can go on working afterwards.')}
    </p>
    <label class="flex flex-col gap-1 font-semibold"
      >{say('A note to your teacher, if you like')}<Lines
        class="h-20 font-normal"
        bind:value={note}
        maxlength={600}
      /></label
    >
  {/if}
  {#if problem}<Remark look="line">{problem}</Remark>{/if}
  {#if list.length}<ul class="max-h-[40vh] overflow-auto" data-testid="handed-in">
      {#each list as one (one.id)}<li class="flex items-start gap-2 border-t border-rule py-1.5">
          <span class="min-w-0 flex-1 {one.withdrawnAt ? 'text-soft line-through' : ''}"
            ><b>{clock.format(one.at)}</b>{#if one.result}<span class="text-soft">
                · {say('{n} of {of} goals', { n: one.result.got, of: one.result.of })}{one.claimed
                  ? `, ${say('as the browser said')}`
                  : ''}</span
              >{/if}{#if one.backAt}<span class="text-clay"> · {say('given back')}</span>{:else if one.seenAt}<span
                class="text-soft"
              >
                · {say('your teacher has looked at it')}</span
              >{/if}{#if one.note}<span class="block">“{one.note}”</span>{/if}</span
          >
          <Button size="sm" onclick={() => look(one)}>{say('Open as a copy')}</Button>
          {#if mine && !one.withdrawnAt}<Button size="sm" onclick={() => withdraw(one)}>{say('Withdraw')}</Button>{/if}
        </li>{/each}
    </ul>{:else if !mine}<p class="text-soft">{say('Nothing handed in yet.')}</p>{/if}
  <div class="flex justify-end gap-2">
    <Button onclick={() => (open = false)}>{mine ? say('Leave it') : say('Close')}</Button>
    {#if mine}<Button look="go" disabled={busy} onclick={hand}
        >{list.length ? say('Hand in again') : say('Hand in')}</Button
      >{/if}
  </div>
</Dialog>
