<script lang="ts">
  import Choice from '../ui/Choice.svelte';
  import Button from '../ui/Button.svelte';
  import { say } from '../../../core/words.ts';
  import BookOpen from '@lucide/svelte/icons/book-open';
  import FileDown from '@lucide/svelte/icons/file-down';
  import Volume2 from '@lucide/svelte/icons/volume-2';
  import VolumeX from '@lucide/svelte/icons/volume-x';
  import NameDialog from '../ui/NameDialog.svelte';
  import LanguageChoice from '../ui/LanguageChoice.svelte';
  import ThemeButton from '../ui/ThemeButton.svelte';
  import TopBar from '../ui/TopBar.svelte';
  import SaveState from '../project/SaveState.svelte';
  import { saveFile } from '../shelf/files.ts';
  import { SPEEDS } from './runs.svelte.ts';
  import DeviceChip from './send/DeviceChip.svelte';
  import { useWorkbench } from './workbench.svelte.ts';
  const w = useWorkbench();
  const { runs, session } = w;
  let names: NameDialog;
  const clock = $derived.by(() => {
    const s = runs.playheadUs / 1e6;
    return `${String(Math.floor(s / 60)).padStart(2, '0')}:${(s % 60).toFixed(2).padStart(5, '0')}`;
  });
  async function rename() {
    const name = await names.ask(say('What shall the project be called?'), 'name', session.project.name);
    if (name) session.change(say('rename the project'), { ...session.project, name });
  }
  function step() {
    if (runs.busy) runs.go('into');
    else w.rehearse({ paused: true });
  }
</script>

<TopBar>
  {#snippet name()}<div class="w-[180px] min-w-[90px] shrink max-[1200px]:w-[118px] leading-tight">
      <Button
        look="bare"
        class="block max-w-full cursor-pointer truncate text-left font-display text-[17px] font-semibold"
        title={say('Rename')}
        onclick={rename}><h1 class="inline text-[17px]">{session.project.name}</h1></Button
      ><SaveState {session} />
    </div>{/snippet}
  <Button look="ghost" href="/project/{session.id}/kit">{say('Kit sheet')}</Button>
  <Button
    look="ghost"
    class="px-2 max-[1240px]:hidden"
    href="/handbook"
    target="_blank"
    aria-label={say('Handbook')}
    title={say('Handbook')}><BookOpen size={17} /></Button
  >

  {#if runs.waits}<Button look="go" onclick={() => runs.input({ word: true })} data-testid="setoff"
      >{say('Set off')}</Button
    >{/if}
  {#if runs.state === 'paused'}<Button look="go" onclick={() => runs.go('on')}>{say('▶ Go on')}</Button>
  {:else}<Button look="go" onclick={() => w.rehearse()} data-testid="rehearse">{say('▶ Rehearse')}</Button>{/if}
  <Button look="ghost" disabled={runs.state !== 'running'} onclick={() => runs.pause()}>{say('Pause')}</Button>
  <Button look="ghost" disabled={runs.state === 'running'} onclick={step}>{say('Step')}</Button>
  <Button look="ghost" disabled={!runs.busy} onclick={() => runs.stop()}>{say('Stop')}</Button>
  <span class="w-[74px] font-mono text-[14px] opacity-90" data-testid="clock" aria-label={say('Clock')}>{clock}</span>
  <Choice
    look="ghost"
    class="w-[66px] shrink-0"
    aria-label={say('Speed')}
    title={say('Speed; max is as fast as it goes')}
    value={runs.speed}
    onchange={(e) => runs.setSpeed(Number(e.currentTarget.value))}
  >
    {#each SPEEDS as s (s)}<option value={s}>{s === Infinity ? 'max' : `${s}×`}</option>{/each}
  </Choice>
  <Button
    look="ghost"
    class="px-2"
    aria-label={w.muted ? say('Sound on') : say('Sound off')}
    title={w.muted ? say('Sound on') : say('Sound off')}
    onclick={() => (w.muted = !w.muted)}
    >{#if w.muted}<VolumeX size={17} />{:else}<Volume2 size={17} />{/if}</Button
  >
  <Button
    look="ghost"
    class="px-2 max-[1100px]:hidden"
    aria-label={say('Save as a file')}
    title={say('Save as a file')}
    onclick={() => saveFile(session.project)}><FileDown size={17} /></Button
  >
  <span class="max-[1100px]:hidden"><ThemeButton /></span>
  <span class="max-[1380px]:hidden"><LanguageChoice /></span>
  <DeviceChip />
</TopBar>
<NameDialog bind:this={names} />
