<!-- What the program reads aloud: a caption always, wherever else the face is, and a voice where the computer has one. -->
<script lang="ts">
  import { say } from '../../../../core/words.ts';
  import { eventsOf, lastBy } from '../../../../core/trace/apart.ts';
  import { useWorkbench } from '../workbench.svelte.ts';
  const w = useWorkbench();
  /** so long a caption stays, µs */
  const STAYS = 6e6;
  const caption = $derived.by(() => {
    const run = w.runs.run;
    if (!run || run.version < 0) return undefined;
    const newest = lastBy(eventsOf(run.trace, 'speech'), w.runs.playheadUs);
    return newest && newest.tUs > w.runs.playheadUs - STAYS ? newest : undefined;
  });
  let said: unknown;
  $effect(() => {
    const live = w.runs.state === 'running' && w.runs.scrubUs === undefined && !w.muted;
    if (!live || !caption || caption === said) return;
    said = caption;
    window.speechSynthesis?.speak(new SpeechSynthesisUtterance(caption.text));
  });
</script>

{#if caption}<p
    class="border-t border-rule bg-card px-3 py-1 text-[13px]"
    data-testid="caption"
    aria-label={say('Read aloud')}
    role="status"
  >
    {caption.text}
  </p>{/if}
