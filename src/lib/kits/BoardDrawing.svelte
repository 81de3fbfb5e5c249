<!-- A board for the hand, to scale, with what sits where on it. -->
<script lang="ts">
  import { later, say, word } from '../../../core/words.ts';
  import { reach, type Kit } from '../../../core/kit/kit.ts';
  import HandBoardShape from '../ui/HandBoardShape.svelte';
  let { kit }: { kit: Kit } = $props();
  const S = 6.4;
  const CX = 440;
  const CY = 372;
  const top = $derived(-reach(kit).front);
  const foot = $derived(-reach(kit).rear);
  const half = $derived(reach(kit).left);
  /** a label, which side it stands on, and the place it points to, mm */
  const labels = $derived<(readonly [string, -1 | 1, number, number, number])[]>([
    ...(kit.display ? [[later('display: x to the right, y down, both from 0'), -1, -40, -12, top + 15] as const] : []),
    [later('touch edge left'), -1, -16, -half + 1.8, top + 40],
    [later('button Dot'), -1, 4, -7, top + 36],
    [later('socket J2: a lamp'), -1, 14, -8, top + 47],
    [later('touch edge right'), 1, -34, half - 1.8, top + 20],
    [later('button Bar'), 1, -20, 7, top + 35],
    [later('socket J1: a servo'), 1, 2, half + 6, top + 52],
    [later('light, temperature, motion, radio'), 1, 16, 7, top + 47],
    [later('sounder'), -1, 26, 0, top + 49],
    [later('two contacts in the foot: moisture of soil'), 1, 34, 2, top + 82]
  ]);
</script>

<svg viewBox="0 0 880 748" class="h-full w-full" role="img" aria-label={say('Drawing of {name}', { name: kit.name })}>
  <g transform="translate({CX} {CY}) scale({S})"
    ><HandBoardShape {kit} picture="...#... ..###.. .#####. ..###.. ...#..." lamp={{ on: true, colour: 'amber' }} /></g
  >
  <g stroke="#8a8f82" fill="none">
    <path
      d="M{CX - half * S} {CY + top * S - 12}V{CY + top * S - 44}M{CX + half * S} {CY + top * S - 12}V{CY +
        top * S -
        44}M{CX - half * S} {CY + top * S - 34}H{CX + half * S}"
    />
  </g>
  <text x={CX} y={CY + top * S - 42} text-anchor="middle" class="font-mono" font-size="13" fill="var(--soft)"
    >{2 * half} mm</text
  >
  <text x={CX + half * S + 90} y={CY + foot * S} class="font-mono" font-size="13" fill="var(--soft)"
    >{foot - top} mm</text
  >
  {#each labels as [text, side, y, tx, ty] (text)}
    <path d="M{CX + side * 205} {CY + y * S}L{CX + tx * S} {CY + ty * S}" stroke="#5c6a60" fill="none" /><circle
      cx={CX + tx * S}
      cy={CY + ty * S}
      r="2.5"
      fill="#5c6a60"
    />
    <foreignObject x={side < 0 ? CX - 415 : CX + 210} y={CY + y * S - 20} width="205" height="44">
      <p class="flex h-full items-center text-[14px] leading-tight {side < 0 ? 'justify-end text-right' : ''}">
        {word(text)}
      </p>
    </foreignObject>
  {/each}
</svg>
