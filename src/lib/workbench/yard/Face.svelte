<script lang="ts">
  import Button from '../../ui/Button.svelte';
  import { say, word } from '../../../../core/words.ts';
  import Dots from '../../ui/Dots.svelte';
  import { GLOW } from '../../ui/lamp-colours.ts';
  import { lampsOf, touchesOf } from '../../../../core/kit/kit.ts';
  import { holds } from '../../ui/holds.ts';
  import { useWorkbench } from '../workbench.svelte.ts';
  const w = useWorkbench();
  const view = $derived(w.runs.view);
  const kit = $derived(w.session.project.kit);
  const lamps = $derived(lampsOf(kit));
  const touches = $derived(touchesOf(kit));
  const device = $derived(w.runs.shown === 'device');
  let hovered = $state('');
  let nose = $state(false);
  function touch(down: boolean) {
    if (nose === down) return;
    nose = down;
    w.give({ nose: down });
  }
</script>

<div class="relative">
  <div
    class="flex items-center gap-3 border-b border-rule bg-linen px-3 py-1.5"
    role="group"
    aria-label={say('Face of the robot')}
  >
    {#if kit.display}
      <svg
        width="92"
        height="60"
        viewBox="-46 -30 92 60"
        role="img"
        aria-label={say('Display')}
        class="shrink-0"
        data-testid="matrix"
        ><Dots
          display={kit.display}
          picture={device && w.device.offers ? w.device.offered : view?.picture}
          wide={92}
          high={60}
          lit={w.pixel}
          onpixel={(at, over) => {
            hovered = !over ? '' : at ? `x ${at.x}, y ${at.y}` : say('no pixel of the program');
            w.facePixel = at;
          }}
        /></svg
      >
    {/if}
    <div class="min-w-0 flex-1 leading-[1.35]">
      <b class="block truncate" data-testid="whose">{device ? w.device.unit.name : say('Rehearsal')}</b>
      <span class="block truncate text-[13px] text-soft"
        >{hovered || (device ? say('the device itself') : say('as on the kit sheet'))}</span
      >
      <span class="mt-0.5 flex items-center gap-1.5 text-[12px] text-soft">
        {#each lamps as side (side)}
          {@const lamp = view?.lamps[side]}
          <span class="flex items-center gap-1" title={word(side)}
            ><i
              class="inline-block h-2.5 w-2.5 rounded-full border border-[#8a8f82]"
              style="background: {lamp?.on ? GLOW[lamp.colour] : 'transparent'}"
            ></i>{lamps.length > 2
              ? ''
              : `${lamps.length > 1 ? word(side) : word('lamp')}${lamp?.on ? ` ${word(lamp.colour)}` : ''}`}</span
          >
        {/each}
      </span>
    </div>
    <div class="flex shrink-0 gap-[5px]">
      <Button
        class="px-2.5"
        aria-label={say('Dot')}
        title={device && !w.device.running ? say('Dot: starts the program on the device') : say('Dot')}
        {...holds((down) => w.press('Dot', down))}>●</Button
      >
      <Button
        class="px-2.5"
        aria-label={say('Bar')}
        title={device ? say('Bar: hold it for 2 s to stop the program') : say('Bar')}
        {...holds((down) => w.press('Bar', down))}>▬</Button
      >
      {#if touches.includes('nose')}<Button class="px-2.5" title={say('Press on the touch bar')} {...holds(touch)}
          >{say('Nose')}</Button
        >{/if}
      {#if touches.includes('rim')}{#await import('./RimPad.svelte') then { default: RimPad }}<RimPad
            press={(rim, touched) => w.give({ rim, touched })}
          />{/await}{/if}
    </div>
  </div>
</div>
