<!-- A question: an answer is chosen or written and kept; then what is right is told, and the program shows it. -->
<script lang="ts">
  import type { Piece } from '../../../../core/lesson/page.ts';
  import { say } from '../../../../core/words.ts';
  import Button from '../../ui/Button.svelte';
  import Lines from '../../ui/Lines.svelte';
  import OneOf from '../../ui/OneOf.svelte';
  import Remark from '../../ui/Remark.svelte';
  import Program from '../Program.svelte';
  import Prose from '../Prose.svelte';
  import { useRoom } from '../room.svelte.ts';
  let { piece }: { piece: Piece } = $props();
  const room = useRoom();
  const project = $derived(room.lesson.programs[piece.names[0]]);
  const given = $derived(room.answers[piece.key]);
  const chosen = $derived(given && 'chose' in given ? given.chose : undefined);
  let picks = $state<number>();
  let text = $state('');
  $effect(() => {
    if (given && 'wrote' in given) text = given.wrote;
  });
</script>

<section class="rounded-lg border-l-4 border-brass bg-paper px-4 py-3" data-testid="question">
  <Prose markdown={piece.markdown} />
  {#if piece.answers.length}
    <div role="radiogroup" aria-label={piece.markdown} class="my-2 flex flex-col gap-1.5">
      {#each piece.answers as answer, i (i)}
        {#if chosen === undefined}<OneOf bind:group={picks} value={i} name={piece.key}
            ><Prose markdown={answer.text} class="mb-inline" /></OneOf
          >
        {:else}<div
            class="flex items-center gap-2 {answer.right
              ? 'font-semibold text-moss'
              : chosen === i
                ? 'text-clay'
                : 'text-soft'}"
          >
            <span aria-hidden="true">{answer.right ? '✓' : chosen === i ? '✗' : '·'}</span><Prose
              markdown={answer.text}
              class="mb-inline"
            />{#if chosen === i}<span class="font-normal">({say('your answer')})</span>{/if}
          </div>{/if}
      {/each}
    </div>
    {#if chosen === undefined}
      <Button
        look="go"
        disabled={picks === undefined}
        onclick={() => picks !== undefined && room.answer(piece.key, { chose: picks })}
        >{say('That is my answer')}</Button
      >
    {:else}<Remark tone={piece.answers[chosen]?.right ? 'moss' : 'calm'} role="status"
        >{piece.answers[chosen]?.right
          ? say('So it is.')
          : project
            ? say('It is otherwise. Rehearse the program and see.')
            : say('It is otherwise.')}</Remark
      >{/if}
  {:else}
    <Lines class="my-2 h-20" bind:value={text} aria-label={piece.markdown} />
    <Button
      look={given ? 'plain' : 'go'}
      disabled={!text.trim() || (given && 'wrote' in given && given.wrote === text.trim())}
      onclick={() => room.answer(piece.key, { wrote: text.trim() })}
      >{given ? say('Change my answer') : say('That is my answer')}</Button
    >
  {/if}
  {#if project}<div class="mt-3"><Program {project} runs={given !== undefined} /></div>{/if}
</section>
