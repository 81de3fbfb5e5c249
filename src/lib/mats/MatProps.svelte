<!-- Exact numbers of what is chosen, or of the whole mat; and the list of everything that lies on it. -->
<script lang="ts">
  import Remark from '../ui/Remark.svelte';
  import Tick from '../ui/Tick.svelte';
  import Slide from '../ui/Slide.svelte';
  import Field from '../ui/Field.svelte';
  import Button from '../ui/Button.svelte';
  import { typedNumber } from '../../../core/language/values.ts';
  import NumberField from '../ui/NumberField.svelte';
  import Copy from '@lucide/svelte/icons/copy';
  import Down from '@lucide/svelte/icons/arrow-down';
  import Lock from '@lucide/svelte/icons/lock';
  import Trash from '@lucide/svelte/icons/trash-2';
  import Unlock from '@lucide/svelte/icons/lock-open';
  import Up from '@lucide/svelte/icons/arrow-up';
  import { later, say, word } from '../../../core/words.ts';
  import {
    align,
    changeItem,
    duplicateItems,
    itemAt,
    KINDS,
    lightness,
    listOf,
    removeItems,
    reorder,
    type Edge,
    type Item,
    type Kind
  } from '../../../core/yard/matedit.ts';
  import { DAYLIGHT } from '../../../core/yard/surroundings.ts';
  import type { MatEditor } from './editor.svelte.ts';
  let { editor: e }: { editor: MatEditor } = $props();
  const mat = $derived(e.mat);
  const only = $derived(e.chosen.length === 1 ? e.chosen[0] : undefined);
  const one = $derived(only && (itemAt(mat, only) as Record<string, unknown> | undefined));

  /** key, what it is called, unit, how many of the unit make one of the file's, least and most */
  type Spec = [key: string, name: string, unit: string, per: number, min: number, max: number];
  const X: Spec = ['x', later('x'), 'cm', 100, -1000, 1000];
  const Y: Spec = ['y', later('y'), 'cm', 100, -1000, 1000];
  const FIELDS: Record<Kind | 'start', Spec[]> = {
    start: [X, Y, ['facingDeg', later('facing'), '°', 1, 0, 360]],
    areas: [
      ['reflectance', later('reflectance'), '', 1, 0, 100],
      ['friction', later('friction'), 'µ', 1, 0, 2]
    ],
    lines: [
      ['width', later('width'), 'cm', 100, 0.1, 100],
      ['reflectance', later('reflectance'), '', 1, 0, 100]
    ],
    walls: [
      X,
      Y,
      ['width', later('width'), 'cm', 100, 0.2, 1000],
      ['height', later('depth'), 'cm', 100, 0.2, 1000],
      ['turnDeg', later('turned'), '°', 1, -360, 360]
    ],
    things: [X, Y, ['radius', later('radius'), 'cm', 100, 0.5, 100], ['massKg', later('mass'), 'g', 1000, 5, 50000]],
    hoops: [X, Y, ['radius', later('radius'), 'cm', 100, 1, 200]],
    marks: [X, Y],
    lamps: [
      X,
      Y,
      ['height', later('hangs at'), 'cm', 100, 2, 300],
      ['brightness', later('adds below it'), '%', 1, 0, 100]
    ],
    warmth: [X, Y, ['radius', later('radius'), 'cm', 100, 1, 500], ['celsius', later('temperature'), '°C', 1, -20, 80]],
    damp: [X, Y, ['radius', later('radius'), 'cm', 100, 1, 500], ['moisture', later('moisture'), '%', 1, 0, 100]]
  };
  const NAMES: Record<Kind | 'start', string> = {
    start: later('Start'),
    areas: later('Area'),
    lines: later('Line'),
    walls: later('Wall'),
    things: later('Loose thing'),
    hoops: later('Hoop'),
    marks: later('Mark'),
    lamps: later('Lamp'),
    warmth: later('Warm or cold place'),
    damp: later('Damp place')
  };
  let trouble = $state('');
  function set(key: string, value: unknown, name: string) {
    if (only) e.change(say('change: {name}', { name }), changeItem(mat, only, { [key]: value }));
  }
  function number([key, name, unit, per, min, max]: Spec, text: string) {
    const v = typedNumber(text);
    if (v === undefined || v < min || v > max) {
      trouble = say('{name} goes from {min} to {max} {unit}; {text} was not taken.', {
        name: word(name),
        min,
        max,
        unit,
        text: text || '""'
      });
      return;
    }
    trouble = '';
    set(key, Math.round((v / per) * 1e6) / 1e6, word(name));
  }
  const show = (v: unknown, per: number): string =>
    typeof v === 'number' ? String(Math.round(v * per * 1000) / 1000) : '';
  function size(key: 'width' | 'height', text: string) {
    const v = (typedNumber(text) ?? NaN) / 100;
    if (!(v >= 0.2 && v <= 10)) {
      trouble = say('A mat is from 20 to 1000 cm on each side; {text} was not taken.', { text: text || '""' });
      return;
    }
    trouble = '';
    e.change(say('change the size of the mat'), { ...mat, [key]: v });
  }
  const EDGES: [Edge, string][] = [
    ['left', later('left edges')],
    ['middle', later('middles, side by side')],
    ['right', later('right edges')],
    ['top', later('upper edges')],
    ['centre', later('middles, one above the other')],
    ['bottom', later('lower edges')]
  ];
  const SIGNS: Record<Edge, string> = { left: '⇤', middle: '⇹', right: '⇥', top: '⤒', centre: '⇕', bottom: '⤓' };
  const label = (kind: Kind, i: number): string => {
    const o = itemAt(mat, { kind, index: i }) as { name?: string; text?: string };
    return `${word(NAMES[kind])} ${o.name ?? o.text ?? i + 1}`;
  };
  function colour(value: string) {
    if (!only) return;
    const isPaint = only.kind === 'areas' || only.kind === 'lines';
    e.change(
      say('change the colour'),
      changeItem(mat, only, { colour: value, ...(isPaint ? { reflectance: lightness(value) } : {}) })
    );
  }
</script>

{#snippet field(f: Spec, of: Record<string, unknown>)}
  <label class="flex items-center gap-2"
    ><span class="flex-1 text-soft">{word(f[1])}</span><Field
      size="sm"
      class="w-20! text-right font-mono"
      value={show(of[f[0]], f[3])}
      placeholder={f[0] === 'friction' ? '0.8' : f[0] === 'turnDeg' ? '0' : ''}
      aria-label={word(f[1])}
      onchange={(ev) => number(f, ev.currentTarget.value)}
    /><span class="w-7 text-soft">{f[2]}</span></label
  >
{/snippet}

<div class="flex flex-col gap-2 overflow-auto px-3 py-2.5 text-[13px]" data-testid="props">
  {#if trouble}<Remark>{trouble}</Remark>{/if}
  {#if e.chosen.length > 1}
    <h2 class="text-[16px]">{say('{n} chosen', { n: e.chosen.length })}</h2>
    <div class="flex flex-wrap gap-1">
      {#each EDGES as [edge, name] (edge)}<Button
          size="xs"
          title={say('Align: {name}', { name: word(name) })}
          aria-label={say('Align: {name}', { name: word(name) })}
          onclick={() => e.change(say('align'), align(mat, e.chosen, edge))}>{SIGNS[edge]}</Button
        >{/each}
    </div>
  {:else if only && one}
    <h2 class="text-[16px]">{word(NAMES[only.kind])}</h2>
    {#each FIELDS[only.kind] as f (f[0])}{@render field(f, one)}{/each}
    {#if 'colour' in one}<label class="flex items-center gap-2"
        ><span class="flex-1 text-soft">{say('colour')}</span><Field
          look="colour"
          type="color"
          value={String(one.colour)}
          aria-label={say('colour')}
          onchange={(ev) => colour(ev.currentTarget.value)}
        /></label
      >{/if}
    {#if only.kind === 'lines'}<label class="flex items-center gap-2"
        ><span class="flex-1 text-soft">{say('closed')}</span><Tick
          checked={!!one.closed}
          onchange={(ev) => set('closed', ev.currentTarget.checked || undefined, say('closed'))}
        /></label
      >{/if}
    {#if only.kind === 'hoops' || only.kind === 'things' || only.kind === 'areas'}<label class="flex items-center gap-2"
        ><span class="flex-1 text-soft">{say('called')}</span><Field
          size="sm"
          class="w-32!"
          maxlength={60}
          value={String(one.name ?? '')}
          onchange={(ev) =>
            set('name', ev.currentTarget.value.trim() || (only.kind === 'hoops' ? '?' : undefined), say('called'))}
        /></label
      >{/if}
    {#if only.kind === 'marks'}<label class="flex items-center gap-2"
        ><span class="flex-1 text-soft">{say('text')}</span><Field
          size="sm"
          class="w-32!"
          maxlength={40}
          value={String(one.text ?? '')}
          onchange={(ev) => set('text', ev.currentTarget.value.trim() || '?', say('text'))}
        /></label
      >{/if}
  {:else}
    <h2 class="text-[16px]">{say('The mat')}</h2>
    <label class="flex items-center gap-2"
      ><span class="flex-1 text-soft">{say('called')}</span><Field
        size="sm"
        class="w-36!"
        maxlength={60}
        value={mat.name}
        aria-label={say('Name of the mat')}
        onchange={(ev) =>
          ev.currentTarget.value.trim() &&
          e.change(say('rename the mat'), { ...mat, name: ev.currentTarget.value.trim() })}
      /></label
    >
    {#each [['width', say('width')], ['height', say('depth')]] as const as [key, name] (key)}<label
        class="flex items-center gap-2"
        ><span class="flex-1 text-soft">{name}</span><Field
          size="sm"
          class="w-20! text-right font-mono"
          value={show(mat[key], 100)}
          aria-label={key === 'width' ? say('Width of the mat') : say('Depth of the mat')}
          onchange={(ev) => size(key, ev.currentTarget.value)}
        /><span class="w-7 text-soft">cm</span></label
      >{/each}
    <label class="flex items-center gap-2"
      ><span class="flex-1 text-soft">{say('floor')}</span><Field
        look="colour"
        type="color"
        value={mat.colour}
        aria-label={say('Colour of the floor')}
        onchange={(ev) =>
          e.change(say('change the floor'), {
            ...mat,
            colour: ev.currentTarget.value,
            reflectance: lightness(ev.currentTarget.value)
          })}
      /></label
    >
    <label class="flex items-center gap-2"
      ><span class="flex-1 text-soft">{say('daylight')}</span><Slide
        class="flex-1"
        min="0"
        max="100"
        value={mat.daylight ?? DAYLIGHT}
        onchange={(ev) => e.change(say('change the daylight'), { ...mat, daylight: ev.currentTarget.valueAsNumber })}
      /><span class="w-9 text-right font-mono">{mat.daylight ?? DAYLIGHT}</span></label
    >
    <label class="flex items-center gap-2"
      ><span class="flex-1 text-soft">{say('air')}</span><NumberField
        size="sm"
        class="w-20! text-right font-mono"
        min={-20}
        max={60}
        value={mat.airC}
        put={(airC) => e.change(say('change the air'), { ...mat, airC })}
      /><span class="w-7 text-soft">°C</span></label
    >
    {#if mat.floor}<Button
        size="xs"
        class="self-start"
        onclick={() => {
          const { floor: _, ...rest } = mat;
          e.change(say('take the floor picture away'), rest);
        }}>{say('Take the floor picture away')}</Button
      >{/if}
  {/if}
  {#if e.chosen.length}
    <div class="flex gap-1 border-t border-rule pt-2">
      <Button
        size="sm"
        aria-label={say('Duplicate')}
        title={say('Duplicate')}
        onclick={() => {
          const made = duplicateItems(mat, e.chosen);
          e.change(say('duplicate'), made.mat);
          e.chosen = made.items;
        }}><Copy size={15} /></Button
      >
      {#if only && only.kind !== 'start'}
        <Button
          size="sm"
          aria-label={say('Upwards')}
          title={say('Upwards: over others of its kind')}
          onclick={() => {
            const done = reorder(mat, only, 1);
            e.change(say('upwards'), done.mat);
            e.chosen = [done.item];
          }}><Up size={15} /></Button
        >
        <Button
          size="sm"
          aria-label={say('Downwards')}
          title={say('Downwards: under others of its kind')}
          onclick={() => {
            const done = reorder(mat, only, -1);
            e.change(say('downwards'), done.mat);
            e.chosen = [done.item];
          }}><Down size={15} /></Button
        >
        <Button
          size="sm"
          aria-pressed={!!one?.locked}
          aria-label={one?.locked ? say('Unlock') : say('Lock')}
          title={one?.locked ? say('Unlock') : say('Lock')}
          onclick={() =>
            e.change(
              one?.locked ? say('unlock') : say('lock'),
              changeItem(mat, only, { locked: one?.locked ? undefined : true })
            )}
          >{#if one?.locked}<Lock size={15} />{:else}<Unlock size={15} />{/if}</Button
        >
      {/if}
      <Button
        size="sm"
        aria-label={say('Take away')}
        title={say('Take away')}
        onclick={() => {
          e.change(say('take away'), removeItems(mat, e.chosen));
          e.chosen = [];
        }}><Trash size={15} /></Button
      >
    </div>
  {/if}
  <h3 class="mt-1 border-t border-rule pt-2 font-sans text-[13px] font-bold">{say('On the mat, uppermost first')}</h3>
  <ul class="text-[12.5px]">
    {#each [...KINDS].reverse() as kind (kind)}
      {#each listOf(mat, kind).map((_, i) => listOf(mat, kind).length - 1 - i) as i (i)}
        {@const item: Item = { kind, index: i }}
        <li>
          <Button
            look="bare"
            class="w-full min-h-6 truncate rounded px-1.5 py-0.5 text-left hover:bg-linen {e.isChosen(item)
              ? 'bg-linen font-semibold'
              : ''}"
            onclick={(ev: MouseEvent) => e.choose(item, ev.ctrlKey || ev.metaKey)}
            >{label(kind, i)}{itemAt(mat, item)?.locked ? ' 🔒' : ''}</Button
          >
        </li>
      {/each}
    {/each}
    <li>
      <Button
        look="bare"
        class="min-h-6 w-full rounded px-1.5 py-0.5 text-left hover:bg-linen {e.isChosen({ kind: 'start', index: 0 })
          ? 'bg-linen font-semibold'
          : ''}"
        onclick={() => e.choose({ kind: 'start', index: 0 })}>{say('Start')}</Button
      >
    </li>
  </ul>
</div>
