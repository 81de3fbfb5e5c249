<!-- Which programs, or which errand, a new piece names: those of the lesson, and those of the shelf, which come in as copies. -->
<script lang="ts">
  import { toldIn } from '../../../core/errand/task.ts';
  import { pieceDef, type PieceKind } from '../../../core/lesson/pieces.ts';
  import type { Project } from '../../../core/project.ts';
  import { say, word } from '../../../core/words.ts';
  import Button from '../ui/Button.svelte';
  import Choice from '../ui/Choice.svelte';
  import Dialog from '../ui/Dialog.svelte';
  import { allProjects, type Named } from '../shelf/all.ts';
  import type { ErrandCard } from '../shelf/errands.ts';
  import { slugOf } from '../shelf/slug.ts';
  import type { Draft } from './draft.svelte.ts';
  let { draft, errands }: { draft: Draft; errands: readonly ErrandCard[] } = $props();
  let open = $state(false);
  let kind = $state<PieceKind>('program');
  let chosen = $state<string[]>([]);
  let shelf = $state.raw<Named[]>([]);
  let trouble = $state('');
  let done: ((names: string[] | undefined) => void) | undefined;
  const wants = $derived(pieceDef(kind).names);
  const OF_SHELF = 'shelf:';

  /** @returns what was chosen; undefined where the person thinks better of it */
  export async function ask(of: PieceKind): Promise<string[] | undefined> {
    kind = of;
    trouble = '';
    chosen = Array.from({ length: Math.max(1, pieceDef(of).names!.least) }, () => '');
    open = true;
    if (wants?.of === 'program' && !shelf.length) void allProjects().then((list) => (shelf = list));
    return new Promise((resolve) => (done = resolve));
  }
  function close(names: string[] | undefined) {
    open = false;
    done?.(names);
    done = undefined;
  }
  $effect(() => {
    if (!open) close(undefined);
  });
  const enough = $derived(!!wants && chosen.filter(Boolean).length >= wants.least);
  async function take() {
    const names: string[] = [];
    for (const name of chosen.filter(Boolean)) {
      if (!name.startsWith(OF_SHELF)) {
        names.push(name);
        continue;
      }
      const answer = await fetch(`/api/projects/${name.slice(OF_SHELF.length)}`).catch(() => undefined);
      if (!answer?.ok) {
        trouble = say('This project could not be fetched from the shelf.');
        return;
      }
      const { project } = (await answer.json()) as { project: Project };
      const { errand: _, hintsOpened: __, tracks: ___, ...plain } = project;
      names.push(draft.put(slugOf(project.name), plain));
    }
    close(names);
  }
</script>

<Dialog bind:open title={word(pieceDef(kind).label)} size="xs">
  <form
    class="flex flex-col gap-3"
    onsubmit={(e) => {
      e.preventDefault();
      void take();
    }}
  >
    <p class="text-soft">{word(pieceDef(kind).line)}</p>
    {#each chosen as _, i (i)}
      <Choice
        bind:value={chosen[i]}
        aria-label={wants?.of === 'errand'
          ? say('Which errand?')
          : kind === 'misconception'
            ? i
              ? say('The program that does it')
              : say('The program that does not')
            : say('Which program?')}
      >
        <option value=""
          >{kind === 'misconception' ? (i ? say('does it') : say('does not do it')) : say('choose one')}</option
        >
        {#if wants?.of === 'errand'}
          {#each errands as e (e.id)}<option value={e.id}>{toldIn(e.name)}</option>{/each}
        {:else}
          <optgroup label={say('In this lesson')}>
            {#each Object.entries(draft.lesson.programs) as [name, p] (name)}<option value={name}>{p.name}</option
              >{/each}
          </optgroup>
          <optgroup label={say('From the shelf, as a copy')}>
            {#each shelf as p (p.id)}<option value="{OF_SHELF}{p.id}">{p.name}</option>{/each}
          </optgroup>
        {/if}
      </Choice>
    {/each}
    {#if wants && chosen.length < wants.most}<Button
        look="quiet"
        class="self-start underline"
        onclick={() => (chosen = [...chosen, ''])}>{say('One more')}</Button
      >{/if}
    {#if trouble}<p class="text-clay" role="alert">{trouble}</p>{/if}
    <div class="flex justify-end gap-2">
      <Button onclick={() => close(undefined)}>{say('Leave it')}</Button><Button
        type="submit"
        look="go"
        disabled={!enough}>{say('Put it in')}</Button
      >
    </div>
  </form>
</Dialog>
