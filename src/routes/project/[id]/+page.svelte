<script lang="ts">
  import Button from '../../../lib/ui/Button.svelte';
  import { sound } from '$lib/workbench/yard/tones.ts';
  import { say } from '../../../../core/words.ts';
  import { Pane, PaneGroup, PaneResizer } from 'paneforge';
  import KeysDialog from '$lib/ui/KeysDialog.svelte';
  import { isTyping, singleKeys } from '$lib/ui/keys.svelte.ts';
  import Trouble from '$lib/project/Trouble.svelte';
  import Header from '$lib/workbench/Header.svelte';
  import ProgramPane from '$lib/workbench/program/ProgramPane.svelte';
  import TracePane from '$lib/workbench/trace/TracePane.svelte';
  import Tray from '$lib/workbench/tray/Tray.svelte';
  import YardPane from '$lib/workbench/yard/YardPane.svelte';
  import { useWorkbench } from '$lib/workbench/workbench.svelte.ts';

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
    if (now === 'paused') w.side = 'inside';
    else if (now === 'ended' || now === 'idle') w.side = 'tray';
    before = now;
  });
  $effect(() => {
    if (program && tray) program.trayArea(() => tray!.area());
  });
  /** Space rehearses or pauses when neither a field, a button nor a block has the focus; / finds a block. */
  function keys(event: KeyboardEvent) {
    if (!singleKeys.on || isTyping(event.target)) return;
    if (event.key === '/') {
      event.preventDefault();
      tray?.focusFind();
    } else if (event.key === ' ' && event.target === document.body) {
      event.preventDefault();
      if (w.runs.state === 'running') w.runs.pause();
      else if (w.runs.state === 'paused') w.runs.go('on');
      else w.rehearse();
    }
  }
</script>

<svelte:head><title>{say('{name} · Moss Bell', { name: w.session.project.name })}</title></svelte:head>
<svelte:window onkeydown={keys} />
<div class="flex h-full min-w-[1000px] flex-col">
  <Header />
  <Trouble session={w.session} />
  {#if w.phone?.asking}
    <div class="flex items-center gap-3 border-b border-rule bg-linen px-4 py-1.5" role="alert" data-testid="asking">
      <span class="flex-1">{say('Another phone wants to be the hand of this workbench.')}</span>
      <Button look="go" size="sm" onclick={() => w.phone?.decide(true)}>{say('Let it')}</Button>
      <Button size="sm" onclick={() => w.phone?.decide(false)}>{say('No')}</Button>
    </div>
  {/if}
  <main class="min-h-0 flex-1">
    <PaneGroup direction="vertical" autoSaveId="mossbell.rows">
      <Pane defaultSize={69} minSize={30}>
        <PaneGroup direction="horizontal" autoSaveId="mossbell.columns">
          <Pane defaultSize={32.5} minSize={20}
            ><div class="h-full {w.stage === 'yard' ? 'mb-stage' : ''}"><YardPane /></div></Pane
          >
          <PaneResizer class="w-1 bg-linen hover:bg-brass data-[active]:bg-brass" />
          <Pane defaultSize={47} minSize={25}
            ><div class="h-full {w.stage === 'program' ? 'mb-stage' : ''}">
              <ProgramPane bind:this={program} />
            </div></Pane
          >
          <PaneResizer class="w-1 bg-linen hover:bg-brass data-[active]:bg-brass" />
          <Pane defaultSize={20.5} minSize={15}
            >{#if w.side === 'inside'}{#await import('$lib/workbench/debug/Inside.svelte') then { default: Inside }}<Inside
                  close={() => (w.side = 'tray')}
                />{/await}{/if}
            <div class="h-full {w.side === 'inside' ? 'hidden' : ''}">
              <Tray
                bind:this={tray}
                onadd={(kind, slots) => program?.add(kind, slots)}
                ondrag={(kind, e, slots) => program?.dragIn(kind, e, slots)}
                onleave={() => program?.focusChosen()}
              />
            </div></Pane
          >
        </PaneGroup>
      </Pane>
      <PaneResizer class="h-1 bg-linen hover:bg-brass data-[active]:bg-brass" />
      <Pane defaultSize={31} minSize={10}
        >{#if w.bottom === 'trace'}<div class="h-full {w.stage === 'trace' ? 'mb-stage' : ''}">
            <TracePane />
          </div>{:else}
          {#await import('$lib/workbench/live/LivePane.svelte') then { default: LivePane }}<LivePane
              ondrag={(kind, e, slots) => program?.dragIn(kind, e, slots)}
              ondrop={(x, y, value) => program?.dropNumber(x, y, value) ?? false}
            />{/await}
        {/if}</Pane
      >
    </PaneGroup>
  </main>
</div>
{#if w.stage || w.story}{#await import('$lib/workbench/stage/Stage.svelte') then { default: Stage }}<Stage
    />{/await}{/if}
{#if w.trying}{#await import('$lib/workbench/debug/Just.svelte') then { default: Just }}<Just
      ids={w.trying!}
      close={() => (w.trying = undefined)}
    />{/await}{/if}
<KeysDialog />
