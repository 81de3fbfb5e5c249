<!-- What is said about a project between its pupils and the teacher: remarks, each with its answers; those dealt with behind a button. -->
<script lang="ts">
  import MessageSquare from '@lucide/svelte/icons/message-square';
  import { say } from '../../../core/words.ts';
  import Button from '../ui/Button.svelte';
  import Field from '../ui/Field.svelte';
  import Menu from '../ui/Menu.svelte';
  import MenuItem from '../ui/MenuItem.svelte';
  import type { Comment } from './class.ts';
  let {
    list,
    names,
    isPupil,
    points,
    see,
    does
  }: {
    /** the newest first */
    list: readonly Comment[];
    /** the words of the blocks that are there */
    names: ReadonlyMap<string, string>;
    isPupil: boolean;
    points: (block: string | undefined) => void;
    see: (block: string) => void;
    does: (id: number, method: 'POST' | 'PUT' | 'PATCH' | 'DELETE', body?: object) => Promise<boolean>;
  } = $props();
  let showsDone = $state(false);
  const heads = $derived(list.filter((c) => c.under === null));
  const done = $derived(heads.filter((c) => c.doneAt !== null));
  const shown = $derived(showsDone ? heads : heads.filter((c) => c.doneAt === null));
  const answersTo = (id: number) => list.filter((c) => c.under === id).toReversed();
  /** what is written just now: an answer to one, or other words for one */
  let writes = $state.raw<{ id: number; as: 'POST' | 'PUT' }>();
  let text = $state('');
  function write(id: number, as: 'POST' | 'PUT', words = '') {
    [writes, text] = [{ id, as }, words];
  }
  async function send(e: SubmitEvent) {
    e.preventDefault();
    if (writes && (await does(writes.id, writes.as, { text }))) [writes, text] = [undefined, ''];
  }
</script>

{#snippet words(c: Comment)}
  <b>{c.by}:</b>
  {c.text}{#if c.changedAt}<small class="text-soft">&nbsp;{say('(changed)')}</small>{/if}
{/snippet}
{#snippet mine(c: Comment)}{#if c.mine}<Menu label={say('What to do with this remark')}>
      <MenuItem onclick={() => write(c.id, 'PUT', c.text)}>{say('Change it')}</MenuItem>
      <MenuItem onclick={() => does(c.id, 'DELETE')}>{say('Take it out')}</MenuItem>
    </Menu>{/if}{/snippet}
{#snippet field(id: number)}{#if writes?.id === id}<form class="flex items-center gap-2 py-1" onsubmit={send}>
      <Field
        class="flex-1"
        bind:value={text}
        maxlength={600}
        aria-label={writes.as === 'POST' ? say('Answer') : say('Comment')}
      />
      <Button size="sm" look="go" type="submit" disabled={!text.trim()}>{say('Say it')}</Button>
      <Button size="sm" onclick={() => (writes = undefined)}>{say('Leave it')}</Button>
    </form>{/if}{/snippet}

{#if heads.length}<div class="max-h-36 shrink-0 overflow-auto border-b border-rule bg-card">
    <ul data-testid="comments">
      {#each shown as c (c.id)}<li
          class="px-3.5 py-1"
          onpointerenter={() => points(c.block ?? undefined)}
          onpointerleave={() => points(undefined)}
        >
          <div class="flex items-center gap-2 {c.doneAt === null ? '' : 'text-soft'}">
            <MessageSquare size={15} class="shrink-0 text-water" />
            <span class="min-w-0 flex-1"
              >{@render words(c)}{#if c.block && names.has(c.block)}<span class="ml-2 text-soft"
                  >{names.get(c.block)}</span
                >{/if}</span
            >
            {#if c.block && names.has(c.block)}<Button size="sm" onclick={() => see(c.block!)}
                >{say('Show the block')}</Button
              >{/if}
            <Button size="sm" onclick={() => write(c.id, 'POST')}>{say('Answer')}</Button>
            {#if isPupil}<Button size="sm" onclick={() => does(c.id, 'PATCH', { done: c.doneAt === null })}
                >{c.doneAt === null ? say('Done') : say('Not done yet')}</Button
              >{:else if c.doneAt !== null}<small class="text-moss">{say('done')}</small>{/if}
            {@render mine(c)}
          </div>
          {#each answersTo(c.id) as answer (answer.id)}<div class="flex items-center gap-2 pl-6">
              <span class="min-w-0 flex-1">{@render words(answer)}</span>{@render mine(answer)}
            </div>
            {@render field(answer.id)}{/each}
          {@render field(c.id)}
        </li>{/each}
    </ul>
    {#if done.length}<Button
        look="quiet"
        size="sm"
        class="mx-2.5 my-1"
        aria-expanded={showsDone}
        onclick={() => (showsDone = !showsDone)}
        >{showsDone
          ? say('Hide what is done')
          : say('{n, plural, one {# remark is done} other {# remarks are done}}', { n: done.length })}</Button
      >{/if}
  </div>{/if}
