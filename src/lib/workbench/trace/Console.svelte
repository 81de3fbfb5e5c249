<!-- The log of a run with its times, its errors and the blocks they came from; below it a line of Python for a device that waits. -->
<script lang="ts">
  import { tick } from 'svelte';
  import { told } from '../../../../core/trace/compare.ts';
  import { clockIn, say } from '../../../../core/words.ts';
  import Button from '../../ui/Button.svelte';
  import Field from '../../ui/Field.svelte';
  import type { Run } from '../runs.svelte.ts';
  import { useWorkbench } from '../workbench.svelte.ts';
  import { lineOf, sentences } from '../sentences.ts';
  import Sheet from './Sheet.svelte';
  let { run, lead }: { run?: Run; lead: (toUs: number, block?: string) => void } = $props();
  const w = useWorkbench();
  const d = $derived(w.device);
  const MOST = 500;
  const SAID = new Set(['log', 'error']);
  const lines = $derived.by(() => {
    if (!run || run.version < 0) return [];
    return run.trace.events.filter((e) => SAID.has(e.type)).slice(-MOST);
  });
  const names = $derived(sentences(run?.project ?? w.session.project));
  const ready = $derived(d.plugged && !d.running && !d.progress && !d.drive);
  let line = $state('');
  let busy = $state(false);
  let end: HTMLElement;
  // what came last is seen
  $effect(() => {
    if (lines.length + d.typed.length) void tick().then(() => end?.scrollIntoView({ block: 'nearest' }));
  });
  async function type() {
    const said = line.trim();
    if (!said || !ready || busy) return;
    busy = true;
    line = '';
    await d.type(said);
    busy = false;
  }
</script>

<Sheet title={say('Log of the device')}>
  <ol class="font-mono text-[12.5px]" data-testid="console" aria-live="polite">
    {#each lines as e, i (i)}
      <li>
        <Button
          look="bare"
          class="min-h-6 w-full rounded-md px-2 py-0.5 text-left hover:bg-linen {e.type === 'error' ? 'text-clay' : ''}"
          onclick={() => lead(e.tUs, e.block)}
          ><span class="text-soft">{(e.tUs / 1e6).toFixed(3)} s</span>
          {e.type === 'log' ? e.text : told(e)}{#if e.type === 'error' && e.block}
            <span class="block pl-4 font-sans"
              >{say('in "{block}"', { block: names.get(e.block) ?? lineOf(e.block) })}</span
            >{/if}</Button
        >
      </li>
    {:else}<li class="px-2 font-sans text-soft">
        {run ? say('Nothing was logged in this run.') : say('What a program logs is written here.')}
      </li>{/each}
  </ol>
  {#if d.typed.length}
    <h4 class="mt-2 px-2 text-[12.5px] text-soft">{say('Typed to {name}', { name: d.unit.name })}</h4>
    <ol class="font-mono text-[12.5px]" data-testid="typed" aria-live="polite">
      {#each d.typed as t, i (i)}
        <li class="px-2 py-0.5">
          <span class="text-soft">{new Date(t.at).toLocaleTimeString(clockIn())} &gt;&gt;&gt;</span>
          {t.line}
          {#if t.answer}<pre class="pl-4 whitespace-pre-wrap {t.bad ? 'text-clay' : ''}">{t.answer}</pre>{/if}
        </li>
      {/each}
    </ol>
  {/if}
  <form
    class="mt-2 flex items-center gap-2"
    bind:this={end}
    onsubmit={(e) => {
      e.preventDefault();
      void type();
    }}
  >
    <Field
      class="w-full! font-mono"
      bind:value={line}
      disabled={!ready}
      aria-label={say('A line of Python for the device')}
      placeholder={ready ? say('A line of Python, such as 2 + 3') : say('Plug in a device that waits, to type to it')}
    />
    <Button size="sm" type="submit" disabled={!ready || busy || !line.trim()}>{say('Run')}</Button>
  </form>
</Sheet>
