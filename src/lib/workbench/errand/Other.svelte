<!-- A second solution, parked beside the one that runs: it is judged too, and the two can be changed over. -->
<script lang="ts">
  import { countBlocks } from '../../../../core/errand/goals/built.ts';
  import { goalWords, type Verdict } from '../../../../core/errand/goals.ts';
  import type { Task } from '../../../../core/errand/task.ts';
  import { together } from '../../../../core/errand/verdict.ts';
  import type { Program } from '../../../../core/language/program.ts';
  import { retell, say } from '../../../../core/words.ts';
  import Button from '../../ui/Button.svelte';
  import { useWorkbench } from '../workbench.svelte.ts';
  import { elsewhereOf } from './elsewhere.svelte.ts';
  import { verdictOf } from './judging.ts';
  let { task, other }: { task: Task; other: Program } = $props();
  const w = useWorkbench();
  const { runs, session } = w;
  let came = $state.raw<{ of: Program; verdict: Verdict }>();
  let busy = $state(false);
  const verdict = $derived(came?.of === other ? came.verdict : undefined);
  async function judge() {
    busy = true;
    const run = await runs.whole({ ...session.project, program: other });
    const here = await verdictOf(runs, task, run);
    const all = [here!, ...(await elsewhereOf(runs, task, run).whole()).map((e) => e.verdict)];
    came = { of: other, verdict: all[together(all).first] };
    busy = false;
  }
</script>

<div class="mt-2 border-t border-rule pt-1.5" data-testid="parked-solution">
  <div class="flex flex-wrap items-center gap-2">
    <h4 class="min-w-0 flex-1 text-[13px] font-semibold">{say('The parked solution')}</h4>
    <Button size="sm" disabled={busy} onclick={judge}>{say('Judge it too')}</Button>
    <Button
      size="sm"
      disabled={runs.busy}
      onclick={() => session.change(say('change the solutions over'), { ...session.project, program: other })}
      >{say('Change over')}</Button
    >
  </div>
  {#if verdict}
    <p class={verdict.met ? 'text-moss' : 'text-clay'} role="status">
      {verdict.met
        ? say('all goals met in {s} s', { s: (verdict.atUs / 1e6).toFixed(1) })
        : say('{got} of {of} goals met', {
            got: verdict.results.filter((r) => r.state === 'met').length,
            of: verdict.results.length
          })} · {say('{n, plural, one {# block} other {# blocks}}', { n: countBlocks(other) })}
    </p>
    {#each verdict.results as r, i (i)}{#if r.state !== 'met'}<p class="text-soft">
          {goalWords(task.goals[i])}: {retell(r.says)}
        </p>{/if}{/each}
  {/if}
</div>
