<!--
  A line of the class above the workbench. A pupil: hand up, hand in, what the teacher said, who of a pair drives. A teacher who
  looks at a pupil's program: a comment, pointing, showing it to the room. It keeps the page in step with what others do.
-->
<script lang="ts">
  import Hand from '@lucide/svelte/icons/hand';
  import MessageSquare from '@lucide/svelte/icons/message-square';
  import Presentation from '@lucide/svelte/icons/presentation';
  import { page } from '$app/state';
  import { say } from '../../../core/words.ts';
  import Button from '../ui/Button.svelte';
  import Field from '../ui/Field.svelte';
  import { toasts } from '../ui/toasts.svelte.ts';
  import { onMount } from 'svelte';
  import { sentences } from '../workbench/sentences.ts';
  import { useWorkbench } from '../workbench/workbench.svelte.ts';
  import { ask } from './ask.ts';
  import type { Comment, Signed } from './class.ts';
  import { listen } from './live.ts';
  import Remarks from './Remarks.svelte';
  const w = useWorkbench();
  const { session } = w;
  const me = $derived(page.data.me as Signed);
  const of = $derived(session.of);
  const isPupil = $derived(me.role === 'pupil');
  /** of a pupil's, looked at by the teacher */
  const teaches = $derived(me.role === 'teacher' && !!of.by);
  const mine = $derived(isPupil && !of.by);
  let comments = $state.raw<readonly Comment[]>([]);
  let cut = $state(false);
  /** the hand; told as the line opens. The page is not asked anew: its workbench would be another one */
  let up = $state(false);
  let text = $state('');
  let writes = $state(false);
  let hands = $state(false);
  const names = $derived(sentences(session.project));
  const path = $derived(`/api/projects/${session.id}`);

  async function load() {
    // between a pupil and the teacher: not what a room is shown
    if (!mine && !teaches) return;
    const answer = await ask<Comment[]>(`${path}/comments`);
    if (answer.ok) comments = answer.value;
  }
  $effect(() => {
    const { id } = session;
    return listen(
      `/api/projects/${id}/live`,
      (told) => {
        if (told.comment) void load();
        if (told.handIn && mine) void session.look();
        if (told.handUp !== undefined) up = told.handUp;
        if ('point' in told) point(told.point ?? undefined);
        if (told.run && session.of.looks) void last();
        if (told.round && me.role === 'pupil')
          toasts.tell(say('Your class guesses where a program will stop.'), {
            label: say('Guess with them'),
            do: () => window.open(`/predict/${told.round}`, '_blank')
          });
        const news = told.version !== undefined && told.version > session.newest && told.by !== me.id;
        if (told.drives || told.shown === true || (news && session.of.looks)) void session.look();
        if (typeof told.shown === 'string' && told.shown !== id)
          toasts.tell(say('{name} shows a program to the room.', { name: told.by ?? '' }), {
            label: say('Look at it'),
            do: () => window.open(`/project/${told.shown}`, '_blank')
          });
      },
      (is) => (cut = is)
    );
  });
  /** the last run, as it was kept: with trace and findings */
  async function last() {
    await w.history.load();
    const [card] = w.history.list;
    if (card && !w.runs.busy) await w.history.show(card);
  }
  onMount(() => void (session.of.looks && last()));
  let unpoints: ReturnType<typeof setTimeout>;
  /** what the teacher points at is lit for a while */
  function point(block: string | undefined) {
    clearTimeout(unpoints);
    w.pointed = block;
    if (!block) return;
    w.tell(say('The teacher points at {block}.', { block: names.get(block) ?? '' }));
    unpoints = setTimeout(() => (w.pointed = undefined), 6000);
  }
  function see(block: string) {
    w.selected = undefined;
    w.selected = block;
  }
  async function does(to: string, method: 'POST' | 'PUT' | 'PATCH' | 'DELETE', body?: object) {
    const answer = await ask(to, method, body);
    if (!answer.ok) toasts.tell(answer.problem);
    return answer.ok;
  }
  async function hand() {
    if (await does('/api/me', 'PATCH', { handUp: !up })) up = !up;
  }
  async function comment(e: SubmitEvent) {
    e.preventDefault();
    if (await does(`${path}/comments`, 'POST', { block: w.selected ?? null, text })) [text, writes] = ['', false];
  }
</script>

<aside class="shrink-0" aria-label={say('Class')}>
  <div
    class="flex min-h-9 shrink-0 flex-wrap items-center gap-x-2.5 gap-y-1 border-b border-rule bg-linen px-3.5 py-1"
    data-testid="class-bar"
  >
    {#if mine}
      <Button size="sm" aria-pressed={up} class={up ? 'border-brass bg-brass/20' : ''} onclick={hand}
        ><Hand size={15} />{up ? say('Hand is up') : say('Hand up')}</Button
      >
      <Button size="sm" look={of.givenId ? 'go' : 'plain'} onclick={() => (hands = true)}>{say('Hand in')}</Button>
      {#if of.back}<b class="text-clay">{say('Your teacher gave it back: look at the remarks, then hand in again.')}</b
        >{/if}
      {#if of.partner}<span class="text-soft"
          >{of.looks
            ? say('{name} drives, you look on', { name: of.partner })
            : say('you drive, {name} looks on', { name: of.partner })}</span
        >{#if of.looks}<Button size="sm" onclick={() => does(`${path}/drive`, 'PUT')}>{say('Drive')}</Button>{/if}{/if}
      {#if of.shown === 'asked'}<span class="flex items-center gap-1.5" role="alert"
          ><Presentation size={15} /><b>{say('May the room see this program?')}</b>
          <Button size="sm" look="go" onclick={() => does(`${path}/show`, 'PUT', { yes: true })}>{say('Yes')}</Button
          ><Button size="sm" onclick={() => does(`${path}/show`, 'PUT', { yes: false })}>{say('No')}</Button></span
        >{:else if of.shown === 'yes'}<span class="flex items-center gap-1.5"
          ><Presentation size={15} />{say('The room sees this program.')}
          <Button size="sm" onclick={() => does(`${path}/show`, 'PUT', { yes: false })}>{say('Enough')}</Button></span
        >{/if}
    {:else}
      <b>{say('{name}’s program', { name: of.by ?? '' })}</b><span class="text-soft"
        >{say('as it is now; only to look at')}</span
      >
      {#if teaches}
        <Button size="sm" aria-expanded={writes} onclick={() => (writes = !writes)}
          ><MessageSquare size={15} />{say('Comment')}</Button
        >
        <Button size="sm" disabled={!w.selected} onclick={() => does(`${path}/point`, 'POST', { block: w.selected })}
          >{say('Point at the block')}</Button
        >
        {#if of.shown === null}<Button size="sm" onclick={() => does(`${path}/show`, 'POST', { yes: true })}
            >{say('Show it to the room')}</Button
          >{:else}<span class="text-soft"
            >{of.shown === 'asked' ? say('asked whether the room may see it') : say('the room sees it')}</span
          ><Button size="sm" onclick={() => does(`${path}/show`, 'POST', { yes: false })}>{say('Enough')}</Button>{/if}
        <Button size="sm" onclick={() => (hands = true)}>{say('What was handed in')}</Button>
        <Button size="sm" href="/class/{of.classId}/wall">{say('The wall')}</Button>
      {/if}
    {/if}
    <span class="flex-1"></span>
    {#if cut}<small class="text-clay" role="status"
        >{say('The school computer does not answer; this page catches up when it does.')}</small
      >{/if}
  </div>
  {#if writes}<form
      class="flex shrink-0 flex-wrap items-center gap-2 border-b border-rule bg-card px-3.5 py-1.5"
      onsubmit={comment}
    >
      <span class="max-w-[38ch] truncate text-soft"
        >{w.selected
          ? say('On: {block}', { block: names.get(w.selected) ?? '' })
          : say('On the whole program (choose a block to speak of one)')}</span
      >
      <Field class="flex-1" bind:value={text} maxlength={600} aria-label={say('Comment')} />
      <Button size="sm" look="go" type="submit" disabled={!text.trim()}>{say('Say it')}</Button>
    </form>{/if}
  <Remarks
    list={comments}
    {names}
    isPupil={mine}
    points={(block) => (w.pointed = block)}
    {see}
    does={async (id, method, body) => (await does(`${path}/comments/${id}`, method, body)) && (await load(), true)}
  />
</aside>
{#if hands}{#await import('./HandIn.svelte') then { default: HandIn }}<HandIn
      bind:open={hands}
      {session}
      {mine}
    />{/await}{/if}
