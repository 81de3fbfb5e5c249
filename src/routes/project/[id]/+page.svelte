<script lang="ts">
  import Button from '$lib/ui/Button.svelte';
  import { sound } from '$lib/workbench/yard/tones.ts';
  import { say } from '../../../../core/words.ts';
  import { Pane, PaneGroup, PaneResizer } from 'paneforge';
  import { isTyping, singleKeys } from '$lib/ui/keys.svelte.ts';
  import Header from '$lib/workbench/Header.svelte';
  import ProgramPane from '$lib/workbench/program/ProgramPane.svelte';
  import TracePane from '$lib/workbench/trace/TracePane.svelte';
  import Tray from '$lib/workbench/tray/Tray.svelte';
  import YardPane from '$lib/workbench/yard/YardPane.svelte';
  import { onMount, tick } from 'svelte';
  import { screen } from '$lib/ui/screen.svelte.ts';
  import { useWorkbench } from '$lib/workbench/workbench.svelte.ts';

  let { data } = $props();
  const w = useWorkbench();
  // for tests from outside, beside the block editor's workspace
  Object.assign(window, { mossbellBytes: (options: unknown) => w.runs.bytes(options), mossbellSound: sound });
  let program = $state<ProgramPane>();
  let tray = $state<Tray>();
  // what goes on inside is shown while the run stands still, and the tray comes back when it is over
  let before = w.runs.state;
  $effect(() => {
    const now = w.runs.state;
    if (now === before) return;
    if (now === 'paused') Object.assign(w, { side: 'inside', drawer: true, tab: 'program' });
    else if (now === 'running' && before !== 'running') w.tab = w.tab === 'program' ? 'yard' : w.tab;
    else if (now === 'ended' || now === 'idle') w.side = 'tray';
    before = now;
  });
  $effect(() => {
    program?.trayArea(() => (screen.wide || w.drawer ? tray?.area() : undefined) ?? new DOMRect());
  });
  /** with tabs: the trace has one where it does not stand under them */
  const tabs = $derived<[typeof w.tab, string][]>([
    ['yard', say('Yard')],
    ['program', say('Program')],
    ...(screen.tall
      ? []
      : ([['trace', w.bottom === 'trace' ? say('Trace') : say('Live values')]] as ['trace', string][]))
  ]);
  const tab = $derived(w.tab === 'trace' && screen.tall ? 'yard' : w.tab);

  $effect(() => w.keepLayout());
  // what says that the server does not answer cannot be fetched when it is needed
  onMount(() => {
    void import('$lib/project/Trouble.svelte');
  });

  type Foldable = { collapse: () => void; expand: () => void; isCollapsed: () => boolean };
  const panes = $state<Record<'yard' | 'tray' | 'below', Foldable | undefined>>({
    yard: undefined,
    tray: undefined,
    below: undefined
  });
  function fold(key: keyof typeof panes) {
    const pane = panes[key];
    if (pane?.isCollapsed()) pane.expand();
    else pane?.collapse();
  }
  const FILLS: Readonly<Record<string, typeof w.stage>> = { y: 'yard', p: 'program', t: 'trace' };
  /** Where Space has a meaning of its own. */
  const takesSpace = (target: EventTarget | null): boolean =>
    target !== document.body &&
    !!(target as HTMLElement).closest?.('button, a, summary, [role="button"], [role="tab"]');
  /** Space rehearses, pauses, goes on; / finds a block; y, p and t let a pane fill the screen. Not while one types. */
  async function keys(event: KeyboardEvent) {
    if (!singleKeys.on || isTyping(event.target) || event.ctrlKey || event.metaKey || event.altKey) return;
    if (w.takesInput && (event.target as HTMLElement).closest?.('[data-device-keys]')) return;
    const fills = FILLS[event.key];
    if (event.key === '?') {
      event.preventDefault();
      w.keysOpen = true;
    } else if (event.key === '/') {
      event.preventDefault();
      Object.assign(w, { tab: 'program', drawer: true, side: 'tray' });
      await tick();
      tray?.focusFind();
    } else if (event.key === ' ' && !takesSpace(event.target)) {
      event.preventDefault();
      event.stopPropagation();
      if (w.runs.state === 'running') w.runs.pause();
      else if (w.runs.state === 'paused') w.runs.go('on');
      else void w.rehearse();
    } else if (fills && !(event.target as HTMLElement).closest?.('svg[role="application"], .blocklySvg')) {
      event.preventDefault();
      fill(fills);
    }
  }
  function fill(pane: typeof w.stage) {
    w.stage = w.stage === pane ? undefined : pane;
    if (pane === 'trace') w.bottom = 'trace';
    if (pane) w.tab = pane;
    if (pane === 'program') setTimeout(() => program?.fit(), 150);
  }
</script>

<svelte:head><title>{say('{name} · Moss Bell', { name: w.session.project.name })}</title></svelte:head>
<svelte:window onkeydowncapture={keys} />
<div class="flex h-full flex-col">
  <Header />
  {#if data.me.role === 'pupil' || w.session.of.by}{#await import('$lib/class/Bar.svelte') then { default: Bar }}<Bar
      />{/await}{/if}
  {#if w.session.trouble}{#await import('$lib/project/Trouble.svelte') then { default: Trouble }}<Trouble
        session={w.session}
      />{/await}{/if}
  {#if w.phone?.asking}{#await import('$lib/ui/Remark.svelte') then { default: Remark }}<Remark
        look="bar"
        tone="calm"
        data-testid="asking"
      >
        <span class="flex-1">{say('Another phone wants to be the hand of this workbench.')}</span>
        <Button look="go" size="sm" onclick={() => w.phone?.decide(true)}>{say('Let it')}</Button>
        <Button size="sm" onclick={() => w.phone?.decide(false)}>{say('No')}</Button>
      </Remark>{/await}{/if}
  {#if screen.wide}
    <main class="min-h-0 flex-1">
      <PaneGroup direction="vertical" autoSaveId="mossbell.rows">
        <Pane defaultSize={69} minSize={30} order={1}>
          <PaneGroup direction="horizontal" autoSaveId="mossbell.columns">
            <Pane bind:this={panes.yard} defaultSize={32.5} minSize={20} collapsible order={1}>{@render yard()}</Pane>
            {@render resizer('yard', 'w-1')}
            <Pane defaultSize={47} minSize={25} order={2}>{@render middle()}</Pane>
            {#if w.hasTray}
              {@render resizer('tray', 'w-1')}
              <Pane bind:this={panes.tray} defaultSize={20.5} minSize={15} collapsible order={3}>{@render side()}</Pane>
            {/if}
          </PaneGroup>
        </Pane>
        {@render resizer('below', 'h-1')}
        <Pane id="below" bind:this={panes.below} defaultSize={31} minSize={10} collapsible order={2}
          >{@render below()}</Pane
        >
      </PaneGroup>
    </main>
  {:else}
    <nav
      class="flex h-11 shrink-0 items-stretch gap-1 border-b border-rule bg-linen px-2 py-1"
      aria-label={say('Panes')}
    >
      <div class="flex items-stretch gap-1" role="tablist" aria-label={say('Panes')}>
        {#each tabs as [key, title] (key)}<Button
            look="quiet"
            class="min-w-16 px-4 text-[15px]"
            role="tab"
            id="tab-{key}"
            aria-controls="pane-{key}"
            aria-selected={tab === key}
            onclick={() => (w.tab = key)}>{title}</Button
          >{/each}
      </div>
      <span class="flex-1"></span>
      {#if tab === 'program' && w.hasTray}<Button
          look="quiet"
          class="px-4 text-[15px]"
          aria-expanded={w.drawer}
          aria-controls="drawer"
          onclick={() => (w.drawer = !w.drawer)}>{w.side === 'inside' ? say('Inside') : say('Tray')}</Button
        >{/if}
    </nav>
    <main class="grid min-h-0 flex-1 {screen.tall ? 'grid-rows-[minmax(0,1fr)_34%]' : ''}">
      <!-- hidden, not gone: what sounds goes on, and what was typed stays -->
      <div class="relative min-h-0">
        {#each tabs as [key] (key)}
          <div
            class="absolute inset-0 {tab === key ? '' : 'invisible'}"
            role="tabpanel"
            id="pane-{key}"
            aria-labelledby="tab-{key}"
          >
            {#if key === 'yard'}{@render yard()}{:else if key === 'program'}{@render middle()}
              {#if w.hasTray}<div
                  id="drawer"
                  class="absolute top-9 right-0 bottom-0 z-20 w-[min(340px,62%)] border-l border-rule bg-card shadow-lg {w.drawer &&
                  tab === key
                    ? ''
                    : 'invisible'}"
                >
                  {@render side()}
                </div>{/if}
            {:else}{@render below()}{/if}
          </div>
        {/each}
      </div>
      {#if screen.tall}<div class="min-h-0 border-t border-rule">{@render below()}</div>{/if}
    </main>
  {/if}
</div>
{#snippet resizer(pane: keyof typeof panes, thick: string)}<PaneResizer
    class="{thick} bg-linen hover:bg-brass data-[active]:bg-brass"
    title={say('Drag to size, twice to fold')}
    ondblclick={() => fold(pane)}
  />{/snippet}
{#snippet yard()}<div class="h-full {w.stage === 'yard' ? 'mb-stage' : ''}"><YardPane /></div>{/snippet}
{#snippet middle()}<div class="h-full {w.stage === 'program' ? 'mb-stage' : ''}">
    <ProgramPane bind:this={program} />
  </div>{/snippet}
{#snippet side()}
  {#if w.side === 'inside'}{#await import('$lib/workbench/debug/Inside.svelte') then { default: Inside }}<Inside
        close={() => (w.side = 'tray')}
      />{/await}{/if}
  <div class="h-full {w.side === 'inside' ? 'hidden' : ''}">
    <Tray
      bind:this={tray}
      onadd={(kind, slots) => program?.add(kind, slots)}
      ondrag={(kind, e, slots) => program?.dragIn(kind, e, slots)}
      onleave={() => program?.focusChosen()}
    />
  </div>
{/snippet}
{#snippet below()}
  {#if w.bottom === 'trace'}<div class="h-full {w.stage === 'trace' ? 'mb-stage' : ''}">
      <TracePane />
    </div>{:else}
    {#await import('$lib/workbench/live/LivePane.svelte') then { default: LivePane }}<LivePane
        ondrag={(kind, e, slots) => program?.dragIn(kind, e, slots)}
        ondrop={(x, y, value) => program?.dropNumber(x, y, value) ?? false}
      />{/await}
  {/if}
{/snippet}
{#if w.stage || w.story}{#await import('$lib/workbench/stage/Stage.svelte') then { default: Stage }}<Stage
    />{/await}{/if}
{#if w.trying}{#await import('$lib/workbench/debug/Just.svelte') then { default: Just }}<Just
      ids={w.trying!}
      close={() => (w.trying = undefined)}
    />{/await}{/if}
{#if w.keysOpen}{#await import('$lib/ui/KeysDialog.svelte') then { default: KeysDialog }}<KeysDialog
      bind:open={w.keysOpen}
    />{/await}{/if}
