<!-- A lesson on paper: with room for answers; the teacher's copy has the answers, what the programs do, and the notes. A4. -->
<script lang="ts">
  import { onMount, untrack } from 'svelte';
  import { toldIn } from '../../../../../core/errand/task.ts';
  import { say } from '../../../../../core/words.ts';
  import { readable, untitled } from '$lib/lesson/fetched.ts';
  import Program from '$lib/lesson/Program.svelte';
  import Prose from '$lib/lesson/Prose.svelte';
  import Went from '$lib/lesson/Went.svelte';
  import { LessonRoom, provideRoom } from '$lib/lesson/room.svelte.ts';
  import Button from '$lib/ui/Button.svelte';
  import DeviceShape from '$lib/ui/DeviceShape.svelte';
  import MatShape from '$lib/workbench/yard/MatShape.svelte';
  import { hasWheels } from '../../../../../core/kit/kit.ts';
  let { data } = $props();
  const room = provideRoom(untrack(() => new LessonRoom(data.lesson)));
  const page = $derived(readable(data.lesson));
  const title = $derived(page.title || untitled());
  onMount(() => {
    void room.look();
    return () => room.close();
  });
  const which = (on: boolean) => (on ? 'bg-card font-semibold text-ink' : '');
  const projectOf = (name: string) => data.lesson.programs[name];
</script>

<svelte:head><title>{say('{title} · to print', { title })}</title></svelte:head>
<nav
  aria-label={say('Lesson to print')}
  class="no-print flex flex-wrap items-center gap-x-3 gap-y-1 border-b border-rule bg-linen px-4 py-2"
>
  <Button href="/lesson/{data.lesson.id}">{say('Back to the lesson')}</Button>
  <Button
    href="/lesson/{data.lesson.id}/print"
    aria-current={data.teacher ? undefined : 'page'}
    look="quiet"
    class={which(!data.teacher)}>{say('for pupils')}</Button
  >
  <Button
    href="/lesson/{data.lesson.id}/print?teacher"
    aria-current={data.teacher ? 'page' : undefined}
    look="quiet"
    class={which(data.teacher)}>{say("the teacher's copy")}</Button
  >
  <span class="flex-1"></span>
  <Button look="go" onclick={() => window.print()}>{say('Print')}</Button>
</nav>

{#snippet lines(n: number)}{#each { length: n } as _, i (i)}<p class="line">&nbsp;</p>{/each}{/snippet}
{#snippet went(name: string)}
  {#if data.teacher}{#await room.run(projectOf(name)) then ran}<Went
        project={projectOf(name)}
        {ran}
        still
      />{/await}{/if}
{/snippet}

<main class="sheet paper" data-testid="lesson-sheet">
  <header class="flex items-end justify-between border-b-2 border-black pb-1">
    <h1 class="font-display text-[24px]">{title}</h1>
    <p>{data.teacher ? say("Teacher's copy") : say('Nickname: ______________________ Date: ____________')}</p>
  </header>
  {#each page.steps as step, n (n)}
    <section>
      {#if step.title}<h2>{n}. {step.title}</h2>{/if}
      {#each step.parts as part, i (i)}
        {#if 'words' in part}<Prose markdown={part.words} />
        {:else if part.kind === 'teacher'}<div class="note" data-testid="teacher">
            <b>{say("Teacher's notes")}</b><Prose markdown={part.markdown} />
          </div>
        {:else if part.kind === 'objective'}<div class="note"><Prose markdown={part.markdown} /></div>
        {:else if part.kind === 'errand'}
          {@const errand = room.errands?.find((e) => e.id === part.names[0])}
          <div class="note">
            <b>{say('Errand')}: {errand ? toldIn(errand.name) : part.names[0]}</b>
            {#if errand}<p>{toldIn(errand.story)}</p>{/if}
            <Prose markdown={part.markdown} />
            {#if !data.teacher}<p>{say('Tries: ______ The bell rang: ☐')}</p>{/if}
          </div>
        {:else}
          <div class="piece">
            <Prose markdown={part.markdown} />
            <div class="grid gap-4" style="grid-template-columns: repeat({Math.min(2, part.names.length) || 1}, 1fr)">
              {#each part.names as name (name)}<div>
                  <Program project={projectOf(name)} printed />
                  {@render went(name)}
                </div>{/each}
            </div>
            {#if part.kind === 'question'}
              {#each part.answers as answer, k (k)}<div class="flex gap-2">
                  <span>{data.teacher && answer.right ? '☒' : '☐'}</span><Prose
                    markdown={answer.text}
                    class="mb-inline"
                  />
                </div>{:else}{@render lines(3)}{/each}
            {:else if part.kind === 'place' && !data.teacher && hasWheels(projectOf(part.names[0]).kit)}
              {@const { mat, kit, start = mat.start } = projectOf(part.names[0])}
              <svg
                viewBox="-1 -1 {mat.width * 100 + 2} {mat.height * 100 + 2}"
                class="mat"
                role="img"
                aria-label={say('The mat from above')}
                ><MatShape {mat} />
                <g
                  transform="translate({start.x * 100} {(mat.height - start.y) * 100}) rotate({start.facingDeg -
                    90}) scale(0.1)"><DeviceShape {kit} /></g
                ></svg
              >
              <p>{say('Mark the place with a cross.')}</p>
            {:else if (part.kind === 'misconception' || part.kind === 'ways') && !data.teacher}
              <p>{say('What does each of them do?')}</p>
              {@render lines(2)}
            {/if}
          </div>
        {/if}
      {/each}
    </section>
  {/each}
</main>

<style>
  .sheet {
    width: 190mm;
    max-width: 100%;
    box-sizing: border-box;
    margin: 0 auto;
    padding: 8mm 6mm;
    background: #fff;
    color: #111;
    font-size: 11pt;
  }
  h2 {
    margin: 6mm 0 1.5mm;
    font-size: 13pt;
    font-weight: 700;
    break-after: avoid;
  }
  /* ink on paper, whatever the screen is */
  .sheet :global(.text-soft) {
    color: #444;
  }
  .note {
    margin: 2mm 0;
    border: 0.3mm solid #555;
    padding: 1.5mm 3mm;
    break-inside: avoid;
  }
  .piece {
    margin: 3mm 0;
    break-inside: avoid;
  }
  .line {
    border-bottom: 0.3mm solid #999;
    height: 8mm;
  }
  .mat {
    width: 120mm;
    border: 0.2mm solid #888;
  }
  @media print {
    .no-print {
      display: none;
    }
    .sheet {
      width: auto;
      padding: 0;
    }
  }
  @page {
    size: A4;
    margin: 12mm;
  }
</style>
