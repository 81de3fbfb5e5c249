<script lang="ts">
  import Button from '../../ui/Button.svelte';
  import { language } from '../../language.svelte.ts';
  import { later, say, word } from '../../../../core/words.ts';
  import { useWorkbench } from '../workbench.svelte.ts';
  const w = useWorkbench();
  const d = w.device;
  let open = $state(false);
  const dot = $derived(
    {
      'not plugged in': '#9aa396',
      'library missing': '#e8a06a',
      ready: '#8fd16f',
      sending: '#e0b65a',
      'busy running': '#8fd16f',
      'on battery': '#e0b65a',
      flat: '#e8846a'
    }[d.status]
  );
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
  async function plug() {
    await d.plugIn();
    open = true;
  }
  function unplug() {
    d.unplug();
    if (!w.runs.busy) w.runs.shown = 'device';
  }
  async function send() {
    open = true;
    await d.send();
  }
  let root: HTMLElement;
  /** what is taken back in a toast was done here */
  const isBeside = (at: Element) => !root.contains(at) && !at.closest('[data-toasts]');
</script>

<svelte:window
  onkeydown={(e) => e.key === 'Escape' && (open = false)}
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
      <i class="h-[9px] w-[9px] rounded-full" style="background: {dot}"></i><span class="max-[760px]:sr-only"
        >{d.unit.name}</span
      ><span class={language.code === 'en' ? 'max-[1200px]:hidden' : 'max-[1380px]:hidden'}>· {word(words)}</span
      >{#if d.powered && d.charge !== undefined}<span class="tabular-nums"> · {Math.round(d.charge * 100)} %</span>{/if}
    </Button>
    {#if !d.plugged}<Button look="ghost" class="rounded-full px-3 py-1" onclick={plug}>{say('Plug in')}</Button
      >{:else}<Button
        look="go"
        size="sm"
        class="rounded-full px-3"
        disabled={!!d.progress || (d.running && !d.canInterrupt)}
        onclick={send}>{say('Send')}</Button
      >{/if}
  </div>
  {#if open}
    {#await import('./DevicePanel.svelte') then { default: Panel }}
      <Panel {words} {plug} {unplug} {send} close={() => (open = false)} />
    {/await}
  {/if}
</div>
