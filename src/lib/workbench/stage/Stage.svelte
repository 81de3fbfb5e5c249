<!-- For a room: a pointer that all see, the caption of the story, and the way back. -->
<script lang="ts">
  import Button from '../../ui/Button.svelte';
  import { say } from '../../../../core/words.ts';
  import { lineOf, sentences } from '../sentences.ts';
  import { useWorkbench } from '../workbench.svelte.ts';
  const w = useWorkbench();
  let at = $state.raw<{ x: number; y: number }>();
  const caption = $derived(w.story && w.story.at >= 0 ? w.found[w.story.at] : undefined);
  const names = $derived(sentences(w.runs.run?.project ?? w.session.project));
  const seconds = $derived((w.runs.playheadUs / 1e6).toFixed(2));
  // the story is over when the trace has been played to its end
  $effect(() => {
    if (w.story && !w.runs.playing) {
      const due = setTimeout(() => !w.runs.playing && (w.story = undefined), 2500);
      return () => clearTimeout(due);
    }
  });
</script>

<svelte:window
  onpointermove={(e) => (at = { x: e.clientX, y: e.clientY })}
  onkeydown={(e) => {
    if (e.key !== 'Escape') return;
    if (w.story) {
      w.runs.halt();
      w.story = undefined;
    } else w.stage = undefined;
  }}
/>
{#if w.stage && at}<div
    class="pointer-events-none fixed z-[70] h-14 w-14 -translate-1/2 rounded-full border-[5px] border-brass bg-brass/15"
    style="left: {at.x}px; top: {at.y}px"
    aria-hidden="true"
    data-testid="pointer"
  ></div>{/if}
{#if w.story}
  <div
    class="fixed bottom-[34%] left-1/2 z-[60] w-[min(820px,90vw)] -translate-x-1/2 rounded-2xl border border-rule bg-card/95 px-6 py-4 text-center shadow-xl"
    role="status"
    data-testid="caption"
  >
    {#if caption}
      <p class="text-[21px] leading-snug font-semibold">{caption.says}</p>
      {#if caption.blocks[0]}<p class="text-[16px] text-soft">
          {names.get(caption.blocks[0]) ?? lineOf(caption.blocks[0])}
        </p>{/if}
      <p class="text-[16px]">{caption.todo}</p>
    {:else}<p class="text-[18px] text-soft">{w.session.project.name} · {seconds} s</p>{/if}
    <Button
      look="quiet"
      class="mt-1 underline"
      onclick={() => {
        w.runs.halt();
        w.story = undefined;
      }}>{say('End the story')}</Button
    >
  </div>
{/if}
{#if w.stage}<Button class="fixed right-4 bottom-4 z-[60] shadow-lg" onclick={() => (w.stage = undefined)}
    >{say('Back to the workbench')} (Esc)</Button
  >{/if}
