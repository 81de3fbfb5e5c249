<!-- Every sensor as it is now, with or without a program: a number with its unit and range, and a running graph. -->
<script lang="ts">
  import Tick from '../../ui/Tick.svelte';
  import Table from '../../ui/Table.svelte';
  import Choice from '../../ui/Choice.svelte';
  import Button from '../../ui/Button.svelte';
  import { figure, reading } from '../../../../core/units.ts';
  import { line } from 'd3-shape';
  import { scaleLinear } from 'd3-scale';
  import { say, word } from '../../../../core/words.ts';
  import { extremes, sampleAt } from '../../../../core/trace/query.ts';
  import { channel } from '../../../../core/trace/trace.ts';
  import { useWorkbench } from '../workbench.svelte.ts';
  import { NOTHING_YET, sensorsOf, SPANS, type Sensor } from './sensors.ts';
  let {
    ondrag,
    ondrop
  }: {
    /** a sensor's name is dragged into the program, as its block */
    ondrag: (kind: string, event: PointerEvent, slots?: Record<string, string>) => void;
    /** a value was let go over the program */
    ondrop: (x: number, y: number, value: number) => boolean;
  } = $props();
  const w = useWorkbench();
  const { runs } = w;
  const sensors = $derived(sensorsOf(w.session.project.kit));
  let hidden = $state.raw<ReadonlySet<string>>(new Set());
  let zero = $state.raw<Record<string, number>>({});
  let span = $state<number>(5);
  let whole = $state(false);
  let frozen = $state<number>();
  let choosing = $state(false);
  let marks = $state.raw<{ us: number; values: Record<string, number> }[]>([]);
  const run = $derived(runs.seen);
  const nowUs = $derived(frozen ?? runs.seenUs);
  const shown = $derived(sensors.filter((s) => !hidden.has(s.key)));
  const W = 190;
  const H = 34;
  const COLUMNS = 110;

  function valueOf(s: Sensor): number | undefined {
    if (!run || run.version < 0 || run.trace.ticks === 0) return undefined;
    const c = channel(run.trace, s.key);
    return c && sampleAt(c, Math.max(0, Math.floor(nowUs / 1000) - 1)) - (zero[s.key] ?? 0);
  }
  type Curve = { path: string; low: number; high: number; still: boolean; marks: number[] };
  function curve(s: Sensor): Curve | undefined {
    const c = run && run.version >= 0 ? channel(run.trace, s.key) : undefined;
    if (!run || !c || run.trace.ticks < 2) return undefined;
    const toTick = Math.max(1, Math.floor(nowUs / 1000));
    const fromTick = toTick - span * 1000;
    const points: [number, number][] = [];
    const column = (i: number) => Math.round(fromTick + ((toTick - fromTick) * i) / COLUMNS);
    for (let i = 0; i < COLUMNS; i++) {
      const from = Math.max(0, column(i));
      const to = Math.min(run.trace.ticks, column(i + 1));
      if (from >= to) continue;
      // least and most of each column: a catch of a few milliseconds is seen in half a minute
      const ends = extremes(c, from, to).map((v) => v - (zero[s.key] ?? 0));
      if (
        points.length &&
        Math.abs(points[points.length - 1][1] - ends[1]) < Math.abs(points[points.length - 1][1] - ends[0])
      )
        ends.reverse();
      for (const v of ends) points.push([from, v]);
    }
    let [low, high] = whole ? s.range : [Infinity, -Infinity];
    if (!whole)
      for (const [, v] of points) {
        low = Math.min(low, v);
        high = Math.max(high, v);
      }
    const still = high - low < 1e-6;
    if (still) [low, high] = [low - 1, high + 1];
    const x = scaleLinear([fromTick, toTick], [0, W]);
    const y = scaleLinear([low, high], [H - 2, 2]);
    return {
      path:
        line<[number, number]>(
          (p) => x(p[0]),
          (p) => y(p[1])
        )(points) ?? '',
      low,
      high,
      still,
      marks: marks.filter((m) => m.us >= fromTick * 1000 && m.us <= toTick * 1000).map((m) => x(m.us / 1000))
    };
  }
  const number = (s: Sensor, v: number): string => (zero[s.key] ? figure(v, s.digits) : reading(s.key, v, s.digits));
  /** The least and the most of a graph: of a heading these are no directions, 359.97 is nearly 360. */
  const ends = (s: Sensor, c: Curve): string =>
    [c.low, c.high].map((v) => figure(s.key === 'heading' ? Math.min(v, 359.9) : v, s.digits)).join(' … ');
  function toggle(key: string) {
    const next = new Set(hidden);
    if (!next.delete(key)) next.add(key);
    hidden = next;
  }
  function setZero(s: Sensor) {
    const v = valueOf(s);
    if (zero[s.key]) {
      const { [s.key]: _, ...rest } = zero;
      zero = rest;
    } else if (v !== undefined) zero = { ...zero, [s.key]: v };
  }
  function mark() {
    const values = Object.fromEntries(sensors.map((s) => [s.key, valueOf(s) ?? 0]));
    marks = [...marks.slice(-19), { us: nowUs, values }];
  }
  /** dragged over the program as a number */
  let carried = $state<{ x: number; y: number; text: string; value: number }>();
  function take(event: PointerEvent, s: Sensor) {
    const v = valueOf(s);
    if (v === undefined) return;
    (event.currentTarget as Element).setPointerCapture(event.pointerId);
    const value = Number(number(s, v));
    carried = { x: event.clientX, y: event.clientY, text: String(value), value };
  }
  function move(event: PointerEvent) {
    if (carried) carried = { ...carried, x: event.clientX, y: event.clientY };
  }
  let told = $state('');
  function drop(event: PointerEvent) {
    if (!carried) return;
    const { value } = carried;
    carried = undefined;
    const taken = ondrop(event.clientX, event.clientY, value);
    told = taken ? say('{value} was written into the slot.', { value }) : '';
    if (taken) w.tell(told);
  }
</script>

<section
  class="flex h-full min-h-0 flex-col border-t border-rule bg-card"
  aria-label={say('Live values')}
  data-testid="live"
>
  <div class="bar !min-h-8">
    <Button look="quiet" onclick={() => (w.bottom = 'trace')}>{say('Trace')}</Button>
    <h2 class="mr-1 font-sans text-[14px] font-bold">{say('Live values')}</h2>
    {#if !w.takesInput}<Button look="go" size="xs" onclick={() => void runs.look(w.session.project)}
        >{say('Look at the sensors')}</Button
      >
    {:else if runs.looking}<Button size="xs" onclick={() => runs.stop()}>{say('Stop looking')}</Button>{/if}
    <span class="text-soft">{told}</span>
    <span class="flex-1"></span>
    <Button look="quiet" aria-expanded={choosing} onclick={() => (choosing = !choosing)}>{say('Which')}</Button>
    <label class="text-soft"
      >{say('last')}
      <Choice size="sm" aria-label={say('Seconds in the graphs')} bind:value={span}
        >{#each SPANS as s (s)}<option value={s}>{s} s</option>{/each}</Choice
      ></label
    >
    <Button look="quiet" aria-pressed={whole} onclick={() => (whole = !whole)}>{say('Whole range')}</Button>
    <Button look="quiet" onclick={mark} disabled={!run}>{say('Mark')}</Button>
    <Button
      look="quiet"
      aria-pressed={frozen !== undefined}
      onclick={() => (frozen = frozen === undefined ? nowUs : undefined)}>{say('Freeze')}</Button
    >
  </div>
  <div class="min-h-0 flex-1 overflow-auto">
    {#if choosing}
      <div class="flex flex-wrap gap-x-4 gap-y-1 border-b border-rule bg-linen px-3 py-1.5">
        {#each sensors as s (s.key)}<label class="flex items-center gap-1"
            ><Tick checked={!hidden.has(s.key)} onchange={() => toggle(s.key)} />{s.name}</label
          >{/each}
      </div>
    {/if}
    {#if !run}<p class="px-4 pt-2 text-soft">
        {say(
          'Press "Look at the sensors", then drag the robot, lean the board or push it, and watch the signs change. Drag a value into a slot, or a name into the program.'
        )}
      </p>{/if}
    <div class="grid grid-cols-[repeat(auto-fill,minmax(232px,1fr))] gap-1.5 p-2">
      {#each shown as s (s.key)}
        {@const v = valueOf(s)}
        {@const c = curve(s)}
        <div class="rounded-lg border border-rule px-2 py-1" data-testid="sensor-{s.key}">
          <div class="flex items-baseline gap-1.5">
            <!-- svelte-ignore a11y_no_static_element_interactions -->
            <span
              class="cursor-grab touch-none truncate font-semibold text-read underline decoration-dotted"
              title={say('Drag it into the program: the block that reads it')}
              onpointerdown={(e) => {
                e.preventDefault();
                ondrag(s.kind, e, s.slots);
              }}>{s.name}</span
            >
            <span class="flex-1"></span>
            <!-- svelte-ignore a11y_no_static_element_interactions -->
            <span
              class="cursor-grab touch-none font-mono text-[15px] font-semibold text-water tabular-nums"
              title={say('Drag it into a slot as a number')}
              onpointerdown={(e) => take(e, s)}
              onpointermove={move}
              onpointerup={drop}
              onpointercancel={() => (carried = undefined)}
              data-testid="value-{s.key}">{v === undefined ? '–' : number(s, v)}</span
            ><span class="text-[12px] text-soft">{s.unit}</span>
          </div>
          <svg
            viewBox="0 0 {W} {H}"
            class="h-[34px] w-full"
            preserveAspectRatio="none"
            role="img"
            aria-label={c ? say('{name}, the last {span} seconds', { name: s.name, span }) : word(NOTHING_YET)}
          >
            {#each c?.marks ?? [] as x (x)}<path
                d="M{x} 0V{H}"
                stroke="#b5842a"
                vector-effect="non-scaling-stroke"
              />{/each}
            <path
              d={c?.path ?? ''}
              fill="none"
              stroke="var(--water)"
              stroke-width="1.4"
              vector-effect="non-scaling-stroke"
            />
          </svg>
          <div class="flex items-center text-[11px] text-soft tabular-nums">
            <span>{c && !c.still ? ends(s, c) : `${s.range[0]} … ${s.range[1]}`}</span><span class="flex-1"></span>
            <Button
              look="bare"
              class="underline pointer-coarse:min-h-10"
              aria-pressed={!!zero[s.key]}
              onclick={() => setZero(s)}
              >{zero[s.key] ? say('from {n} again', { n: number(s, -zero[s.key] || 0) }) : say('zero it')}</Button
            >
          </div>
        </div>
      {/each}
    </div>
    {#if marks.length}
      <Table class="mx-3 mb-2 text-[12px]">
        <thead class="text-left text-soft"
          ><tr
            ><th class="pr-3">{say('marked at')}</th>{#each shown as s (s.key)}<th class="pr-3 font-semibold"
                >{s.name}</th
              >{/each}</tr
          ></thead
        >
        <tbody>
          {#each marks as m (m)}<tr
              ><td class="pr-3 font-mono">{(m.us / 1e6).toFixed(2)} s</td>{#each shown as s (s.key)}<td class="pr-3"
                  >{number(s, m.values[s.key])}</td
                >{/each}</tr
            >{/each}
        </tbody>
      </Table>
    {/if}
  </div>
</section>
{#if carried}
  <div
    class="pointer-events-none fixed z-50 rounded-md border-2 border-think bg-card px-2 py-0.5 font-mono"
    style="left: {carried.x + 8}px; top: {carried.y - 12}px"
  >
    {carried.text}
  </div>
{/if}
