<!-- The device in the hand: lean, shake, toss, push, lift, press and touch. Everything is an input of the run. -->
<script lang="ts">
  import Table from '../../ui/Table.svelte';
  import Slide from '../../ui/Slide.svelte';
  import Button from '../../ui/Button.svelte';
  import NumberField from '../../ui/NumberField.svelte';
  import { figure, reading } from '../../../../core/units.ts';
  import { say, word } from '../../../../core/words.ts';
  import { hasWheels, touchesOf } from '../../../../core/kit/kit.ts';
  import type { Input } from '../../../../core/trace/trace.ts';
  import { holds } from '../../ui/holds.ts';
  import { sensorsOf } from '../live/sensors.ts';
  import HandBoardShape from '../../ui/HandBoardShape.svelte';
  import { useWorkbench } from '../workbench.svelte.ts';
  import { HandOn } from './hand.svelte.ts';

  /** to and fro with so much: just over 1 g in all */
  const GENTLE_G = 0.6;
  const w = useWorkbench();
  const { runs } = w;
  const others = $derived(runs.shown === 'device' ? [] : (w.session.project.others ?? []));
  /** another device in the yard, or -1 for the first */
  const other = $derived(others.findIndex((o) => o.name === w.handOn));
  const name = $derived(others[other]?.name);
  const kit = $derived(others[other]?.kit ?? w.session.project.kit);
  const view = $derived(other < 0 ? runs.view : runs.viewOf(other));
  const ready = $derived(other < 0 ? w.takesInput : runs.busy && runs.others.length > 0);
  const give = (input: Input) => (name === undefined ? w.give(input) : runs.input(input, name));
  const hand = new HandOn({
    get values() {
      return view?.values;
    },
    give,
    press: (button, down) =>
      name === undefined ? w.press(button, down) : give(down ? { press: button } : { release: button })
  });
  /** what it senses, in a line each */
  const read = $derived(
    view
      ? sensorsOf(kit).map((s) => ({
          ...s,
          value: `${s.key in view.values ? reading(s.key, view.values[s.key], s.digits) : '–'} ${s.unit}`.trim()
        }))
      : []
  );
  const lean = $derived(hand.lean);
  const up = $derived(view?.values.height ?? 0);
  const horns = $derived(Object.fromEntries(kit.parts.map((p) => [p.socket, view?.values[`servo${p.socket}`] ?? 90])));
  const g = (key: string) => figure(view?.values[key] ?? (key === 'accelZ' || key === 'accelTotal' ? 1 : 0), 2);
  let hovered = $state('');
  let drag: { x: number; y: number; sideways: number; forwards: number } | undefined;

  function down(event: PointerEvent) {
    if (!ready || (event.target as Element).closest('[role=button]')) return;
    (event.currentTarget as Element).setPointerCapture(event.pointerId);
    drag = { x: event.clientX, y: event.clientY, sideways: lean.sideways, forwards: lean.forwards };
  }
  function move(event: PointerEvent) {
    if (!drag) return;
    hand.leanTo({
      sideways: drag.sideways + (event.clientX - drag.x) * 0.6,
      forwards: drag.forwards - (event.clientY - drag.y) * 0.6
    });
  }
  function up_() {
    if (drag) hand.keep();
    drag = undefined;
  }
  function keys(event: KeyboardEvent) {
    if (event.target !== event.currentTarget || !ready) return;
    const step = event.shiftKey ? 1 : 5;
    const by: Record<string, () => void> = {
      ArrowLeft: () => hand.leanTo({ sideways: lean.sideways - step }, true),
      ArrowRight: () => hand.leanTo({ sideways: lean.sideways + step }, true),
      ArrowUp: () => hand.leanTo({ forwards: lean.forwards + step }, true),
      ArrowDown: () => hand.leanTo({ forwards: lean.forwards - step }, true),
      Home: () => hand.level()
    };
    if (!(event.key in by)) return;
    event.preventDefault();
    by[event.key]();
    hand.keep();
  }
  const angles = [
    ['sideways', () => say('sideways')],
    ['forwards', () => say('forwards')],
    ['turned', () => say('turned')]
  ] as const;
  const pushes = [
    ['↑', () => say('Push it ahead'), { ahead: 1 }],
    ['←', () => say('Push it to the left'), { right: -1 }],
    ['→', () => say('Push it to the right'), { right: 1 }],
    ['↓', () => say('Push it back'), { ahead: -1 }]
  ] as const;
  function push(by: { ahead?: number; right?: number }) {
    const n = hand.strength;
    give({
      push: {
        ...(by.ahead ? { ahead: by.ahead * n } : {}),
        ...(by.right ? { right: by.right * n } : {}),
        seconds: 0.2
      }
    });
  }
  const lifted = $derived((view?.values.lifted ?? 0) > 0);
</script>

{#snippet tossing()}
  <div class="flex flex-wrap items-center gap-1">
    <Button size="xs" disabled={!ready} onclick={() => give({ toss: hand.height })}>{say('Toss')}</Button>
    <Button size="xs" disabled={!ready} onclick={() => give({ drop: hand.height })}>{say('Drop')}</Button>
    <Slide class="flex-1" min="5" max="150" step="5" bind:value={hand.height} aria-label={say('Height, dragged')} />
    <NumberField
      size="sm"
      class="w-14! text-right"
      min={1}
      max={300}
      bind:value={hand.height}
      aria-label={say('Height of a toss, cm')}
    /><span class="text-soft">cm</span>
  </div>
{/snippet}

<section
  class="flex gap-3 border-b border-rule bg-linen px-3 py-2 text-[12.5px]"
  aria-label={say('Hand')}
  data-testid="hand"
>
  {#if !hasWheels(kit)}
    <!-- svelte-ignore a11y_no_noninteractive_tabindex, a11y_no_noninteractive_element_interactions -->
    <div
      class="relative shrink-0 touch-none rounded-lg outline-offset-2 select-none {ready
        ? 'cursor-grab'
        : 'opacity-70'}"
      style="perspective: 520px"
      role="application"
      tabindex="0"
      aria-label={say('{name} in the hand: arrow keys lean it, Home levels it', { name: kit.name })}
      onpointerdown={down}
      onpointermove={move}
      onpointerup={up_}
      onpointercancel={up_}
      ondblclick={() => ready && hand.level()}
      onkeydown={keys}
      data-testid="held"
      data-sideways={lean.sideways}
      data-forwards={lean.forwards}
    >
      <svg
        width="132"
        height="250"
        viewBox="-22 -50 56 100"
        style="transform: translateY({-Math.min(60, up) *
          0.4}px) rotateX({lean.forwards}deg) rotateY({lean.sideways}deg) rotateZ({lean.turned}deg)"
      >
        <HandBoardShape
          {kit}
          lamp={view?.lamps.left}
          {horns}
          picture={view?.picture}
          lit={w.pixel}
          held={hand.held}
          ontouch={(what, is) => (ready || (!name && runs.shown === 'device') ? hand.touch(what, is) : undefined)}
          onpixel={(p, over) => {
            hovered = p ? `x ${p.x}, y ${p.y}` : over ? say('no pixel of the program') : '';
            w.facePixel = p;
          }}
        />
      </svg>
    </div>
  {/if}
  <div class="flex min-w-0 flex-1 flex-col gap-1.5">
    {#if others.length}
      <div class="flex flex-wrap gap-1" role="group" aria-label={say('Whom the hand is on')}>
        {#each [undefined, ...others.map((o) => o.name)] as whom (whom)}<Button
            look="quiet"
            class="max-w-[150px] truncate"
            aria-pressed={name === whom}
            onclick={() => (w.handOn = whom)}>{whom ?? w.session.project.name}</Button
          >{/each}
      </div>
    {:else if !hasWheels(kit)}
      <div class="flex items-baseline gap-2">
        <b class="truncate" data-testid="whose"
          >{runs.shown === 'device'
            ? w.device.unit.name
            : runs.looking && runs.busy
              ? say('Looking')
              : say('Rehearsal')}</b
        ><span class="truncate text-soft">{hovered}</span>
      </div>
    {/if}
    {#if name && w.session.project.text !== undefined}
      <p class="text-soft">{say('A text runs alone: the other devices in its yard stand still.')}</p>
    {/if}
    {#if name && hasWheels(kit)}
      <div class="flex gap-1" role="group" aria-label={say('Buttons of {name}', { name })}>
        <Button size="sm" disabled={!ready} {...holds((down) => hand.touch('Dot', down))}>● {say('Dot')}</Button>
        <Button size="sm" disabled={!ready} {...holds((down) => hand.touch('Bar', down))}>▬ {say('Bar')}</Button>
        {#if touchesOf(kit).includes('nose')}<Button
            size="sm"
            disabled={!ready}
            {...holds((down) => hand.touch('nose', down))}>{say('Nose')}</Button
          >{/if}
        {#if touchesOf(kit).includes('rim')}{#await import('./RimPad.svelte') then { default: RimPad }}<RimPad
              disabled={!ready}
              press={(deg, down) => hand.rim(deg, down)}
            />{/await}{/if}
      </div>
    {/if}
    {#if !ready}
      <p class="text-soft">
        {say('Rehearse, or look at the sensors without a program: then your hand can act.')}
        {#if !name}<Button look="quiet" class="underline" onclick={() => void runs.look(w.session.project)}
            >{say('Look at the sensors')}</Button
          >{/if}
      </p>
    {/if}
    {#if hasWheels(kit)}
      <div class="flex flex-wrap items-center gap-1.5">
        <Button size="sm" disabled={!ready} aria-pressed={lifted} onclick={() => give({ lift: !lifted })}
          >{lifted ? say('Set it down') : say('Lift it')}</Button
        >
        {#each pushes as [arrow, name, by] (arrow)}<Button
            size="sm"
            disabled={!ready}
            title={name()}
            aria-label={name()}
            onclick={() => push(by)}>{arrow}</Button
          >{/each}
        <label class="flex items-center gap-1 text-soft"
          >{say('with')}
          <NumberField
            size="sm"
            class="w-14! text-right"
            min={1}
            max={40}
            bind:value={hand.strength}
            aria-label={say('Strength of a push, newtons')}
          />
          N</label
        >
        {#if !name}<span class="text-soft">{say('Or drag it in the yard: it is lifted, carried and set down.')}</span
          >{/if}
      </div>
      {#if kit.chassis.rim}{@render tossing()}{/if}
    {:else}
      <Table>
        <tbody>
          {#each angles as [key, name] (key)}
            <tr
              ><td class="pr-1 text-soft">{name()}</td><td class="w-full"
                ><Slide
                  class="w-full"
                  min="-90"
                  max="90"
                  disabled={!ready}
                  value={lean[key]}
                  aria-label={say('Lean {way}', { way: name() })}
                  oninput={(e) => hand.leanTo({ [key]: e.currentTarget.valueAsNumber })}
                  onchange={() => hand.keep()}
                /></td
              ><td class="w-12 pl-1 text-right font-mono" data-testid="lean-{key}">{Math.round(lean[key])}°</td></tr
            >
          {/each}
        </tbody>
      </Table>
      <div class="flex flex-wrap gap-1">
        <Button size="xs" disabled={!ready} onclick={() => hand.level()}>{say('Level')}</Button>
        <Button size="xs" disabled={!ready} onclick={() => give({ shake: 0.8 })}>{say('Shake')}</Button>
        <Button size="xs" disabled={!ready} onclick={() => give({ shake: 0.8, g: GENTLE_G })}
          >{say('Shake gently')}</Button
        >
        <Button
          size="xs"
          disabled={!ready}
          onclick={() => (hand.leanTo({ sideways: Math.abs(lean.sideways) > 90 ? 0 : 180 }, true), hand.keep())}
          >{say('Turn over')}</Button
        >
        <Button size="xs" disabled={!ready} aria-pressed={hand.soil} onclick={() => hand.intoSoil(!hand.soil)}
          >{hand.soil ? say('Out of the soil') : say('Into the soil')}</Button
        >
      </div>
      {@render tossing()}
    {/if}
    {#if !name}<p class="font-mono text-[11.5px] text-soft tabular-nums" data-testid="felt">
        {say('feels x {x} y {y} z {z} · in all {total} g', {
          x: g('accelX'),
          y: g('accelY'),
          z: g('accelZ'),
          total: g('accelTotal')
        })}
      </p>{/if}
    {#if !name && !hasWheels(kit) && view}
      <p class="font-mono text-[11.5px] text-soft tabular-nums">
        {say('light {light} · {temperature} °C · moisture {moisture}', {
          light: Math.round(view.values.light),
          temperature: view.values.temperature.toFixed(1),
          moisture: Math.round(view.values.moisture)
        })}
      </p>
    {/if}
    {#if name}
      <dl class="grid grid-cols-2 gap-x-3 font-mono text-[11.5px] tabular-nums" data-testid="read">
        {#each read as s (s.key)}<div class="flex justify-between gap-2">
            <dt class="truncate text-soft" title={s.name}>{s.name}</dt>
            <dd class="shrink-0">{s.value}</dd>
          </div>{/each}
      </dl>
    {/if}
    {#if !hasWheels(kit) && view?.lamps.left?.on}<span class="text-soft"
        >{word('lamp')} {word(view.lamps.left.colour)}</span
      >{/if}
  </div>
</section>
