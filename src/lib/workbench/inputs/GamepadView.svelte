<script lang="ts">
  import Remark from '../../ui/Remark.svelte';
  import Table from '../../ui/Table.svelte';
  import Slide from '../../ui/Slide.svelte';
  import { say } from '../../../../core/words.ts';
  import { useWorkbench } from '../workbench.svelte.ts';
  import { GamepadReader, STICKS, stickValue } from './gamepad.svelte.ts';
  const w = useWorkbench();
  const g = $derived(w.gamepad);
  const names: Record<(typeof STICKS)[number], () => string> = {
    'left, left-right': () => say('left, left-right'),
    'left, up-down': () => say('left, up-down'),
    'right, left-right': () => say('right, left-right'),
    'right, up-down': () => say('right, up-down')
  };
</script>

{#if !GamepadReader.possible}
  <Remark tone="ink" role={null}>
    {say(
      'This browser withholds gamepads from this page, because it was not opened over a secure address. Open Moss Bell on this computer at localhost, or over https.'
    )}
  </Remark>
{:else if !g?.name}
  <p class="text-soft">
    {g?.lost
      ? say('The gamepad is unplugged. Its sticks count as let go.')
      : say('Plug a gamepad in and press one of its buttons.')}
  </p>
{:else}
  <p class="truncate text-soft" data-testid="gamepad">{g.name}</p>
  <Table class="text-[13px]">
    <thead class="text-left text-[12px] text-soft"
      ><tr
        ><th>{say('stick')}</th><th class="text-right">{say('gives')}</th><th class="text-right">{say('has given')}</th
        ><th class="text-right">{say('the program reads')}</th></tr
      ></thead
    >
    <tbody>
      {#each STICKS as stick, i (stick)}
        <tr class="border-t border-rule"
          ><td class="py-0.5">{names[stick]()}</td><td class="text-right font-mono">{(g.raw[i] ?? 0).toFixed(2)}</td><td
            class="text-right font-mono">{(g.least[i] ?? 0).toFixed(2)} … {(g.most[i] ?? 0).toFixed(2)}</td
          ><td class="text-right font-mono" data-testid="stick-{i}">{stickValue(g.raw[i] ?? 0, i, g.deadZone)} %</td
          ></tr
        >
      {/each}
    </tbody>
  </Table>
  <label class="flex items-center gap-2"
    >{say('dead zone')}
    <Slide class="flex-1" min="0" max="0.4" step="0.01" bind:value={g.deadZone} />
    <span class="w-12 text-right font-mono">{Math.round(g.deadZone * 100)} %</span></label
  >
{/if}
