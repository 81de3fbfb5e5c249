<!-- A mat as drawn from above, in cm, y down. -->
<script lang="ts">
  import type { Mat } from '../../../../core/yard/mat.ts';
  let { mat, things }: { mat: Mat; /** where loose things are now */ things?: readonly { x: number; y: number }[] } =
    $props();
  const id = $props.id();
  /** what spreads round a place: light, warmth, cold, damp */
  const GLOWS = [
    ['light', '#ffe9a0', 0.85],
    ['warm', '#d2602f', 0.4],
    ['cold', '#6fa8c8', 0.55],
    ['damp', '#4d6b5c', 0.6]
  ] as const;
  const H = $derived(mat.height);
  /** words are larger on a larger mat, which is seen smaller */
  const L = $derived(Math.max(1, mat.width / 1.8));
  const pts = (list: readonly (readonly [number, number])[]) =>
    list.map(([x, y]) => `${x * 100},${(H - y) * 100}`).join(' ');
</script>

<rect width={mat.width * 100} height={H * 100} fill={mat.colour} stroke="#9aa892" stroke-width="0.5" />
{#if mat.floor}<image href={mat.floor.png} width={mat.width * 100} height={H * 100} preserveAspectRatio="none" />{/if}
{#each mat.areas as area, i (i)}<polygon
    points={pts(area.points)}
    fill={area.colour}
    stroke="#9db488"
    stroke-width="0.25"
    stroke-linejoin="round"
  />{/each}
<g stroke="#1f2a25" stroke-opacity="0.07" stroke-width="0.2">
  {#each { length: Math.floor(mat.width * 10) } as _, i (i)}<path d="M{(i + 1) * 10} 0V{H * 100}" />{/each}
  {#each { length: Math.floor(H * 10) } as _, i (i)}<path d="M0 {H * 100 - (i + 1) * 10}H{mat.width * 100}" />{/each}
</g>
{#each mat.lines as line, i (i)}
  {#if line.closed}<polygon
      points={pts(line.points)}
      fill="none"
      stroke={line.colour}
      stroke-width={line.width * 100}
      stroke-linejoin="round"
    />
  {:else}<polyline
      points={pts(line.points)}
      fill="none"
      stroke={line.colour}
      stroke-width={line.width * 100}
      stroke-linejoin="round"
    />{/if}
{/each}
<defs>
  {#each GLOWS as [name, colour, opacity] (name)}
    <radialGradient id="{id}-{name}">
      <stop offset="0" stop-color={colour} stop-opacity={opacity} /><stop
        offset="1"
        stop-color={colour}
        stop-opacity="0"
      />
    </radialGradient>
  {/each}
</defs>
<clipPath id="{id}-mat"><rect width={mat.width * 100} height={H * 100} /></clipPath>
<g clip-path="url(#{id}-mat)">
  {#each mat.damp ?? [] as p, i (i)}
    <circle cx={p.x * 100} cy={(H - p.y) * 100} r={p.radius * 100} fill="url(#{id}-damp)" />
    <text x={p.x * 100} y={(H - p.y) * 100 + 0.9} text-anchor="middle" font-size="2.4" fill="#24362d"
      >{p.moisture} %</text
    >
  {/each}
  {#each mat.warmth ?? [] as p, i (i)}
    <circle
      cx={p.x * 100}
      cy={(H - p.y) * 100}
      r={p.radius * 100}
      fill="url(#{id}-{p.celsius < mat.airC ? 'cold' : 'warm'})"
    />
    <text x={p.x * 100} y={(H - p.y) * 100 + 0.9} text-anchor="middle" font-size="2.4" fill="#3a2a20"
      >{p.celsius} °C</text
    >
  {/each}
  {#each mat.lamps ?? [] as lamp, i (i)}
    <circle cx={lamp.x * 100} cy={(H - lamp.y) * 100} r={lamp.height * 200} fill="url(#{id}-light)" />
    <circle cx={lamp.x * 100} cy={(H - lamp.y) * 100} r="1.4" fill="#ffd25e" stroke="#8f661f" stroke-width=".3" />
  {/each}
</g>
{#each mat.hoops as hoop, i (i)}
  <circle
    cx={hoop.x * 100}
    cy={(H - hoop.y) * 100}
    r={hoop.radius * 100}
    fill="#fff3cf"
    fill-opacity="0.75"
    stroke="#b5842a"
    stroke-width="0.6"
  />
  <text
    x={hoop.x * 100}
    y={(H - hoop.y + hoop.radius) * 100 + 3.4 * L}
    text-anchor="middle"
    font-size={3 * L}
    fill="#5c4a1c">{hoop.name}</text
  >
{/each}
{#each mat.marks as mark, i (i)}<text
    x={mark.x * 100}
    y={(H - mark.y) * 100 + L}
    text-anchor="middle"
    font-size={2.6 * L}
    fill="#4a4438">{mark.text}</text
  >{/each}
{#each mat.walls as wall, i (i)}<rect
    x={(wall.x - wall.width / 2) * 100}
    y={(H - wall.y - wall.height / 2) * 100}
    width={wall.width * 100}
    height={wall.height * 100}
    rx="1.4"
    transform="rotate({-(wall.turnDeg ?? 0)} {wall.x * 100} {(H - wall.y) * 100})"
    fill={wall.colour}
    stroke="#7f9a68"
    stroke-width="0.4"
  />{/each}
{#each mat.things as thing, i (i)}<circle
    cx={(things?.[i] ?? thing).x * 100}
    cy={(H - (things?.[i] ?? thing).y) * 100}
    r={thing.radius * 100}
    fill={thing.colour}
    stroke="#6b4331"
    stroke-width="0.4"
  />{/each}
