<script lang="ts">
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
    if (!d.plugged) await d.plugIn();
    await d.send();
  }
  let root: HTMLElement;
</script>

<svelte:window
  onkeydown={(e) => e.key === 'Escape' && (open = false)}
  onpointerdown={(e) => open && !d.progress && !root.contains(e.target as Node) && (open = false)}
/>

<div class="relative ml-auto" bind:this={root}>
  <div class="flex items-center gap-2 rounded-full bg-[#33463b] py-1 pr-1.5 pl-3 whitespace-nowrap">
    <button
      class="flex cursor-pointer items-center gap-2"
      aria-expanded={open}
      onclick={() => (open = !open)}
      data-testid="chip"
    >
      <i class="h-[9px] w-[9px] rounded-full" style="background: {dot}"></i>{d.unit.name}<span
        class={language.code === 'en' ? 'max-[1200px]:hidden' : 'max-[1380px]:hidden'}>· {word(words)}</span
      >{#if d.powered && d.charge !== undefined}<span class="tabular-nums"> · {Math.round(d.charge * 100)} %</span>{/if}
    </button>
    {#if !d.powered}<button class="btn btn-ghost !rounded-full !px-3 !py-1" onclick={plug}>{say('Plug in')}</button
      >{:else}<button
        class="btn btn-go !rounded-full !px-3 !py-1"
        disabled={!!d.progress || (d.running && !d.canInterrupt)}
        onclick={send}>{say('Send')}</button
      >{/if}
  </div>
  {#if open}
    <div
      class="absolute top-[calc(100%+10px)] right-0 z-50 flex w-[390px] flex-col gap-3 rounded-xl border border-rule bg-card p-4 text-ink shadow-xl"
      role="region"
      aria-label={say('Device')}
    >
      <div class="flex items-center justify-between">
        <h2 class="text-[17px]">{say('The device')}</h2>
        <button class="chip" onclick={() => (open = false)}>{say('Close')}</button>
      </div>
      <label class="flex items-center justify-between gap-3"
        >{say('Stand-in in the yard')}
        <select
          class="field !py-1"
          value={d.unit.name}
          disabled={!!d.progress || d.running}
          onchange={(e) => d.choose(e.currentTarget.value)}
          >{#each d.units as s (s.serial)}<option>{s.name}</option>{/each}</select
        >
      </label>
      <label class="flex items-center justify-between gap-3"
        >{say('What hangs on it')}
        <select
          class="field !py-1"
          value={d.chargesOnly ? 'charge' : 'data'}
          disabled={!!d.progress || d.plugged}
          onchange={(e) => (d.chargesOnly = e.currentTarget.value === 'charge')}
          ><option value="data">{say('a data cable')}</option><option value="charge">{say('a charging cable')}</option
          ></select
        >
      </label>
      <dl class="grid grid-cols-[1fr_auto] gap-y-1 rounded-lg bg-linen px-3 py-2">
        <dt class="text-soft">{say('State')}</dt>
        <dd data-testid="state">{word(words)}</dd>
        <dt class="text-soft">{say('Cable')}</dt>
        <dd>{d.plugged ? say('plugged in') : say('unplugged')}</dd>
        {#if d.powered}<dt class="text-soft">{say('Board library')}</dt>
          <dd>{d.hasLibrary ? say('there') : say('missing')}</dd>
          <dt class="text-soft">{say('Battery')}</dt>
          <dd class="tabular-nums">{Math.round((d.charge ?? 0) * 100)} %</dd>{/if}
      </dl>
      {#if d.progress}
        <div>
          <p class="mb-1">{d.progress.says}</p>
          <div
            class="h-2 w-full overflow-hidden rounded-full bg-linen"
            role="progressbar"
            aria-label={d.progress.says}
            aria-valuenow={Math.round(d.progress.share * 100)}
            aria-valuemin="0"
            aria-valuemax="100"
          >
            <div class="h-full rounded-full bg-brass transition-[width]" style="width: {d.progress.share * 100}%"></div>
          </div>
        </div>
      {/if}
      {#if d.question}
        <div class="rounded-lg border border-rule bg-paper p-3" role="alertdialog" aria-label={say('Board library')}>
          <p class="mb-2">
            {say(
              '{name} has MicroPython {micropython}, but {x}. Programs need it. Put it there? It takes a moment, once.',
              {
                name: d.unit.name,
                micropython: d.question.found.micropython,
                x: d.question.found.library
                  ? say('an old board library ({version})', { version: d.question.found.library })
                  : say('no board library')
              }
            )}
          </p>
          <div class="flex gap-2">
            <button class="btn btn-go !py-1" onclick={() => d.question?.answer(true)}
              >{say('Install the library')}</button
            ><button class="btn btn-plain !py-1" onclick={() => d.question?.answer(false)}>{say('Not now')}</button>
          </div>
        </div>
      {/if}
      {#if d.message}<p
          class={d.mood === 'bad' ? 'remark text-clay' : 'rounded-[10px] bg-[var(--mosswash)] px-3 py-2 text-moss'}
          role="status"
          data-testid="device-message"
        >
          {d.message}
        </p>{/if}
      {#if d.unread}<p class="rounded-[10px] bg-[var(--mosswash)] px-3 py-2 text-moss">
          {say('It ran on its own. Plug it in to see in the trace what it did.')}
        </p>{/if}
      <div class="flex flex-wrap gap-2">
        {#if d.plugged}<button class="btn btn-plain" onclick={unplug}>{say('Unplug')}</button>{:else}<button
            class="btn btn-go"
            onclick={plug}>{say('Plug in')}</button
          >{/if}
        {#if d.progress}<button class="btn btn-plain" onclick={() => d.cancel()}>{say('Cancel')}</button
          >{:else if d.plugged}<button class="btn btn-go" onclick={send}>{say('Send the program')}</button>{/if}
        {#if d.powered && !d.progress}
          {#if d.running}<button class="btn btn-plain" onclick={() => d.halt()} disabled={!d.canInterrupt}
              >{say('Stop its program')}</button
            >{:else}<button class="btn btn-plain" onclick={() => d.pressDot()}>{say('Press Dot')}</button>{/if}
        {/if}
      </div>
      {#if !d.canInterrupt}<p class="text-[12.5px] text-soft">
          {say(
            'This page is not cross-origin isolated, so a running device cannot be reached until its program ends. Open Moss Bell at the address it printed when it started.'
          )}
        </p>{/if}
    </div>
  {/if}
</div>
