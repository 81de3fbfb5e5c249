<!-- What display a kit has, how large it is and how it is mounted: rows of the kit sheet's table of measures. -->
<script lang="ts">
  import { displayOf, LARGEST, type Display, type DisplayType, type Turned } from '../../../core/kit/display.ts';
  import type { Kit } from '../../../core/kit/kit.ts';
  import { later, say, word } from '../../../core/words.ts';
  import Choice from '../ui/Choice.svelte';
  import NumberField from '../ui/NumberField.svelte';
  let { kit, change }: { kit: Kit; change: (what: string, display: Display | undefined) => void } = $props();
  const d = $derived(kit.display);
  const TYPES: Record<DisplayType, string> = {
    matrix: later('a matrix of lamps'),
    strip: later('a strip of lamps in colour'),
    screen: later('a colour screen')
  };
  const seat = $derived({ at: d?.at ?? { xMm: 0, yMm: 0, deg: 0 }, turnedDeg: d?.turnedDeg ?? 0 } as const);
  const whole = (n: number, most: number) => Math.max(1, Math.min(most, Math.round(n)));
</script>

{#snippet count(label: string, value: number, most: number, put: (n: number) => void)}
  <NumberField
    size="sm"
    class="w-16! text-right"
    min={1}
    max={most}
    aria-label={label}
    {value}
    put={(n) => put(whole(n, most))}
  />
{/snippet}

<dt><label for="display">{say('display')}</label></dt>
<dd class="text-right">
  <Choice
    id="display"
    size="sm"
    value={d?.type ?? ''}
    onchange={(e) => {
      const type = e.currentTarget.value as DisplayType | '';
      change(say('another display'), type ? displayOf(type, seat) : undefined);
    }}
    ><option value="">{say('none')}</option>{#each Object.entries(TYPES) as [type, name] (type)}<option value={type}
        >{word(name)}</option
      >{/each}</Choice
  >
</dd>
{#if d}
  {#if d.type === 'strip'}
    <dt>{say('lamps in it')}</dt>
    <dd class="text-right font-mono">
      {@render count(say('Lamps of the strip'), d.lamps, LARGEST, (lamps) =>
        change(say('change the size of the display'), { ...d, lamps })
      )}
    </dd>
  {:else}
    <dt>{say('its columns and rows')}</dt>
    <dd class="text-right font-mono">
      {@render count(say('Columns of the display'), d.columns, LARGEST, (columns) =>
        change(say('change the size of the display'), { ...d, columns })
      )}
      ×
      {@render count(say('Rows of the display'), d.rows, LARGEST, (rows) =>
        change(say('change the size of the display'), { ...d, rows })
      )}
    </dd>
    {#if d.type === 'matrix'}
      <dt><label for="levels">{say('each lamp has')}</label></dt>
      <dd class="text-right font-mono">
        <Choice
          id="levels"
          size="sm"
          value={d.levels}
          onchange={(e) =>
            change(say('change the levels of the display'), { ...d, levels: Number(e.currentTarget.value) as 5 })}
          ><option value={2}>{say('on and off')}</option><option value={3}>{say('3 levels')}</option><option value={5}
            >{say('5 levels')}</option
          ></Choice
        >
      </dd>
    {/if}
  {/if}
  <dt><label for="turned">{say('display mounted turned by')}</label></dt>
  <dd class="text-right font-mono">
    <Choice
      id="turned"
      size="sm"
      value={d.turnedDeg}
      onchange={(e) => change(say('turn the display'), { ...d, turnedDeg: Number(e.currentTarget.value) as Turned })}
      >{#each [0, 90, 180, 270] as deg (deg)}<option value={deg}>{deg}°</option>{/each}</Choice
    >
  </dd>
{/if}
