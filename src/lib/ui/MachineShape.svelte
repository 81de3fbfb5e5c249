<!-- A machine on wheels from above in millimetres, facing right, its origin at 0: drawn from its kit, the one drawing for yard, shelf and kit sheet. -->
<script lang="ts">
  import { reach, type Kit } from '../../../core/kit/kit.ts';
  import Dots from './Dots.svelte';
  import { LAMP_COLOURS } from './lamp-colours.ts';
  type Lamp = { on: boolean; colour: string };
  let {
    kit,
    lamps = {},
    horns = {},
    picture = '',
    cone = true,
    ghost = false
  }: {
    kit: Kit;
    lamps?: Readonly<Partial<Record<string, Lamp>>>;
    horns?: Record<string, number>;
    picture?: string;
    cone?: boolean;
    ghost?: boolean;
  } = $props();
  const chassis = $derived(kit.chassis);
  /** the corners softened: from middle to middle of its edges, round each corner */
  const outline = $derived.by(() => {
    const points = chassis.outline;
    const round = points.map((p, i) => {
      const [before, after] = [points.at(i - 1)!, points[(i + 1) % points.length]];
      const towards = (q: typeof p): string => {
        const length = Math.hypot(q.xMm - p.xMm, q.yMm - p.yMm);
        const share = Math.min(0.5, 7 / length);
        return `${p.xMm + (q.xMm - p.xMm) * share} ${-(p.yMm + (q.yMm - p.yMm) * share)}`;
      };
      return `${i ? 'L' : 'M'}${towards(before)}Q${p.xMm} ${-p.yMm} ${towards(after)}`;
    });
    return `${round.join('')}Z`;
  });
  const front = $derived(reach(kit).front);
  const far = $derived(Math.max(76, front * 0.6));
</script>

<g opacity={ghost ? 0.35 : 1}>
  {#if cone}{#each kit.parts as p, i (i)}{#if p.type === 'distance'}<path
          transform="translate({p.at.xMm} {-p.at.yMm}) rotate({-p.at.deg})"
          d="M0 -4L{far} -19M0 4L{far} 19"
          stroke="#1f7a8c"
          stroke-width="1.6"
          stroke-dasharray="4 5"
          fill="none"
        />{/if}{/each}{/if}
  {#each kit.wheels as w (w.id)}
    <g transform="translate({w.at.xMm} {-w.at.yMm}) rotate({-w.at.deg})">
      <rect
        x={-w.diameterMm / 2}
        y={-w.widthMm / 2}
        width={w.diameterMm}
        height={w.widthMm}
        rx={Math.min(6, w.widthMm / 2)}
        fill="#26352c"
        stroke="#8a8f82"
        stroke-width=".8"
      />
      {#if w.rim === 'rollers'}<path
          d={Array.from(
            { length: 4 },
            (_, i) => `M${((i - 1.5) * w.diameterMm) / 4.6} ${-w.widthMm / 2}v${w.widthMm}`
          ).join('')}
          stroke="#c9b98a"
          stroke-width="3"
        />{/if}
    </g>
  {/each}
  <path d={outline} fill="#ffffff" stroke="#26352c" stroke-width="2.4" stroke-linejoin="round" />
  {#if chassis.rim}
    <!-- a wheel below it is seen as a drawing has what is hidden; the notch is ahead -->
    {#each kit.wheels as w (w.id)}<rect
        transform="translate({w.at.xMm} {-w.at.yMm}) rotate({-w.at.deg})"
        x={-w.diameterMm / 2}
        y={-w.widthMm / 2}
        width={w.diameterMm}
        height={w.widthMm}
        rx="3"
        fill="none"
        stroke="#8a8f82"
        stroke-dasharray="4 3"
      />{/each}
    <path d="M{front + 1} -9L{front - 13} 0L{front + 1} 9" fill="#26352c" stroke="#26352c" stroke-linejoin="round" />
  {/if}
  {#each chassis.bars as bar (bar.name)}
    <rect
      x={Math.min(bar.from.xMm, bar.to.xMm)}
      y={-Math.max(bar.from.yMm, bar.to.yMm)}
      width={Math.abs(bar.to.xMm - bar.from.xMm)}
      height={Math.abs(bar.to.yMm - bar.from.yMm)}
      rx="3"
      fill="#e4e5d6"
      stroke="#26352c"
    />
  {/each}
  {#if kit.display}
    {@const { at } = kit.display}
    <!-- the top of a picture points ahead: rows run to the rear, columns from its left -->
    <g transform="translate({at.xMm} {-at.yMm}) rotate({90 - at.deg})"
      ><Dots display={kit.display} {picture} wide={46} high={38} /></g
    >
  {/if}
  {#each kit.parts as p, i (i)}{#if (p.type === 'servo' || p.type === 'spin') && p.at}
      {@const angle = (horns[p.socket] ?? 90) + (p.hornDeg ?? 0)}
      {#if p.type === 'servo' && p.tips}
        <!-- a bed: seen shorter from above the further it is tipped, about its rear edge -->
        {@const seen = p.tips.lengthMm * Math.max(0.25, Math.cos(((angle - 90) * Math.PI) / 180))}
        <g transform="translate({p.at.xMm} {-p.at.yMm}) rotate({-p.at.deg})">
          <rect
            x={-p.tips.lengthMm / 2}
            y={-p.tips.widthMm / 2}
            width={seen}
            height={p.tips.widthMm}
            rx="6"
            fill="#f6edf2"
            stroke="#7a3f63"
            stroke-width="2"
          />
          <path
            d="M{-p.tips.lengthMm / 2 + seen * 0.33} {-p.tips.widthMm / 2}v{p.tips.widthMm}m{seen * 0.33} 0v{-p.tips
              .widthMm}"
            stroke="#7a3f63"
            stroke-opacity=".35"
          />
        </g>
      {:else}
        <g transform="translate({p.at.xMm} {-p.at.yMm}) rotate({-p.at.deg})">
          <rect x="-20" y="-8" width="26" height="16" rx="2" fill="#f6edf2" stroke="#7a3f63" />
          <g transform="rotate({angle - 90})"
            ><path d="M0 0H26" stroke="#7a3f63" stroke-width="4" stroke-linecap="round" /><circle
              r="3.4"
              fill="#7a3f63"
            /></g
          >
        </g>
      {/if}
    {:else if p.type === 'line' || p.type === 'colour'}<circle
        cx={p.at.xMm}
        cy={-p.at.yMm}
        r="3.4"
        fill="#fff"
        stroke="#1f7a8c"
        stroke-width="1.6"
      />{/if}{/each}
  {#each chassis.lamps as l, i (i)}
    {@const state = lamps[l.name]}
    <circle
      cx={l.at.xMm}
      cy={-l.at.yMm}
      r="5.5"
      fill={state?.on ? LAMP_COLOURS[state.colour] : '#d9dccb'}
      stroke="#8a8f82"
      stroke-width=".8"
    />
  {/each}
</g>
