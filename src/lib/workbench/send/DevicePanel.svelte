<!-- The device: which one, on what cable, in what state, and what can be done with it. -->
<script lang="ts">
  import Remark from '../../ui/Remark.svelte';
  import { say, word } from '../../../../core/words.ts';
  import Button from '../../ui/Button.svelte';
  import Choice from '../../ui/Choice.svelte';
  import Progress from '../../ui/Progress.svelte';
  import Programs from './Programs.svelte';
  import { useWorkbench } from '../workbench.svelte.ts';
  let {
    words,
    plug,
    unplug,
    send,
    close
  }: { /** its state */ words: string; plug: () => void; unplug: () => void; send: () => void; close: () => void } =
    $props();
  const d = useWorkbench().device;
</script>

<div
  class="absolute top-[calc(100%+10px)] right-0 z-50 flex max-h-[calc(100vh-70px)] w-[min(390px,calc(100vw-24px))] flex-col gap-3 overflow-y-auto rounded-xl border border-rule bg-card p-4 text-ink shadow-xl"
  role="region"
  data-testid="device-panel"
  aria-label={say('Device')}
>
  <div class="flex items-center justify-between">
    <h2 class="text-[17px]">{say('The device')}</h2>
    <Button look="quiet" onclick={close}>{say('Close')}</Button>
  </div>
  <label class="flex items-center justify-between gap-3"
    >{say('Stand-in in the yard')}
    <Choice
      size="sm"
      value={d.unit.name}
      disabled={!!d.progress || d.running}
      onchange={(e) => d.choose(e.currentTarget.value)}
      >{#each d.units as s (s.serial)}<option>{s.name}</option>{/each}</Choice
    >
  </label>
  <label class="flex items-center justify-between gap-3"
    >{say('What hangs on it')}
    <Choice
      size="sm"
      value={d.chargesOnly ? 'charge' : 'data'}
      disabled={!!d.progress || d.plugged}
      onchange={(e) => (d.chargesOnly = e.currentTarget.value === 'charge')}
      ><option value="data">{say('a data cable')}</option><option value="charge">{say('a charging cable')}</option
      ></Choice
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
      <Progress says={d.progress.says} share={d.progress.share} />
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
        <Button look="go" size="sm" onclick={() => d.question?.answer(true)}>{say('Install the library')}</Button
        ><Button size="sm" onclick={() => d.question?.answer(false)}>{say('Not now')}</Button>
      </div>
    </div>
  {/if}
  {#if d.message}<Remark tone={d.mood === 'bad' ? 'clay' : 'moss'} role="status" data-testid="device-message">
      {d.message}
    </Remark>{/if}
  {#if d.unread}<Remark tone="moss" role={null}>
      {say('It ran on its own. Plug it in to see in the trace what it did.')}
    </Remark>{/if}
  <div class="flex flex-wrap gap-2">
    {#if d.plugged}<Button onclick={unplug}>{say('Unplug')}</Button>{:else}<Button look="go" onclick={plug}
        >{say('Plug in')}</Button
      >{/if}
    {#if d.progress}<Button onclick={() => d.cancel()}>{say('Cancel')}</Button>{:else if d.plugged}<Button
        look="go"
        onclick={send}>{say('Send the program')}</Button
      >{/if}
    {#if d.powered && !d.progress}
      {#if d.running}<Button onclick={() => d.halt()} disabled={!d.canInterrupt}>{say('Stop its program')}</Button
        >{:else}<Button onclick={() => d.pressDot()}>{say('Press Dot')}</Button>{/if}
    {/if}
  </div>
  {#if d.plugged}<Programs />{/if}
  {#if !d.canInterrupt}<p class="text-[12.5px] text-soft">
      {say(
        'This page is not cross-origin isolated, so a running device cannot be reached until its program ends. Open Moss Bell at the address it printed when it started.'
      )}
    </p>{/if}
</div>
