<!-- One step of a lesson as it is read on the screen: its words and its pieces. -->
<script lang="ts">
  import type { Part } from '../../../core/lesson/page.ts';
  import { say } from '../../../core/words.ts';
  import Program from './Program.svelte';
  import Prose from './Prose.svelte';
  import Errand from './pieces/Errand.svelte';
  import Place from './pieces/Place.svelte';
  import Question from './pieces/Question.svelte';
  import Ways from './pieces/Ways.svelte';
  import { useRoom } from './room.svelte.ts';
  let { parts }: { parts: readonly Part[] } = $props();
  const room = useRoom();
</script>

{#each parts as part, i ('key' in part ? `${i} ${part.key}` : i)}
  {#if 'words' in part}<Prose markdown={part.words} />
  {:else if part.kind === 'objective' || part.kind === 'teacher'}
    <section
      class="rounded-lg px-4 py-3 {part.kind === 'teacher'
        ? 'border border-dashed border-clay bg-card'
        : 'bg-[var(--mosswash)]'}"
      data-testid={part.kind}
    >
      <b>{part.kind === 'teacher' ? say("Teacher's notes") : say('What it is about')}</b>
      <Prose markdown={part.markdown} />
    </section>
  {:else if part.kind === 'program'}
    <Prose markdown={part.markdown} />
    <Program project={room.lesson.programs[part.names[0]]} />
  {:else if part.kind === 'question'}<Question piece={part} />
  {:else if part.kind === 'place'}<Place piece={part} />
  {:else if part.kind === 'errand'}<Errand piece={part} />
  {:else}<Ways piece={part} />{/if}
{/each}
