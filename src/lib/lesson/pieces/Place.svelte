<!-- Where will it stop? A place on the mat is pointed at, with the pointer or with the arrows; then the run decides. -->
<script lang="ts">
  import { hasWheels } from '../../../../core/kit/kit.ts';
  import type { Piece } from '../../../../core/lesson/page.ts';
  import { stateAt } from '../../../../core/trace/query.ts';
  import { endUs } from '../../../../core/trace/trace.ts';
  import { say } from '../../../../core/words.ts';
  import Button from '../../ui/Button.svelte';
  import Remark from '../../ui/Remark.svelte';
  import PlaceMark from '../../ui/PlaceMark.svelte';
  import Pointing from '../../ui/Pointing.svelte';
  import Program from '../Program.svelte';
  import Prose from '../Prose.svelte';
  import Went from '../Went.svelte';
  import { useRoom, type Ran } from '../room.svelte.ts';
  let { piece }: { piece: Piece } = $props();
  const room = useRoom();
  const project = $derived(room.lesson.programs[piece.names[0]]);
  const mat = $derived(project.mat);
  const answer = $derived(room.answers[piece.key]);
  const given = $derived(answer && 'x' in answer ? answer : undefined);
  let put = $state.raw<{ x: number; y: number }>();
  let ran = $state.raw<Ran>();
  $effect(() => {
    if (given) void room.run(project).then((r) => (ran = r));
  });
  const off = $derived.by(() => {
    if (!ran || !given) return undefined;
    const { x, y } = stateAt(ran.trace, endUs(ran.trace));
    return (Math.hypot(x - given.x, y - given.y) * 100).toFixed(1);
  });
</script>

{#snippet guess()}
  {#if given}<PlaceMark {mat} at={given} />{/if}
{/snippet}

<section class="rounded-lg border-l-4 border-brass bg-paper px-4 py-3" data-testid="place">
  <Prose markdown={piece.markdown} />
  <div class="my-2"><Program {project} runs={false} /></div>
  {#if !hasWheels(project.kit)}<Remark>{say('This device does not drive: it stops nowhere.')}</Remark>
  {:else if given && ran}
    <Went {project} {ran} over={guess} />
    <Remark tone="calm" role="status">{say('It stopped {off} cm from where you said.', { off: off ?? '' })}</Remark>
  {:else}
    <Pointing {project} bind:put />
    <Button class="mt-2" look="go" disabled={!put} onclick={() => put && room.answer(piece.key, put)}
      >{say('That is my guess')}</Button
    >
  {/if}
</section>
