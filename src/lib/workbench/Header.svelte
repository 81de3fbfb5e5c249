<script lang="ts">
  import Choice from '../ui/Choice.svelte';
  import Button from '../ui/Button.svelte';
  import { say } from '../../../core/words.ts';
  import BookOpen from '@lucide/svelte/icons/book-open';
  import Volume2 from '@lucide/svelte/icons/volume-2';
  import VolumeX from '@lucide/svelte/icons/volume-x';
  import NameDialog from '../ui/NameDialog.svelte';
  import Menu from '../ui/Menu.svelte';
  import MenuItem from '../ui/MenuItem.svelte';
  import { language, LANGUAGES, type Code } from '../language.svelte.ts';
  import { screen } from '../ui/screen.svelte.ts';
  import { theme } from '../ui/theme.svelte.ts';
  import TopBar from '../ui/TopBar.svelte';
  import SaveState from '../project/SaveState.svelte';
  import { saveFile } from '../shelf/files.ts';
  import { SPEEDS } from './runs.svelte.ts';
  import DeviceChip from './send/DeviceChip.svelte';
  import { useWorkbench } from './workbench.svelte.ts';
  const w = useWorkbench();
  const { runs, session } = w;
  let names: NameDialog;
  let linking = $state(false);
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
  {#snippet name()}<div class="min-w-[64px] flex-[0_1_220px] leading-tight">
      <Button
        look="bare"
        class="block max-w-full cursor-pointer truncate text-left font-display text-[17px] font-semibold pointer-coarse:h-10"
        title="{session.project.name} · {say('Rename')}"
        onclick={rename}><h1 class="inline text-[17px]">{session.project.name}</h1></Button
      ><SaveState {session} />
    </div>{/snippet}
  {#if screen.wide}
    <Button
      look="ghost"
      href="/project/{session.id}/kit"
      tip={say('How this device is built: which part sits in which socket, and what was measured.')}
      >{say('Kit sheet')}</Button
    >
    <Button
      look="ghost"
      class="px-2"
      href="/handbook"
      target="_blank"
      aria-label={say('Handbook')}
      title={say('Handbook')}><BookOpen size={17} /></Button
    >
  {/if}

  {#if runs.waits}<Button look="go" onclick={() => runs.input({ word: true })} data-testid="setoff"
      >{say('Set off')}</Button
    >{/if}
  {#if runs.state === 'paused'}<Button look="go" onclick={() => runs.go('on')}>{say('▶ Go on')}</Button>
  {:else}<Button
      look="go"
      onclick={() => w.rehearse()}
      data-testid="rehearse"
      tip={say('Lets the program run here in the yard, with the physics of the device, before it is sent.')}
      >{say('▶ Rehearse')}</Button
    >{/if}
  {#if screen.wide}
    <Button look="ghost" disabled={runs.state !== 'running'} onclick={() => runs.pause()}>{say('Pause')}</Button>
    <Button look="ghost" disabled={runs.state === 'running'} onclick={step}>{say('Step')}</Button>
  {/if}
  <Button look="ghost" disabled={!runs.busy} onclick={() => runs.stop()}>{say('Stop')}</Button>
  <span
    class="w-[74px] font-mono text-[14px] opacity-90 max-[760px]:hidden"
    data-testid="clock"
    aria-label={say('Clock')}>{clock}</span
  >
  {#if screen.wide}
    {@render speed('ghost')}
    <Button
      look="ghost"
      class="px-2"
      aria-label={w.muted ? say('Sound on') : say('Sound off')}
      title={w.muted ? say('Sound on') : say('Sound off')}
      onclick={() => (w.muted = !w.muted)}
      >{#if w.muted}<VolumeX size={17} />{:else}<Volume2 size={17} />{/if}</Button
    >
  {/if}
  <Menu look="ghost" label={say('More of Moss Bell')} title={say('Files, worksheet, language, theme')}>
    {#if !screen.wide}
      <MenuItem disabled={runs.state !== 'running'} onclick={() => runs.pause()}>{say('Pause')}</MenuItem>
      <MenuItem disabled={runs.state === 'running'} onclick={step}>{say('Step')}</MenuItem>
      <MenuItem onclick={() => (w.muted = !w.muted)}>{w.muted ? say('Sound on') : say('Sound off')}</MenuItem>
      <li class="flex items-center justify-between gap-2 px-2.5 py-1">{say('Speed')} {@render speed('box')}</li>
      <hr class="my-1 border-rule" />
      <MenuItem href="/project/{session.id}/kit">{say('Kit sheet')}</MenuItem>
    {/if}
    <MenuItem href="/handbook" target="_blank">{say('Handbook')}</MenuItem>
    <MenuItem onclick={() => saveFile(session.project)}>{say('Save as a file')}</MenuItem>
    {#if !session.of.looks}<MenuItem onclick={() => (linking = true)}>{say('A link for the room')}</MenuItem>{/if}
    <MenuItem href="/project/{session.id}/worksheet">{say('Worksheet to print')}</MenuItem>
    {#if session.project.text === undefined}<MenuItem href="/project/{session.id}/errand"
        >{say('Make an errand of it')}</MenuItem
      >{/if}
    <MenuItem onclick={() => (w.keysOpen = true)}>{say('Keys')}</MenuItem>
    <hr class="my-1 border-rule" />
    <MenuItem onclick={() => theme.change()}>{theme.dark ? say('Light theme') : say('Dark theme')}</MenuItem>
    {#each Object.entries(LANGUAGES) as [code, name] (code)}{#if code !== language.code}<MenuItem
          onclick={() => void language.choose(code as Code)}>{name}</MenuItem
        >{/if}{/each}
  </Menu>
  <DeviceChip />
</TopBar>
{#snippet speed(look: 'ghost' | 'box')}<Choice
    {look}
    class="w-[66px] shrink-0"
    aria-label={say('Speed')}
    title={say('Speed; max is as fast as it goes')}
    value={runs.speed}
    onchange={(e) => runs.setSpeed(Number(e.currentTarget.value))}
  >
    {#each SPEEDS as s (s)}<option value={s}>{s === Infinity ? 'max' : `${s}×`}</option>{/each}
  </Choice>{/snippet}
<NameDialog bind:this={names} />
{#if linking}{#await import('../project/LinkDialog.svelte') then { default: LinkDialog }}<LinkDialog
      bind:open={linking}
      id={session.id}
    />{/await}{/if}
