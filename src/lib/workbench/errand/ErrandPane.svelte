<!-- The errand of this project: its story, hints, goals as they stand, what came of the try, and the tries so far. -->
<script lang="ts">
  import Bell from '@lucide/svelte/icons/bell';
  import Check from '@lucide/svelte/icons/check';
  import Circle from '@lucide/svelte/icons/circle';
  import Dot from '@lucide/svelte/icons/circle-dot';
  import Cross from '@lucide/svelte/icons/x';
  import { onMount } from 'svelte';
  import type { Result } from '../../../../core/errand/goal.ts';
  import { goalWords, type Goal, type Verdict } from '../../../../core/errand/goals.ts';
  import { toldIn } from '../../../../core/errand/task.ts';
  import { otherSolution } from '../../../../core/errand/parked.ts';
  import { notWell } from '../../../../core/errand/verdict.ts';
  import { inItsYard } from '../../../../core/errand/yards.ts';
  import { programOf } from '../../../../core/language/program.ts';
  import type { Project } from '../../../../core/project.ts';
  import { later, retell, say, word } from '../../../../core/words.ts';
  import Button from '../../ui/Button.svelte';
  import Remark from '../../ui/Remark.svelte';
  import type { Run } from '../runs.svelte.ts';
  import { useWorkbench } from '../workbench.svelte.ts';
  import { bell } from './bell.ts';
  import { Elsewhere, elsewhereOf } from './elsewhere.svelte.ts';
  import { toasts } from '../../ui/toasts.svelte.ts';
  import { ringsOf, staysHere, verdictOf } from './judging.ts';
  import Other from './Other.svelte';
  import Tries from './Tries.svelte';

  const w = useWorkbench();
  const { runs, session } = w;
  const task = $derived(session.project.errand!);
  const opened = $derived(session.project.hintsOpened ?? 0);
  const run = $derived(runs.seen);
  /** what is parked beside it */
  const other = $derived(session.project.text === undefined ? otherSolution(session.project.program) : undefined);
  let folded = $state(false);
  let verdict = $state.raw<Verdict>();
  const over = $derived(!!run && run.version >= 0 && run.trace.ended !== undefined);
  /** a run that is over has come to what it came to, whatever moment of it is looked at */
  const untilUs = (of: Run): number => (of.trace.ended === undefined ? Math.min(runs.seenUs, of.endUs) : of.endUs);
  const LOOK_MS = 250;
  /** what is looked at next; a look takes a while, and what came meanwhile is looked at once */
  let timer: ReturnType<typeof setTimeout> | undefined;
  $effect(() => {
    const seen = run;
    void runs.seenUs;
    void run?.version;
    if (!seen) {
      verdict = undefined;
      return;
    }
    timer ??= setTimeout(
      async () => {
        timer = undefined;
        const now = runs.seen;
        verdict = now && (await verdictOf(runs, task, now, untilUs(now)));
        // where there is but one situation it rings at the moment when the last goal is met
        if (now && verdict?.met && !task.situations && !staysHere(task, now)) rings(now);
      },
      seen.trace.ended === undefined ? LOOK_MS : 0
    );
  });
  /** looked at again when it is over: what a hand did is known then */
  const here = $derived(run && (over || run) ? staysHere(task, run) : undefined);
  const own = $derived(inItsYard(task, session.project));
  async function putBack() {
    const answer = await fetch(`/api/errands/${task.id}/yard`).catch(() => undefined);
    if (!answer?.ok) return toasts.tell(say('The errand is not on this computer. Begin it anew from the shelf.'));
    const { start: _, others: __, ...rest } = session.project;
    session.change(say("put the errand's yard back"), { ...rest, ...((await answer.json()) as Partial<Project>) });
    runs.clear();
  }
  /** the run that was begun last in this errand, what it comes to once it is over, and its other situations */
  let tried = $state.raw<{ of: Run; met?: boolean; others: Elsewhere }>();
  $effect(() => {
    // one of another situation, or of before, is only looked at
    if (!run || !task.situations || run.kind === 'device' || run === tried?.of) return;
    if (tried?.others.came.some((c) => c?.run === run)) return;
    tried = { of: run, others: elsewhereOf(runs, task, run) };
    // beside the run itself; the bell waits for all
    if (run === runs.current && !staysHere(task, run)) void tried.others.begin();
  });
  $effect(() => {
    const ended = tried && over && tried.of === run && tried.met === undefined && !here ? tried : undefined;
    if (!ended) return;
    void ended.others.whole();
    void verdictOf(runs, task, ended.of).then((first) => {
      if (tried?.of === ended.of) tried = { ...ended, met: !!first?.met };
    });
  });
  /** all goals in all situations */
  const metAll = $derived(
    over &&
      !!verdict?.met &&
      !here &&
      (!task.situations || (!!tried?.met && tried.others.came.every((c) => c?.verdict.met)))
  );
  /** met as the yard shows it, and not everywhere: where first */
  const failed = $derived.by(() => {
    const at = tried?.met ? tried.others.came.findIndex((c) => c && !c.verdict.met) : -1;
    return tried && at >= 0 ? { n: at + 2, of: tried.others.says.length + 1, says: tried.others.says[at] } : undefined;
  });
  $effect(() => {
    if (metAll && tried) rings(tried.of);
  });
  $effect(() => {
    w.rings = ringsOf(task, w.mat, verdict);
  });
  $effect(() => () => {
    clearTimeout(timer);
    w.rings = [];
  });
  const rung = new WeakSet<Run>();
  /** The bell rings once for each run. */
  function rings(of: Run) {
    if (rung.has(of) || of === runs.earlier) return;
    rung.add(of);
    w.tell(say('The bell rings: all goals are met.'));
    if (!w.muted) bell();
  }
  /** what was missed by the least, and has a moment to be looked at */
  const near = $derived.by(() => {
    const result = over && verdict?.nearest !== undefined ? verdict.results[verdict.nearest] : undefined;
    return result?.atUs === undefined ? undefined : result;
  });
  const well = $derived(metAll && run?.project ? notWell(run.trace, run.project.kit, programOf(run.project)) : []);
  onMount(() => {
    void w.history.load();
    // what npm run speed measures
    Object.assign(window, { mossbellElsewhere: () => run && new Elsewhere(runs, task, run) });
  });
  const SIGNS = { met: Check, holds: Dot, open: Circle, missed: Cross } as const;
  const STATES = {
    met: later('met'),
    holds: later('so far'),
    open: later('not yet'),
    missed: later('missed')
  } as const;
  const COLOURS = { met: 'text-moss', holds: 'text-soft', open: 'text-soft', missed: 'text-clay' } as const;
</script>

{#snippet one(goal: Goal, result: Result | undefined, nearest = false)}
  {@const state = result?.state ?? 'open'}
  {@const Sign = SIGNS[state]}
  {@const parts = 'goals' in goal && Array.isArray(goal.goals) ? (goal.goals as Goal[]) : undefined}
  <li class="flex items-start gap-1.5" data-state={state}>
    <Sign size={15} class="mt-0.5 shrink-0 {COLOURS[state]}" />
    <div class="min-w-0 flex-1">
      <span class="sr-only">{word(STATES[state])}: </span>{parts
        ? goal.kind === 'order'
          ? say('In this order')
          : say('All of these')
        : goalWords(goal)}
      {#if result?.says && !parts}<span class="text-soft">· {result.says}</span>{/if}
      {#if nearest && run}<Button
          look="quiet"
          class="-my-1 px-1 underline"
          data-testid="nearest"
          onclick={() => (runs.scrubUs = Math.min(near?.atUs ?? 0, run.endUs))}>{say('Show the moment')}</Button
        >{/if}
      {#if parts}<ul class="mt-1 flex flex-col gap-1">
          {#each parts as part, i (i)}{@render one(part, result?.parts?.[i])}{/each}
        </ul>{/if}
    </div>
  </li>
{/snippet}

{#snippet situation(says: string, its: Run, met: boolean, why: string)}
  {@const Sign = met ? Check : Cross}
  <li class="flex items-start gap-1.5" data-state={met ? 'met' : 'missed'}>
    <Sign size={15} class="mt-0.5 shrink-0 {met ? 'text-moss' : 'text-clay'}" />
    <div class="min-w-0 flex-1">
      {says}
      {#if why}<span class="text-soft">· {why}</span>{/if}
      {#if its !== run}<Button
          look="quiet"
          class="-my-1 px-1 underline"
          onclick={() =>
            Object.assign(
              runs,
              its === runs.current
                ? { shown: 'rehearsal', scrubUs: undefined }
                : { earlier: its, shown: 'earlier', scrubUs: undefined }
            )}>{say('Show this run')}</Button
        >{/if}
    </div>
  </li>
{/snippet}

<section
  class="max-h-[48%] shrink-0 overflow-y-auto border-t border-rule bg-card px-3 py-2 text-[13.5px]"
  aria-label={say('Errand')}
  data-testid="errand"
>
  <div class="flex items-center gap-2">
    <Bell size={15} class="shrink-0 text-brass" />
    <h3 class="min-w-0 flex-1 truncate text-[15px]" title={toldIn(task.name)}>{toldIn(task.name)}</h3>
    {#if task.hints.length}<Button
        size="sm"
        disabled={opened >= task.hints.length}
        onclick={() => session.change(say('open a hint'), { ...session.project, hintsOpened: opened + 1 })}
        >{opened < task.hints.length
          ? say('Hint {n} of {of}', { n: opened + 1, of: task.hints.length })
          : say('All hints are open')}</Button
      >{/if}
    <Button look="quiet" aria-expanded={!folded} onclick={() => (folded = !folded)}
      >{folded ? say('Unfold') : say('Fold')}</Button
    >
  </div>
  {#if !own}<Remark tone="clay" role="status" class="mt-2" data-testid="other-yard"
      >{say('The yard is not as the errand has it. Try what helps you; the bell waits for a try in its own.')}
      <Button size="sm" class="ml-1" disabled={runs.busy} onclick={putBack}>{say('Put its own yard back')}</Button
      ></Remark
    >{:else if here && (verdict?.met || (run?.kind !== 'device' && run?.project?.text !== undefined))}<Remark
      role="status"
      class="mt-2">{here}</Remark
    >{/if}
  {#if failed}
    <Remark tone="clay" role="status" class="mt-2"
      >{say('In situation {n} of {of} it does not do it: {says}.', {
        n: failed.n,
        of: failed.of,
        says: failed.says
      })}</Remark
    >
  {/if}
  {#if metAll}
    <Remark tone="moss" role="status" class="mt-2" data-testid="bell"
      >{say('The bell rings: all goals are met.')}
      {#each well as finding (finding)}<br />{say('But: {says}', { says: retell(finding.says) })}{/each}</Remark
    >
  {/if}
  {#if !folded}
    <p class="mt-1 text-soft">{toldIn(task.story)}</p>
    {#if opened}<ul class="mt-1.5 flex flex-col gap-1" aria-label={say('Hints')}>
        {#each task.hints.slice(0, opened) as hint, i (i)}<li class="rounded-md bg-linen px-2 py-1">
            {toldIn(hint)}
          </li>{/each}
      </ul>{/if}
    <ul class="mt-1.5 flex flex-col gap-1" aria-label={say('Goals')}>
      {#each task.goals as goal, i (i)}{@render one(goal, verdict?.results[i], near && i === verdict?.nearest)}{/each}
    </ul>
  {/if}
  {#if tried && over && !here}
    <div class="mt-2 border-t border-rule pt-1.5" data-testid="situations">
      <h4 class="text-[13px] font-semibold">{say('In all situations')}</h4>
      <ul class="mt-1 flex flex-col gap-1">
        {#if tried.met !== undefined}{@render situation(say('as the yard shows it'), tried.of, tried.met, '')}{/if}
        {#each tried.others.says as says, i (i)}
          {@const came = tried.others.came[i]}
          {#if came}
            {@const { met, nearest, results } = came.verdict}
            {@const miss = nearest ?? results.findIndex((r) => r.state === 'missed')}
            {@render situation(says, came.run, met, met || miss < 0 ? '' : retell(results[miss].says))}
          {/if}
        {/each}
      </ul>
      {#if tried.others.came.includes(undefined)}<p class="text-soft" role="status">
          {say('The other situations are being tried.')}
        </p>{/if}
    </div>
  {/if}
  {#if !folded && other}<Other {task} {other} />{/if}
  {#if !folded}<Tries goals={task.goals} />{/if}
</section>
