<!-- Predict together: everyone marks where it will stop, then one run decides, and the spread is drawn. -->
<script lang="ts">
  import { invalidateAll } from '$app/navigation';
  import { onMount, untrack } from 'svelte';
  import { spread } from '../../../../core/class/spread.ts';
  import { stateAt } from '../../../../core/trace/query.ts';
  import { endUs } from '../../../../core/trace/trace.ts';
  import { say } from '../../../../core/words.ts';
  import { ask } from '$lib/class/ask.ts';
  import { listen } from '$lib/class/live.ts';
  import Me from '$lib/class/Me.svelte';
  import Program from '$lib/lesson/Program.svelte';
  import { LessonRoom, provideRoom, type Ran } from '$lib/lesson/room.svelte.ts';
  import Went from '$lib/lesson/Went.svelte';
  import Button from '$lib/ui/Button.svelte';
  import Path from '$lib/ui/Path.svelte';
  import Pointing from '$lib/ui/Pointing.svelte';
  import Remark from '$lib/ui/Remark.svelte';
  import ThemeButton from '$lib/ui/ThemeButton.svelte';
  import TopBar from '$lib/ui/TopBar.svelte';
  let { data } = $props();
  const round = $derived(data.round);
  // the run is made of what was opened first: a new guess changes nothing about it
  const project = untrack(() => data.round.project);
  const { mat } = project;
  const room = provideRoom(untrack(() => new LessonRoom(undefined as never)));
  const teaches = $derived(data.me.role === 'teacher');
  let put = $state.raw<{ x: number; y: number } | undefined>(untrack(() => data.round.mine));
  let problem = $state('');
  let busy = $state(false);
  let ran = $state.raw<Ran>();
  onMount(() => {
    const off = listen<object>(`/api/rounds/${round.id}/live`, () => void invalidateAll());
    return () => {
      off();
      room.close();
    };
  });
  $effect(() => {
    if (round.stop && !ran) void room.run(project).then((r) => (ran = r));
  });
  async function guess() {
    const answer = await ask(`/api/rounds/${round.id}`, 'PUT', put);
    problem = answer.ok ? '' : answer.problem;
    await invalidateAll();
  }
  async function decide() {
    busy = true;
    const { trace } = await room.run(project);
    const { x, y } = stateAt(trace, endUs(trace));
    const answer = await ask(`/api/rounds/${round.id}`, 'POST', { x, y });
    problem = answer.ok ? '' : answer.problem;
    busy = false;
    await invalidateAll();
  }
  const said = $derived(round.guesses ? spread(round.guesses, round.stop) : undefined);
  const off = $derived(
    round.mine && round.stop ? Math.hypot(round.mine.x - round.stop.x, round.mine.y - round.stop.y) * 100 : undefined
  );
  const sent = $derived(round.mine && put && round.mine.x === put.x && round.mine.y === put.y);
</script>

<svelte:head><title>{say('Where will it stop? · Moss Bell')}</title></svelte:head>
{#snippet guesses()}
  {#each round.guesses ?? [] as g, i (i)}<circle
      cx={g.x * 100}
      cy={(mat.height - g.y) * 100}
      r="1.5"
      fill="#1f7a8c"
      fill-opacity="0.75"
      stroke="#fff"
      stroke-width="0.3"
      data-testid="guess"
    />{/each}
  {#if said?.half}<ellipse
      transform="translate({said.middle.x * 100} {(mat.height - said.middle.y) * 100}) rotate({-said.half.turnedDeg})"
      rx={said.half.a * 100}
      ry={said.half.b * 100}
      fill="none"
      stroke="#1f7a8c"
      stroke-width="0.6"
      stroke-dasharray="2 1.4"
      data-testid="spread"
    />{/if}
  {#if round.mine}<circle
      cx={round.mine.x * 100}
      cy={(mat.height - round.mine.y) * 100}
      r="2.6"
      fill="none"
      stroke="#1f2a25"
      stroke-width="0.7"
    />{/if}
{/snippet}
<div class="flex h-full flex-col">
  <TopBar>
    {#snippet name()}<Path
        steps={[
          teaches ? { name: say('Class'), href: `/class/${round.classId}` } : { name: say('Shelf'), href: '/' },
          { name: say('Where will it stop?') }
        ]}
      />{/snippet}
    <span class="flex-1"></span>
    <span class="text-[14px] text-[#c9d2c4] tabular-nums" data-testid="guessed"
      >{say('{n} of {of} have guessed', { n: round.guessed, of: round.of })}</span
    >
    <Me />
    <ThemeButton />
  </TopBar>
  <main class="flex-1 overflow-auto px-6 py-5">
    <div class="mx-auto grid max-w-[1200px] grid-cols-[minmax(0,2fr)_minmax(0,3fr)] gap-6 max-[900px]:grid-cols-1">
      <Program {project} runs={false} />
      <div class="flex flex-col gap-3">
        {#if problem}<Remark>{problem}</Remark>{/if}
        {#if round.stop && ran}
          <Went {project} {ran} over={guesses} />
          {#if said?.offCm}<Remark tone="calm" role="status"
              >{say('Half of {n} guesses were within {half} cm; the nearest was {best} cm off.', {
                n: said.n,
                half: said.offCm.median.toFixed(0),
                best: said.offCm.nearest.toFixed(1)
              })}
              {off === undefined ? '' : say('Yours was {cm} cm off.', { cm: off.toFixed(1) })}</Remark
            >
            <p class="text-[13px] text-soft">
              {say(
                'Each dot is a guess. The dashed line shows how they scatter: of very many like these, half would lie within it.'
              )}
            </p>{:else}<Remark tone="calm" role="status">{say('Nobody had guessed.')}</Remark>{/if}
        {:else if round.stop}<p class="text-soft">{say('It runs ...')}</p>
        {:else if teaches}
          <p class="font-display text-[22px]">{say('Everyone marks the place where it will stop.')}</p>
          <p class="text-soft">{say('What was guessed is seen once it has run, and not whose it was.')}</p>
          <Button look="go" class="self-start" disabled={busy} onclick={decide}>{say('Let it run')}</Button>
        {:else}
          <p>{say('Read the program. Where will it stop? Point at the place on the mat.')}</p>
          <Pointing {project} bind:put />
          <div class="flex items-center gap-3">
            <Button look="go" disabled={!put || sent} onclick={guess}
              >{round.mine ? say('Change my guess') : say('That is my guess')}</Button
            >
            {#if sent}<span class="text-moss" role="status"
                >{say('Your guess is there. Now it is the run’s turn.')}</span
              >{/if}
          </div>
        {/if}
      </div>
    </div>
  </main>
</div>
