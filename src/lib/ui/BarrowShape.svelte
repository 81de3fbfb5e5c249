<!-- Barrow from above in millimetres, facing right, the middle of its axle at the origin: the one drawing for yard, face, shelf and kit sheet. -->
<script lang="ts">
  import type { Kit } from '../../../core/kit/kit.ts';
  import { LAMP_COLOURS } from './lamp-colours.ts';
  type Lamp = { on: boolean; colour: string };
  let {
    kit,
    lamps = { left: { on: false, colour: 'amber' }, right: { on: false, colour: 'amber' } },
    horns = {},
    picture = '',
    cone = true,
    ghost = false
  }: {
    kit: Kit;
    lamps?: Record<'left' | 'right', Lamp>;
    horns?: Record<string, number>;
    picture?: string;
    cone?: boolean;
    ghost?: boolean;
  } = $props();
  const b = $derived(kit.body);
  const w = $derived(kit.wheels);
  const rear = $derived(-b.axleFromRearMm);
  const front = $derived(rear + b.lengthMm);
  const half = $derived(b.widthMm / 2);
  const lamp = (l: Lamp) => (l.on ? LAMP_COLOURS[l.colour] : '#d9dccb');
  const flat = $derived(picture.replaceAll(' ', ''));
  const servos = $derived(kit.parts.filter((p) => p.type === 'servo'));
</script>

<g opacity={ghost ? 0.35 : 1}>
  {#if cone && kit.parts.some((p) => p.type === 'distance')}<path
      d="M{front + 6} -4L{front + 76} -19M{front + 6} 4L{front + 76} 19"
      stroke="#1f7a8c"
      stroke-width="1.6"
      stroke-dasharray="4 5"
      fill="none"
    />{/if}
  <rect
    x={-w.leftDiameterMm / 2}
    y={-w.trackMm / 2 - w.widthMm / 2}
    width={w.leftDiameterMm}
    height={w.widthMm}
    rx="6"
    fill="#26352c"
  />
  <rect
    x={-w.rightDiameterMm / 2}
    y={w.trackMm / 2 - w.widthMm / 2}
    width={w.rightDiameterMm}
    height={w.widthMm}
    rx="6"
    fill="#26352c"
  />
  <path
    d="M{rear + 12} {-half}H{front - 16}Q{front} {-half} {front} {-half + 16}V{half - 16}Q{front} {half} {front -
      16} {half}H{rear + 12}Q{rear} {half} {rear} {half - 12}V{-half + 12}Q{rear} {-half} {rear + 12} {-half}Z"
    fill="#ffffff"
    stroke="#26352c"
    stroke-width="2.4"
  />
  <rect x={front} y="-21" width="6" height="42" rx="3" fill="#e4e5d6" stroke="#26352c" />
  <rect x={rear + 12} y="-23" width="38" height="46" rx="4" fill="#26352c" />
  {#each { length: 35 } as _, i (i)}
    <!-- the matrix is mounted with its top towards the rear: x runs down, y to the left -->
    <rect
      x={rear + 44 - Math.floor(i / 7) * 7}
      y={-21 + (i % 7) * 6}
      width="4.6"
      height="4.2"
      rx="1"
      fill={flat[i] === '#' ? '#ffcf5a' : '#53685b'}
    />
  {/each}
  {#each servos as s, i (s.socket)}
    {@const angle = (horns[s.socket] ?? 90) + (s.hornDeg ?? 0)}
    <rect x={-14} y={i === 0 ? -34 : 14} width="26" height="16" rx="2" fill="#f6edf2" stroke="#7a3f63" />
    <g transform="translate({i === 0 ? 6 : 6} {i === 0 ? -26 : 22}) rotate({angle - 90})"
      ><path d="M0 0H26" stroke="#7a3f63" stroke-width="4" stroke-linecap="round" /><circle r="3.4" fill="#7a3f63" /></g
    >
  {/each}
  <circle cx={front - 16} cy={-half + 18} r="5.5" fill={lamp(lamps.left)} stroke="#8a8f82" stroke-width=".8" />
  <circle cx={front - 16} cy={half - 18} r="5.5" fill={lamp(lamps.right)} stroke="#8a8f82" stroke-width=".8" />
  {#if kit.parts.some((p) => p.type === 'line')}
    <circle
      cx={kit.lineSensors.aheadMm}
      cy={-kit.lineSensors.apartMm / 2}
      r="3.4"
      fill="#fff"
      stroke="#1f7a8c"
      stroke-width="1.6"
    /><circle
      cx={kit.lineSensors.aheadMm}
      cy={kit.lineSensors.apartMm / 2}
      r="3.4"
      fill="#fff"
      stroke="#1f7a8c"
      stroke-width="1.6"
    />
  {/if}
</g>
