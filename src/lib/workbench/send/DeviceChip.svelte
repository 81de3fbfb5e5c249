<script lang="ts">
  import Button from '../../ui/Button.svelte';
  import { language } from '../../language.svelte.ts';
  import { later, say, word } from '../../../../core/words.ts';
  import { useWorkbench } from '../workbench.svelte.ts';
  const w = useWorkbench();
  const d = $derived(w.device);
  let open = $state(false);
  const GOOD = '#8fd16f';
  const WAITS = '#e0b65a';
  const BAD = '#e8846a';
  const DOTS: Record<string, string> = {
    'not plugged in': '#9aa396',
    ready: GOOD,
    'busy running': GOOD,
    asking: WAITS,
    sending: WAITS,
    'on battery': WAITS,
    'a drive': WAITS,
    sleeping: WAITS
  };
  const dot = $derived(DOTS[d.status] ?? BAD);
  const words = $derived(
    d.status === 'sending' && d.progress
      ? say('sending {round} %', { round: Math.round(d.progress.share * 100) })
      : d.status === 'on battery'
        ? d.running
          ? later('unplugged, running')
          : later('unplugged, on battery')
        : d.status === 'ready'
          ? later('plugged in')
          : d.status
  );
  async function plug(holdingDot = false) {
    open = true;
    await d.plugIn(holdingDot);
  }
  function unplug() {
    d.unplug();
    if (!w.runs.busy) w.runs.shown = 'device';
  }
  async function send(start = false) {
    open = true;
    await d.send(undefined, { start });
  }
  let root: HTMLElement;
  /** what is taken back in a toast was done here */
  const isBeside = (at: Element) => !root.contains(at) && !at.closest('[data-toasts], dialog');
</script>

<svelte:window
  onkeydown={(e) => e.key === 'Escape' && !document.querySelector('dialog[open]') && (open = false)}
  onpointerdown={(e) => open && !d.progress && isBeside(e.target as Element) && (open = false)}
/>

<div class="relative ml-auto" bind:this={root}>
  <div class="flex items-center gap-2 rounded-full bg-[#33463b] py-1 pr-1.5 pl-3 whitespace-nowrap">
    <Button
      look="bare"
      class="flex cursor-pointer items-center gap-2 pointer-coarse:min-h-10"
      aria-expanded={open}
      onclick={() => (open = !open)}
      data-testid="chip"
    >
      <i class="h-[9px] w-[9px] rounded-full" class:animate-ping={d.blinks} style="background: {dot}"></i><span
        class="max-[760px]:sr-only">{d.unit.name}</span
      ><span class={language.code === 'en' ? 'max-[1200px]:hidden' : 'max-[1380px]:hidden'}>· {word(words)}</span
      >{#if d.powered && d.charge !== undefined}<span class="tabular-nums"> · {Math.round(d.charge * 100)} %</span>{/if}
    </Button>
    {#if !d.plugged}<Button look="ghost" class="rounded-full px-3 py-1" onclick={() => plug()}>{say('Plug in')}</Button
      >{:else}<Button
        look="go"
        size="sm"
        class="rounded-full px-3"
        disabled={!!d.progress || !!d.drive || (d.running && !d.canInterrupt)}
        onclick={() => send()}>{say('Send')}</Button
      >{/if}
  </div>
  {#if d.drive}
    {#await import('./DriveWindow.svelte') then { default: DriveWindow }}<DriveWindow />{/await}
  {/if}
  {#if open}
    {#await import('./DevicePanel.svelte') then { default: Panel }}
      <Panel {words} {plug} {unplug} {send} close={() => (open = false)} />
    {/await}
  {/if}
</div>
