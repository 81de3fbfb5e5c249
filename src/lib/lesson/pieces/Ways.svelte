<!-- Programs beside one another: a wrong one and the right one, or several ways to the same; rehearsed all at once. -->
<script lang="ts">
  import { countBlocks } from '../../../../core/errand/goals/built.ts';
  import type { Piece } from '../../../../core/lesson/page.ts';
  import type { Sameness } from '../../../../core/trace/same.ts';
  import { say } from '../../../../core/words.ts';
  import Button from '../../ui/Button.svelte';
  import Program from '../Program.svelte';
  import Prose from '../Prose.svelte';
  import Went from '../Went.svelte';
  import { useRoom, type Ran } from '../room.svelte.ts';
  let { piece, printed = false }: { piece: Piece; printed?: boolean } = $props();
  const room = useRoom();
  const wrong = $derived(piece.kind === 'misconception');
  const projects = $derived(piece.names.map((name) => room.lesson.programs[name]));
  let ran = $state.raw<Ran[]>([]);
  let same = $state.raw<Sameness[]>([]);
  let busy = $state(false);
  async function rehearse() {
    busy = true;
    ran = await Promise.all(projects.map((p) => room.run(p)));
    same = wrong ? [] : await Promise.all(projects.slice(1).map((p) => room.same(projects[0], p)));
    busy = false;
  }
</script>

<section class="rounded-lg border border-rule bg-card px-4 py-3" data-testid={piece.kind}>
  <Prose markdown={piece.markdown} />
  <div class="my-2 grid gap-4 grid-cols-[repeat(auto-fit,minmax(280px,1fr))]">
    {#each projects as project, i (i)}
      <div class="flex min-w-0 flex-col gap-1.5">
        {#if wrong}<b class={i ? 'text-moss' : 'text-clay'}>{i ? say('does it') : say('does not do it')}</b>
        {:else}<span class="text-soft"
            >{say('{n, plural, one {# block} other {# blocks}}', { n: countBlocks(project.program) })}</span
          >{/if}
        <Program {project} {printed} runs={false} />
        {#if ran[i]}<Went {project} ran={ran[i]} still={printed} />{/if}
        {#if i && same[i - 1]}{@const one = same[i - 1]}
          <p class={one.same ? 'text-moss' : 'text-clay'} role="status">
            {one.same
              ? say('does the same as the first')
              : say('parts from the first at {s} s: {says}', { s: (one.atUs / 1e6).toFixed(2), says: one.says })}
          </p>{/if}
      </div>
    {/each}
  </div>
  {#if !printed}<Button look="go" disabled={busy} onclick={rehearse}
      >{busy ? say('Rehearsing ...') : wrong ? say('Rehearse both') : say('Rehearse all')}</Button
    >{/if}
</section>
