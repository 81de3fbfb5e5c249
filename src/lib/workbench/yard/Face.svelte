<script lang="ts">
  import Button from '../../ui/Button.svelte';
  import { say, word } from '../../../../core/words.ts';
  import { DARK, levelOf, pixelShownAt, shownAs } from '../../../../core/language/pixels.ts';
  import { lampsOf, touchesOf } from '../../../../core/kit/kit.ts';
  import { holds } from '../../ui/holds.ts';
  import { useWorkbench } from '../workbench.svelte.ts';
  const w = useWorkbench();
  const view = $derived(w.runs.view);
  const kit = $derived(w.session.project.kit);
  /** what the program calls the lamp at a place of the display, however that is mounted */
  const called = (i: number) => pixelShownAt(i % 7, Math.floor(i / 7), kit.display?.turnedDeg ?? 0);
  const flat = $derived(shownAs(view?.picture ?? DARK, kit.display?.turnedDeg ?? 0).replaceAll(' ', ''));
  const lamps = $derived(lampsOf(kit));
  const touches = $derived(touchesOf(kit));
  const device = $derived(w.runs.shown === 'device');
  let hovered = $state('');
  let nose = $state(false);
  const COLOUR: Record<string, string> = {
    amber: '#ffcf5a',
    red: '#ff8571',
    green: '#8fd16f',
    blue: '#86b4ff',
    violet: '#c9a3f2',
    white: '#ffffff'
  };

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
    <svg
      width="92"
      height="60"
      viewBox="0 0 92 60"
      role="img"
      aria-label={say('Matrix of lamps')}
      class="shrink-0"
      data-testid="matrix"
    >
      <rect width="92" height="60" rx="9" fill="#26352c" />
      {#each { length: 35 } as _, i (i)}
        <rect
          x={8 + (i % 7) * 11}
          y={4 + Math.floor(i / 7) * 10.6}
          width="8"
          height="8"
          rx="2"
          fill={levelOf(flat[i]) ? `color-mix(in srgb, #ffcf5a ${20 + levelOf(flat[i]) * 0.8}%, #43564a)` : '#43564a'}
          stroke={w.pixel && called(i)?.x === w.pixel.x && called(i)?.y === w.pixel.y ? '#ffffff' : 'none'}
          stroke-width="1.6"
          role="presentation"
          onpointerenter={() => {
            const at = called(i);
            hovered = at ? `x ${at.x}, y ${at.y}` : say('no pixel of the program');
            w.facePixel = at;
          }}
          onpointerleave={() => {
            hovered = '';
            w.facePixel = undefined;
          }}
        />
      {/each}
    </svg>
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
              style="background: {lamp?.on ? COLOUR[lamp.colour] : 'transparent'}"
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
