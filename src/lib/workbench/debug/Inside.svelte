<!-- What goes on inside while the run stands still, or at the playhead: why it stopped, values, tasks, stops; and where to go. -->
<script lang="ts">
  import Field from '../../ui/Field.svelte';
  import Button from '../../ui/Button.svelte';
  import ArrowDown from '@lucide/svelte/icons/corner-down-right';
  import ArrowOver from '@lucide/svelte/icons/redo';
  import ArrowOut from '@lucide/svelte/icons/corner-left-up';
  import ChevronLeft from '@lucide/svelte/icons/chevron-left';
  import ChevronRight from '@lucide/svelte/icons/chevron-right';
  import ChevronsLeft from '@lucide/svelte/icons/chevrons-left';
  import ChevronsRight from '@lucide/svelte/icons/chevrons-right';
  import X from '@lucide/svelte/icons/x';
  import { typedValue } from '../../../../core/language/values.ts';
  import { heldAt } from '../../../../core/trace/measure.ts';
  import { reading } from '../../../../core/units.ts';
  import { retell, say } from '../../../../core/words.ts';
  import { lineOf, sentences } from '../sentences.ts';
  import { useWorkbench } from '../workbench.svelte.ts';
  import Stops from './Stops.svelte';
  import { whyText } from './why.ts';

  let { close }: { close: () => void } = $props();
  const w = useWorkbench();
  const { runs } = w;
  const names = $derived(sentences(w.session.project));
  // a block that is gone by now is called as it was when the run began
  const before = $derived(runs.run?.project ? sentences(runs.run.project) : undefined);
  const named = (id: string) => names.get(id) ?? before?.get(id) ?? lineOf(id);
  const paused = $derived(runs.state === 'paused' && runs.scrubUs === undefined && runs.shown === 'rehearsal');
  const past = $derived(runs.scrubUs !== undefined);
  // at rest in the past, what was inside then is worked out
  $effect(() => {
    void runs.scrubUs;
    if (runs.playing || runs.state === 'running' || !past) return;
    const due = setTimeout(() => void runs.lookBack(), 120);
    return () => clearTimeout(due);
  });
  const seen = $derived(runs.seenNow);
  const variables = $derived.by((): { name: string; shown: string; list: boolean; waits?: true }[] => {
    if (seen) return seen.variables;
    const run = runs.run;
    if (!run || run.version < 0) return [];
    const held = new Map(heldAt(run.trace, runs.playheadUs));
    if (paused)
      for (const [name, value] of Object.entries(runs.values)) if (!held.has(name)) held.set(name, String(value));
    return [...held].map(([name, shown]) => ({ name, shown, list: shown.startsWith('[') }));
  });
  const here = $derived((paused && runs.here) || runs.lit.at(-1));
  /** what runs is not the program any more that stands there */
  const changed = $derived(
    runs.state === 'paused' &&
      runs.shown === 'rehearsal' &&
      !!runs.current?.project &&
      runs.current.project.program !== w.session.project.program
  );
  const waits = $derived({
    'its turn': say('comes next'),
    move: say('waits until its move is over'),
    condition: say('waits until its condition is true')
  });
  const channels = $derived(
    (runs.run && runs.run.version >= 0 ? runs.run.trace.channels : []).filter(
      (c) => !/^(x|y|facing|thing|turns)/.test(c.key)
    )
  );
  function set(name: string, text: string) {
    const to = typedValue(text);
    runs.input({ set: { variable: name, to } });
    w.tell(say('{name} is {to} now', { name, to }));
  }
  const chosen = $derived(w.selected && names.has(w.selected) ? w.selected : undefined);
  const canWalk = $derived(!!runs.run && runs.state !== 'running');
  const reason = $derived(
    paused ? whyText(runs.why, named, new Map(runs.run?.trace.channels.map((c) => [c.key, c.title]))) : ''
  );
</script>

<section class="flex h-full min-h-0 flex-col bg-card" aria-label={say('Inside')} data-testid="inside">
  <div class="bar">
    <h2 class="font-sans text-[14px] font-bold">{say('Inside')}</h2>
    <span class="font-mono text-[12.5px] text-soft tabular-nums">{(runs.playheadUs / 1e6).toFixed(4)} s</span>
    <span class="flex-1"></span>
    <Button look="quiet" class="px-1.5" aria-label={say('Close')} title={say('Back to the tray')} onclick={close}
      ><X size={15} /></Button
    >
  </div>
  <div class="flex min-h-0 flex-1 flex-col gap-2.5 overflow-auto p-2.5">
    <div class="flex flex-col gap-1.5">
      <p class="leading-snug" data-testid="inside-where">
        {#if here}<b>{paused && runs.here ? say('Before:') : say('At:')}</b> {named(here)}{:else if runs.run}{say(
            'No block runs here.'
          )}{:else}{say('Rehearse, pause or stop before a block: here you see what goes on inside.')}{/if}
        {#if reason}<span class="block text-soft">{reason}</span>{/if}
        {#if changed}<span class="block text-clay" data-testid="old-program"
            >{say(
              'The program was changed: the one from before runs on, until you go on from here with this one.'
            )}</span
          >{/if}
      </p>
      <div class="flex flex-wrap gap-1">
        <Button
          size="sm"
          disabled={!paused}
          title={say('The next block, whichever it is')}
          onclick={() => runs.go('into')}><ArrowDown size={14} />{say('Into')}</Button
        >
        <Button
          size="sm"
          disabled={!paused}
          title={say('This block with all that is in it')}
          onclick={() => runs.go('over')}><ArrowOver size={14} />{say('Over')}</Button
        >
        <Button
          size="sm"
          disabled={!paused}
          title={say('Until the loop or routine around it goes on')}
          onclick={() => runs.go('out')}><ArrowOut size={14} />{say('Out')}</Button
        >
      </div>
      <div class="flex flex-wrap items-center gap-1" role="group" aria-label={say('Along the trace')}>
        <Button
          size="sm"
          disabled={!canWalk}
          aria-label={say('Back by a block')}
          title={say('Back by a block')}
          onclick={() => runs.along('block', -1)}><ChevronsLeft size={15} /></Button
        >
        <Button
          size="sm"
          disabled={!canWalk}
          aria-label={say('Back by 1 ms')}
          title={say('Back by 1 ms')}
          onclick={() => runs.along('tick', -1)}><ChevronLeft size={15} /></Button
        >
        <Button
          size="sm"
          disabled={!canWalk}
          aria-label={say('On by 1 ms')}
          title={say('On by 1 ms')}
          onclick={() => runs.along('tick', 1)}><ChevronRight size={15} /></Button
        >
        <Button
          size="sm"
          disabled={!canWalk}
          aria-label={say('On by a block')}
          title={say('On by a block')}
          onclick={() => runs.along('block', 1)}><ChevronsRight size={15} /></Button
        >
        <Button
          size="sm"
          disabled={!(past || changed) || runs.shown !== 'rehearsal'}
          title={say('The same up to here, then live, with the program as it is now')}
          onclick={() => w.resumeHere()}>{say('Go on from here')}</Button
        >
      </div>
    </div>

    <div>
      <h3 class="text-[13px] font-bold">{say('Variables')}</h3>
      {#if variables.length}<dl
          class="mt-0.5 grid grid-cols-[minmax(0,1fr)_minmax(0,1.3fr)] items-center gap-x-2 gap-y-0.5"
          data-testid="inside-variables"
        >
          {#each variables as v (v.name)}
            <dt class="truncate" title={v.name}>{v.name}</dt>
            <dd class="min-w-0">
              {#if paused && !v.list}<Field
                  class="w-full! py-0.5 text-right font-mono text-[13px] {v.waits ? '!border-brass' : ''}"
                  aria-label={say('Value of {name}', { name: v.name })}
                  value={v.shown}
                  onchange={(e) => set(v.name, e.currentTarget.value)}
                />{:else}<output
                  class="block overflow-hidden text-right font-mono text-[13px] text-ellipsis"
                  title={v.shown}>{v.shown}</output
                >{/if}
            </dd>
          {/each}
        </dl>{:else}<p class="text-soft" data-testid="inside-variables">{say('None has a value yet.')}</p>{/if}
    </div>

    {#if seen?.inputs.length}
      <div>
        <h3 class="text-[13px] font-bold">{say('Given to the routine')}</h3>
        <dl class="mt-0.5 grid grid-cols-2 gap-x-2 text-[13px]" data-testid="inside-inputs">
          {#each seen.inputs as i (i.name)}<dt class="truncate" title={i.name}>{i.name}</dt>
            <dd class="text-right font-mono">{i.shown}</dd>{/each}
        </dl>
      </div>
    {/if}
    {#if seen?.tasks.length}
      <div>
        <h3 class="text-[13px] font-bold">{say('Tasks')}</h3>
        <ul class="mt-0.5 flex flex-col gap-1" data-testid="inside-tasks">
          {#each seen.tasks as task (task.id)}
            <li class="rounded-lg px-2 py-1 leading-snug {task.next ? 'bg-linen' : ''}">
              <Button
                look="bare"
                class="text-left font-semibold hover:underline"
                onclick={() => (w.selected = task.block ?? task.starter)}>{named(task.block ?? task.starter)}</Button
              >
              <span class="block text-[12.5px] text-soft"
                >{named(task.starter)} ·
                {task.waits.for === 'time'
                  ? say('waits until {s} s', { s: (task.waits.untilUs / 1e6).toFixed(3) })
                  : waits[task.waits.for]}</span
              >
            </li>
          {/each}
        </ul>
      </div>
    {/if}

    {#if channels.length}
      <details open>
        <summary class="cursor-pointer text-[13px] font-bold">{say('Sensors and motors')}</summary>
        <dl class="mt-0.5 grid grid-cols-[minmax(0,1fr)_auto] gap-x-2 text-[13px]" data-testid="inside-channels">
          {#each channels as c (c.key)}
            <dt class="truncate text-soft">{retell(c.title)}</dt>
            <dd class="text-right font-mono tabular-nums">
              {reading(c.key, seen?.readings[c.key] ?? runs.view?.values[c.key] ?? 0)}
              {c.unit}
            </dd>
          {/each}
        </dl>
      </details>
    {/if}

    <Stops {chosen} {named} />
    {#if runs.view?.tone}<p class="text-soft">
        {say('A tone of {hertz} Hz sounds.', { hertz: Math.round(runs.view.tone.hertz) })}
      </p>{/if}
    {#if runs.textTrouble}<p class="text-clay">{retell(runs.textTrouble)}</p>{/if}
  </div>
</section>
