<!-- A board for the hand from above in millimetres, its head up, its middle at the origin: the one drawing for yard, hand, shelf and kit sheet. -->
<script lang="ts">
  import Dots from './Dots.svelte';
  import { reach, type Kit } from '../../../core/kit/kit.ts';
  import { later, word } from '../../../core/words.ts';
  import { LAMP_COLOURS } from './lamp-colours.ts';
  const NAMES = {
    Dot: later('Dot'),
    Bar: later('Bar'),
    'left edge': later('edge left'),
    'right edge': later('edge right')
  };
  type Touchable = 'Dot' | 'Bar' | 'left edge' | 'right edge';
  let {
    kit,
    lamp = { on: false, colour: 'amber' },
    horns = {},
    picture = '',
    lit,
    held = [],
    ghost = false,
    ontouch,
    onpixel
  }: {
    kit: Kit;
    lamp?: { on: boolean; colour: string };
    horns?: Record<string, number>;
    picture?: string;
    /** a pixel that is pointed at elsewhere */
    lit?: { x: number; y: number };
    /** what a finger is on */
    held?: readonly string[];
    ghost?: boolean;
    ontouch?: (what: Touchable, down: boolean, event: PointerEvent | KeyboardEvent) => void;
    /** the program's own place of the lamp that is pointed at, if it has one; and whether one is pointed at */
    onpixel?: (pixel: { x: number; y: number } | undefined, over: boolean) => void;
  } = $props();
  const half = $derived(reach(kit).left);
  const top = $derived(-reach(kit).front);
  const foot = $derived(-reach(kit).rear);
  const servo = $derived(kit.parts.find((p) => p.type === 'servo' || p.type === 'spin'));
  const hasLamp = $derived(kit.parts.some((p) => p.type === 'lamp'));
  const handlers = (what: Touchable) =>
    ontouch
      ? {
          onpointerdown: (e: PointerEvent) => {
            e.stopPropagation();
            (e.currentTarget as Element).setPointerCapture(e.pointerId);
            ontouch(what, true, e);
          },
          onpointerup: (e: PointerEvent) => ontouch(what, false, e),
          onpointercancel: (e: PointerEvent) => ontouch(what, false, e),
          onkeydown: (e: KeyboardEvent) => {
            if ((e.key === ' ' || e.key === 'Enter') && !e.repeat) {
              e.preventDefault();
              ontouch(what, true, e);
            }
          },
          onkeyup: (e: KeyboardEvent) => (e.key === ' ' || e.key === 'Enter') && ontouch(what, false, e),
          role: 'button',
          'aria-label': word(NAMES[what]),
          tabindex: 0,
          style: 'cursor: pointer'
        }
      : {};
</script>

<g opacity={ghost ? 0.35 : 1}>
  {#if servo}
    {@const angle = (horns[servo.socket] ?? 90) + (servo.hornDeg ?? 0)}
    <rect x={half - 3} y={top + 48} width="13" height="9" rx="1.2" fill="#f6edf2" stroke="#7a3f63" stroke-width=".6" />
    <g transform="translate({half + 6} {top + 52.5}) rotate({angle - 90})">
      <path d="M0 0H9" stroke="#7a3f63" stroke-width="1.6" stroke-linecap="round" /><circle r="1.6" fill="#7a3f63" />
    </g>
  {/if}
  <path
    d="M{-half + 4} {top}H{half - 4}Q{half} {top} {half} {top + 4}V{foot - 26}L1.6 {foot - 1}Q0 {foot} -1.6 {foot -
      1}L{-half} {foot - 26}V{top + 4}Q{-half} {top} {-half + 4} {top}Z"
    fill="#fdfcf6"
    stroke="#26352c"
    stroke-width="1"
  />
  {#each [['left edge', -1], ['right edge', 1]] as const as [what, side] (what)}
    <rect
      x={side < 0 ? -half + 0.6 : half - 3.1}
      y={top + 7}
      width="2.5"
      height="52"
      rx="1.2"
      fill={held.includes(what) ? '#b5842a' : '#c9b98a'}
      {...handlers(what)}
    />
  {/each}
  {#if kit.display}<g transform="translate(0 {top + 15.8})"
      ><Dots display={kit.display} {picture} wide={28.8} high={21.6} {lit} {onpixel} /></g
    >{/if}
  <g {...handlers('Dot')}>
    <rect
      x="-11"
      y={top + 31}
      width="8.4"
      height="8.4"
      rx="2"
      fill={held.includes('Dot') ? '#b5842a' : '#e4e5d6'}
      stroke="#26352c"
      stroke-width=".5"
    />
    <circle cx="-6.8" cy={top + 35.2} r="1.7" fill="#26352c" />
  </g>
  <g {...handlers('Bar')}>
    <rect
      x="2.6"
      y={top + 31}
      width="8.4"
      height="8.4"
      rx="2"
      fill={held.includes('Bar') ? '#b5842a' : '#e4e5d6'}
      stroke="#26352c"
      stroke-width=".5"
    />
    <rect x="4.6" y={top + 34.3} width="4.4" height="1.8" rx=".6" fill="#26352c" />
  </g>
  {#if hasLamp}<circle
      cx="-8"
      cy={top + 47}
      r="2.6"
      fill={lamp.on ? LAMP_COLOURS[lamp.colour] : '#d9dccb'}
      stroke="#8a8f82"
      stroke-width=".5"
    />{/if}
  <circle cx="0" cy={top + 47} r="2.4" fill="#46584d" /><circle cx="0" cy={top + 47} r=".7" fill="#fdfcf6" />
  <rect x="4.6" y={top + 44.6} width="5" height="5" rx=".8" fill="#9fb3a3" stroke="#26352c" stroke-width=".3" />
  <path
    d="M-2.2 {foot - 21}V{foot - 7}M2.2 {foot - 21}V{foot - 7}"
    stroke="#8a5a2b"
    stroke-width="1.5"
    stroke-linecap="round"
  />
</g>
