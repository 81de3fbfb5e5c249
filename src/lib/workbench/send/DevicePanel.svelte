<!-- The device: which one, on what cable, in what state, and what can be done with it. -->
<script lang="ts">
  import Accordion from 'flowbite-svelte/Accordion.svelte';
  import { CABLES } from '../../../../board/standin/cable.ts';
  import { CONDITIONS } from '../../../../board/standin/memory.ts';
  import { say, word } from '../../../../core/words.ts';
  import { download, fileName } from '../../shelf/files.ts';
  import Button from '../../ui/Button.svelte';
  import Choice from '../../ui/Choice.svelte';
  import Fold from '../../ui/Fold.svelte';
  import Progress from '../../ui/Progress.svelte';
  import Remark from '../../ui/Remark.svelte';
  import { talk } from './device.svelte.ts';
  import { BAUDS } from './serial.ts';
  import ClassSet from './ClassSet.svelte';
  import Faults from './Faults.svelte';
  import Programs from './Programs.svelte';
  import { useWorkbench } from '../workbench.svelte.ts';
  let {
    words,
    plug,
    unplug,
    send,
    close
  }: {
    /** its state */ words: string;
    plug: (holdingDot?: boolean) => void;
    unplug: () => void;
    send: (start?: boolean) => void;
    close: () => void;
  } = $props();
  const w = useWorkbench();
  const d = $derived(w.device);
  const LOW = 360;
  let folds = $state({ more: false, faults: false });
  let classSet = $state(false);
  let innerHeight = $state(0);
  let panel = $state<HTMLElement>();
  /** It lies over yard and program, and leaves the trace free where there is room for that. */
  const room = $derived.by(() => {
    const top = panel?.getBoundingClientRect().top ?? 0;
    const trace = document.querySelector('#below')?.getBoundingClientRect().top ?? 0;
    return (trace - top > LOW ? trace : innerHeight) - top - 8;
  });
  const faults = $derived([
    ...(d.cableName === 'good' ? [] : [word(CABLES[d.cableName])]),
    ...(d.condition === 'ready' ? [] : [word(CONDITIONS[d.condition])]),
    ...(d.givesOut ? [say('a battery that gives out')] : [])
  ]);
  const noMicroPython = $derived(
    d.drive ? !d.drive.memory.firmware : ['factory', 'other firmware', 'old MicroPython'].includes(d.trouble ?? '')
  );
  async function save() {
    const { programFile } = await talk();
    const { project } = w.session;
    const { text } = await d.textOf(project);
    const file = programFile(text, { name: project.name, at: Date.now(), device: project.kit.device });
    download(`${fileName(project.name)}.device.py`, file, 'text/x-python');
  }
  async function saveLibrary() {
    const { boardLibrary, libraryFile } = await talk();
    const { text, version } = await boardLibrary();
    download('mossbell-library.device.py', libraryFile(text, version), 'text/x-python');
  }
</script>

<svelte:window bind:innerHeight />
<div
  bind:this={panel}
  style:max-height="{room}px"
  class="absolute top-[calc(100%+10px)] right-0 z-50 flex w-[min(410px,calc(100vw-24px))] flex-col gap-3 overflow-y-auto rounded-xl border border-rule bg-card p-4 text-ink shadow-xl"
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
      onchange={(e) => w.devices.choose(e.currentTarget.value)}
    >
      {#each w.devices.fitting as one (one.unit.serial)}<option>{one.unit.name}</option>{/each}
      <optgroup label={say('for other kits')}>
        {#each w.devices.others as one (one.unit.serial)}<option>{one.unit.name}</option>{/each}
      </optgroup>
      {#if w.devices.board}<optgroup label={say('no stand-in')}>
          <option>{w.devices.board.unit.name}</option>
        </optgroup>{/if}
    </Choice>
  </label>
  {#if faults.length}<Remark tone="ink" role={null} data-testid="faults-on"
      >{say('Switched on for a lesson: {faults}.', { faults: faults.join(', ') })}</Remark
    >{/if}
  <dl class="grid grid-cols-[1fr_auto] gap-y-1 rounded-lg bg-linen px-3 py-2">
    <dt class="text-soft">{say('State')}</dt>
    <dd data-testid="state">{word(words)}</dd>
    {#if d.powered && d.charge !== undefined}
      <dt class="text-soft">{say('Battery')}</dt>
      <dd class="tabular-nums">{Math.round(d.charge * 100)} %</dd>{/if}
  </dl>
  {#if d.progress && !d.drive}
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
  {#if d.replaces}
    <div class="rounded-lg border border-rule bg-paper p-3" role="alertdialog" aria-label={say('Another version')}>
      <p class="mb-2">
        {say('Program {number} on {device} is called "{name}" too, and is another version.', {
          number: d.replaces.old.number,
          device: d.unit.name,
          name: w.session.project.name
        })}
      </p>
      <div class="flex gap-2">
        <Button look="go" size="sm" onclick={() => d.replaces?.answer(true)}>{say('Replace it')}</Button><Button
          size="sm"
          onclick={() => d.replaces?.answer(false)}>{say('Keep both')}</Button
        >
      </div>
    </div>
  {/if}
  {#if d.message && !d.drive}<Remark
      tone={d.mood === 'bad' ? 'clay' : 'moss'}
      role="status"
      data-testid="device-message"
    >
      {d.message}
    </Remark>{/if}
  {#if d.offers}<Remark tone="calm" role="status" data-testid="offers">
      {say('Its display shows {number}: Bar goes on to the next program, Dot takes this one.', { number: d.offers })}
    </Remark>{/if}
  {#if noMicroPython && !d.progress && !d.real}<div>
      <Button look="go" onclick={() => d.install('micropython')}>{say('Install MicroPython')}</Button>
    </div>{/if}
  {#if d.waiting.length && !d.running}<Remark tone="moss" role={null} data-testid="waiting">
      {say(
        '{n, plural, one {It ran once on its own.} other {It ran # times on its own.}} Plug it in, or bring it near, to see in the trace what it did.',
        { n: d.waiting.length }
      )}
    </Remark>{/if}
  <div class="flex flex-wrap gap-2">
    {#if d.plugged}<Button onclick={unplug}>{say('Unplug')}</Button>{:else}<Button look="go" onclick={() => plug()}
        >{say('Plug in')}</Button
      >{#if !d.real}<Button
          tip={say('Dot is held while the cable goes in: the device appears as a drive that takes a file.')}
          onclick={() => plug(true)}>{say('As a drive, Dot held')}</Button
        >{/if}{/if}
    {#if d.progress && !d.drive}<Button onclick={() => d.cancel()}>{say('Cancel')}</Button
      >{:else if d.plugged && !d.drive}<Button look="go" onclick={() => send()}>{say('Send the program')}</Button
      ><Button onclick={() => send(true)}>{say('Send and start')}</Button>{/if}
    {#if d.powered && !d.progress && !d.drive && !d.real}
      {#if d.running}<Button onclick={() => d.halt()} disabled={!d.canInterrupt}>{say('Stop its program')}</Button
        >{:else}<Button onclick={() => d.pressDot()}>{say('Press Dot')}</Button><Button
          tip={say('While it waits, Bar steps through the programs by number, and Dot takes the one that is shown.')}
          onclick={() => d.press('Bar', true)}>{say('Press Bar')}</Button
        >{/if}
    {/if}
  </div>
  {#if d.powered && !d.plugged}<label class="flex items-center justify-between gap-3"
      >{say('Its radio')}
      <Choice size="sm" value={d.near ? 'near' : 'far'} onchange={(e) => d.carry(e.currentTarget.value === 'near')}
        ><option value="near">{say('reaches this computer')}</option><option value="far"
          >{say('is out of reach')}</option
        ></Choice
      >
    </label>{/if}
  {#if d.plugged && !d.drive}<Programs />{/if}
  <Accordion flush multiple class="border-t border-rule pt-2">
    <Fold title={say('More')} open={folds.more} onopen={(open) => (folds.more = open)}>
      {#if d.found && d.plugged}<dl class="mb-2 grid grid-cols-[1fr_auto] gap-y-1">
          <dt class="text-soft">{say('Firmware')}</dt>
          <dd>MicroPython {d.found.micropython}</dd>
          <dt class="text-soft">{say('Board library')}</dt>
          <dd>
            {!d.found.library
              ? say('missing')
              : d.status === 'library old'
                ? say('{version}, old', { version: d.found.library })
                : d.found.library}
          </dd>
        </dl>{/if}
      <div class="flex flex-wrap gap-1.5">
        <Button size="sm" tip={say('One file for the drive of the device.')} onclick={save}
          >{say('Save for the device')}</Button
        >
        <Button size="sm" onclick={saveLibrary}>{say('Save the board library')}</Button>
        <Button size="sm" onclick={() => (classSet = true)}>{say('The devices of the class')}</Button>
        <Button
          size="sm"
          disabled={!d.found?.library || !d.plugged || d.running || !!d.progress}
          onclick={() => d.showWhich()}>{say('Which is it?')}</Button
        >
        {#if d.real}
          <label class="flex items-center gap-2 text-[13.5px]"
            >{say('Speed of the port')}
            <Choice
              size="sm"
              value={String(d.baud)}
              disabled={d.plugged}
              onchange={(e) => (d.baud = Number(e.currentTarget.value))}
              >{#each BAUDS as baud (baud)}<option value={String(baud)}>{baud}</option>{/each}</Choice
            ></label
          >
          <Button size="sm" disabled={!d.plugged || !!d.progress} onclick={() => d.reset()}
            >{say('Reset the board')}</Button
          >
          <Button size="sm" href="/project/{w.session.id}/kit/pins">{say('Pins')}</Button>
        {:else}
          <Button size="sm" disabled={d.running || !!d.progress} onclick={() => d.install('micropython')}
            >{say('Install MicroPython')}</Button
          >
          <Button size="sm" disabled={d.running || !!d.progress} onclick={() => d.install('factory')}
            >{say('Put the factory demo back')}</Button
          >
        {/if}
      </div>
    </Fold>
    {#if !d.real}<Fold title={say('Faults for a lesson')} open={folds.faults} onopen={(open) => (folds.faults = open)}>
        <Faults />
      </Fold>{/if}
  </Accordion>
  {#if !d.canInterrupt}<p class="text-[12.5px] text-soft">
      {say(
        'This page is not cross-origin isolated, so a running device cannot be reached until its program ends. Open Moss Bell at the address it printed when it started.'
      )}
    </p>{/if}
</div>
{#if classSet}<ClassSet bind:open={classSet} />{/if}
