<!-- A mat as drawn from above, in cm, y down. -->
<script lang="ts">
  import type { Mat } from '../../../../core/yard/mat.ts';
  let { mat }: { mat: Mat } = $props();
  const H = $derived(mat.height);
  const pts = (list: readonly (readonly [number, number])[]) =>
    list.map(([x, y]) => `${x * 100},${(H - y) * 100}`).join(' ');
</script>

<rect width={mat.width * 100} height={H * 100} fill={mat.colour} stroke="#9aa892" stroke-width="0.5" />
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
  {:else}<polyline points={pts(line.points)} fill="none" stroke={line.colour} stroke-width={line.width * 100} />{/if}
{/each}
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
  <text x={hoop.x * 100} y={(H - hoop.y + hoop.radius) * 100 + 3.4} text-anchor="middle" font-size="3" fill="#5c4a1c"
    >{hoop.name}</text
  >
{/each}
{#each mat.marks as mark, i (i)}<text
    x={mark.x * 100}
    y={(H - mark.y) * 100 + 1}
    text-anchor="middle"
    font-size="2.6"
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
    cx={thing.x * 100}
    cy={(H - thing.y) * 100}
    r={thing.radius * 100}
    fill={thing.colour}
    stroke="#6b4331"
    stroke-width="0.4"
  />{/each}
