<!-- The versions of a project, newest first, each with its picture: looked at as a project of its own, or taken back. -->
<script lang="ts">
  import Remark from '../ui/Remark.svelte';
  import Card from '../ui/Card.svelte';
  import Button from '../ui/Button.svelte';
  import type { Project } from '../../../core/project.ts';
  import { partName } from '../../../core/kit/kit.ts';
  import { sentence } from '../../../core/language/catalogue.ts';
  import type { Difference } from '../../../core/language/differ.ts';
  import type { Step } from '../../../core/language/program.ts';
  import { clockIn, later, say, word } from '../../../core/words.ts';
  import { silent } from '../ui/silent.ts';
  import type { VersionCard } from '../shelf/cards.ts';
  import { createOnServer } from '../shelf/files.ts';
  import Thumb from '../shelf/Thumb.svelte';
  import Dialog from '../ui/Dialog.svelte';
  import type { Session } from './session.svelte.ts';
  let { session, open = $bindable(false) }: { session: Session; open: boolean } = $props();
  const PAGE = 24;
  let list = $state.raw<VersionCard[]>([]);
  let more = $state(false);
  let problem = $state('');
  async function load(before?: number) {
    try {
      const answer = await fetch(`/api/projects/${session.id}/versions${before ? `?before=${before}` : ''}`);
      const page = (await answer.json()) as VersionCard[];
      list = before ? [...list, ...page] : page;
      more = page.length === PAGE;
    } catch {
      problem = silent();
    }
  }
  $effect(() => {
    if (!open) return;
    problem = '';
    compared = undefined;
    void load();
  });
  async function version(id: number): Promise<Project | undefined> {
    problem = '';
    try {
      const answer = await fetch(`/api/projects/${session.id}/versions/${id}`);
      const value = await answer.json();
      if (answer.ok) return value as Project;
      problem = (value as { message: string }).message;
    } catch {
      problem = silent();
    }
    return undefined;
  }
  /** what has changed since a version, block by block */
  let compared = $state.raw<{ at: number; list: Difference[] }>();
  const WHAT = { gone: later('gone'), new: later('new'), changed: later('changed'), moved: later('moved') } as const;
  async function compare(card: VersionCard) {
    const was = await version(card.id);
    if (!was) return;
    const { differences } = await import('../../../core/language/differ.ts');
    compared = { at: card.at, list: differences(was.program, session.project.program) };
  }
  /** in words, with the names of the version that the block is of */
  const says = (step: Step): string =>
    sentence(step, session.project.program, (socket) => partName(session.project.kit, socket));
  const when = (at: number) => new Date(at).toLocaleString(clockIn(), { dateStyle: 'short', timeStyle: 'medium' });
  async function takeBack(card: VersionCard) {
    const project = await version(card.id);
    if (!project) return;
    session.change(say('take back the version of {when}', { when: when(card.at) }), project);
    open = false;
  }
  async function look(card: VersionCard) {
    const project = await version(card.id);
    if (!project) return;
    const name = say('{name} of {when}', { name: project.name.slice(0, 50), when: when(card.at) }).slice(0, 80);
    const made = await createOnServer({ ...project, name });
    if (!made.ok) problem = made.problem;
    // the workbench of another project is another page
    else location.assign(`/project/${made.id}`);
  }
</script>

<Dialog bind:open title={say('Versions of this project')} size="md">
  <p class="text-soft">
    {say(
      'Each save is a version; older ones are thinned out. Taking one back is a change like any other: it can be undone.'
    )}
  </p>
  {#if problem}<Remark look="line">{problem}</Remark>{/if}
  <ol class="grid max-h-[56vh] grid-cols-2 gap-3 overflow-auto" data-testid="versions">
    {#each list as card, i (card.id)}
      <li>
        <Card>
          <Thumb bars={card.bars} />
          <div class="px-2.5 py-1.5 text-[13px] leading-snug">
            <b class="block truncate">{i === 0 ? say('{name}, the newest', { name: card.name }) : card.name}</b>
            <span class="text-soft tabular-nums"
              >{when(card.at)} · {say('{n, plural, one {# block} other {# blocks}}', { n: card.blocks })}</span
            >
            <div class="flex gap-1">
              {#if i > 0}<Button look="quiet" class="underline" onclick={() => takeBack(card)}
                  >{say('Take back')}</Button
                >{/if}
              <Button look="quiet" class="underline" onclick={() => look(card)}>{say('Open as a copy')}</Button>
              {#if i > 0}<Button look="quiet" class="underline" onclick={() => compare(card)}
                  >{say('What differs')}</Button
                >{/if}
            </div>
          </div></Card
        >
      </li>
    {/each}
  </ol>
  {#if compared}<section class="rounded-md border border-rule p-2.5" aria-live="polite" data-testid="differences">
      <b>{say('From {when} to now', { when: when(compared.at) })}</b>
      {#if !compared.list.length}<p class="text-soft">{say('The blocks are the same.')}</p>{/if}
      <ul class="max-h-[24vh] overflow-auto text-[13.5px]">
        {#each compared.list as d, i (i)}<li class="flex gap-2 border-t border-rule py-0.5">
            <b class="w-20 shrink-0 {d.what === 'gone' ? 'text-clay' : 'text-moss'}">{word(WHAT[d.what])}</b>
            <span class="min-w-0 flex-1"
              >{#if d.was && d.what !== 'moved'}<span class={d.is ? 'text-soft line-through' : ''}>{says(d.was)}</span
                >{/if}{#if d.is}
                {says(d.is)}{/if}</span
            >
          </li>{/each}
      </ul>
    </section>{/if}
  <div class="flex justify-end gap-2">
    {#if more}<Button onclick={() => load(list.at(-1)!.id)}>{say('Older ones')}</Button>{/if}
    <Button look="go" onclick={() => (open = false)}>{say('Close')}</Button>
  </div>
</Dialog>
