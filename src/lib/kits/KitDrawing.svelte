<!-- A measured drawing, to scale from the kit's own numbers: click a dimension to change it, drag a card to another socket. -->
<script lang="ts">
  import { later, say, word } from '../../../core/words.ts';
  import type { Kit, Part } from '../../../core/kit/kit.ts';
  import { PARTS } from '../../../core/kit/parts/parts.ts';
  import { boardOf, socketsFor } from '../../../core/kit/kit.ts';
  import BarrowShape from '../ui/BarrowShape.svelte';
  let {
    kit,
    flagged,
    ondimension,
    onmove
  }: {
    kit: Kit;
    flagged: Set<string>;
    ondimension: (what: 'diameter' | 'track') => void;
    onmove: (from: string, to: string) => void;
  } = $props();
  const S = 2.6;
  const CX = 432;
  const CY = 374;
  const w = $derived(kit.wheels);
  const b = $derived(kit.body);
  const half = $derived((w.trackMm / 2) * S);
  const front = $derived((b.lengthMm - b.axleFromRearMm) * S);
  const TAKES = {
    motor: later('motor socket'),
    servo: later('servo socket'),
    sensor: later('sensor socket'),
    lamp: later('lamp socket')
  };
  type Spot = { socket: string; x: number; y: number; tx: number; ty: number };
  /** where each socket's card stands, and the place on the device it points to */
  const spots = $derived.by((): Spot[] => [
    { socket: 'J1', x: 16, y: 130, tx: CX - 12, ty: CY - half + 30 },
    { socket: 'J4', x: 16, y: 222, tx: CX - 10, ty: CY - 26 * S },
    { socket: 'J5', x: 16, y: 470, tx: CX - 10, ty: CY + 22 * S },
    { socket: 'J2', x: 16, y: 562, tx: CX - 12, ty: CY + half - 30 },
    { socket: 'J3', x: 16, y: 654, tx: CX - 70, ty: CY + 40 * S },
    { socket: 'J6', x: 210, y: 654, tx: CX - 40, ty: CY + 40 * S },
    { socket: 'J7', x: 688, y: 224, tx: CX + front + 4, ty: CY - 6 },
    { socket: 'J8', x: 688, y: 470, tx: CX + kit.lineSensors.aheadMm * S, ty: CY - (kit.lineSensors.apartMm / 2) * S },
    { socket: 'J9', x: 688, y: 562, tx: CX + kit.lineSensors.aheadMm * S, ty: CY + (kit.lineSensors.apartMm / 2) * S },
    { socket: 'J10', x: 688, y: 654, tx: CX + 30 * S, ty: CY + 40 * S }
  ]);
  const partOf = (socket: string) => kit.parts.find((p) => p.socket === socket);
  const line = (p: Part | undefined): string => (p ? PARTS[p.type].sits(p, kit) : say('empty'));
  let drag = $state<{ from: string; dx: number; dy: number; x: number; y: number }>();
  let svg: SVGSVGElement;
  const at = (e: PointerEvent) => new DOMPoint(e.clientX, e.clientY).matrixTransform(svg.getScreenCTM()!.inverse());
  function down(e: PointerEvent, s: Spot) {
    if (!partOf(s.socket)) return;
    (e.currentTarget as Element).setPointerCapture(e.pointerId);
    const p = at(e);
    drag = { from: s.socket, dx: s.x - p.x, dy: s.y - p.y, x: s.x, y: s.y };
  }
  function move(e: PointerEvent) {
    if (!drag) return;
    const p = at(e);
    drag = { ...drag, x: p.x + drag.dx, y: p.y + drag.dy };
  }
  const over = $derived(
    drag && spots.find((s) => s.socket !== drag!.from && Math.abs(s.x - drag!.x) < 90 && Math.abs(s.y - drag!.y) < 40)
  );
  const fits = $derived(!!drag && !!over && socketsFor(kit, partOf(drag.from)!.type).includes(over.socket));
  function up() {
    if (drag && over && fits) onmove(drag.from, over.socket);
    drag = undefined;
  }
  const picture = '....... ....... ....... ....... .......';
</script>

<svg
  bind:this={svg}
  viewBox="0 0 880 748"
  class="h-full w-full"
  role="group"
  aria-label={say('Barrow from above, measured')}
  data-testid="kit-drawing"
>
  <defs>
    <pattern id="kit-grid" width="26" height="26" patternUnits="userSpaceOnUse"
      ><path d="M26 0H0V26" fill="none" stroke="var(--rule)" stroke-opacity=".45" /></pattern
    >
    <marker
      id="kit-arrow"
      viewBox="0 0 8 8"
      refX="7"
      refY="4"
      markerWidth="8"
      markerHeight="8"
      orient="auto-start-reverse"><path d="M0 1L7 4L0 7" fill="none" stroke="#8a8f82" /></marker
    >
  </defs>
  <rect width="880" height="748" fill="url(#kit-grid)" />
  <g transform="translate({CX} {CY}) scale({S})"
    ><BarrowShape
      {kit}
      {picture}
      horns={Object.fromEntries(kit.parts.filter((p) => p.type === 'servo').map((p) => [p.socket, 60]))}
      lamps={{ left: { on: true, colour: 'amber' }, right: { on: true, colour: 'amber' } }}
    /></g
  >

  <g stroke="#8a8f82" fill="none">
    <path
      d="M{CX - (w.leftDiameterMm / 2) * S} {CY - half - 24}V{CY - half - 62}M{CX + (w.leftDiameterMm / 2) * S} {CY -
        half -
        24}V{CY - half - 62}"
    />
    <path
      d="M{CX - (w.leftDiameterMm / 2) * S} {CY - half - 50}H{CX + (w.leftDiameterMm / 2) * S}"
      marker-start="url(#kit-arrow)"
      marker-end="url(#kit-arrow)"
    />
    <path
      d="M{CX + (w.rightDiameterMm / 2) * S + 8} {CY - half}H{CX + front + 60}M{CX +
        (w.rightDiameterMm / 2) * S +
        8} {CY + half}H{CX + front + 60}"
    />
    <path d="M{CX + front + 48} {CY - half}V{CY + half}" marker-start="url(#kit-arrow)" marker-end="url(#kit-arrow)" />
    <path d="M{CX} {CY + half + 26}V{CY + half + 50}M{CX + kit.lineSensors.aheadMm * S} {CY + 36}V{CY + half + 50}" />
    <path
      d="M{CX} {CY + half + 40}H{CX + kit.lineSensors.aheadMm * S}"
      marker-start="url(#kit-arrow)"
      marker-end="url(#kit-arrow)"
    />
  </g>
  <g class="font-mono" font-size="13" fill="var(--soft)">
    <g
      role="button"
      tabindex="0"
      class="cursor-pointer"
      aria-label={say('Wheel diameter {leftDiameterMm} mm, change it', { leftDiameterMm: w.leftDiameterMm })}
      onclick={() => ondimension('diameter')}
      onkeydown={(e) => e.key === 'Enter' && ondimension('diameter')}
      ><rect x={CX - 44} y={CY - half - 74} width="88" height="20" rx="5" fill="var(--paper)" /><text
        x={CX}
        y={CY - half - 59}
        text-anchor="middle"
        text-decoration="underline"
        >{say('⌀ {leftDiameterMm}{x} mm', {
          leftDiameterMm: w.leftDiameterMm,
          x: w.rightDiameterMm !== w.leftDiameterMm ? ` / ${w.rightDiameterMm}` : ''
        })}</text
      ></g
    >
    <g
      role="button"
      tabindex="0"
      class="cursor-pointer"
      aria-label={say('Track width {trackMm} mm, change it', { trackMm: w.trackMm })}
      onclick={() => ondimension('track')}
      onkeydown={(e) => e.key === 'Enter' && ondimension('track')}
      ><rect x={CX + front + 52} y={CY + 62} width="104" height="20" rx="5" fill="var(--paper)" /><text
        x={CX + front + 56}
        y={CY + 77}
        text-decoration="underline">{say('track {trackMm} mm', { trackMm: w.trackMm })}</text
      ></g
    >
    <text x={CX + (kit.lineSensors.aheadMm * S) / 2} y={CY + half + 58} text-anchor="middle"
      >{say('{aheadMm} mm', { aheadMm: kit.lineSensors.aheadMm })}</text
    >
    <text x={CX - b.axleFromRearMm * S + 30} y={CY + half - 40} font-size="11.5">{say('x down, y to the left')}</text>
  </g>
  {#each spots as s (s.socket)}
    {@const p = partOf(s.socket)}
    {#if p}<path d="M{s.x < CX ? s.x + 176 : s.x} {s.y + 23}L{s.tx} {s.ty}" stroke="#5c6a60" fill="none" /><circle
        cx={s.tx}
        cy={s.ty}
        r="2.5"
        fill="#5c6a60"
      />{/if}
  {/each}
  {#each spots as s (s.socket)}
    {@const p = partOf(s.socket)}
    {@const held = drag?.from === s.socket ? drag : undefined}
    <g
      transform="translate({held?.x ?? s.x} {held?.y ?? s.y})"
      class={p ? 'cursor-grab touch-none' : ''}
      opacity={held ? 0.85 : 1}
      onpointerdown={(e) => down(e, s)}
      onpointermove={move}
      onpointerup={up}
      role="img"
      aria-label={say('Socket {socket}: {x}', { socket: s.socket, x: p ? `${p.name}, ${line(p)}` : say('empty') })}
      data-socket={s.socket}
    >
      <rect
        width="176"
        height="46"
        rx="8"
        fill={p ? 'var(--card)' : 'transparent'}
        stroke={flagged.has(s.socket)
          ? '#b8482a'
          : over?.socket === s.socket
            ? fits
              ? '#b5842a'
              : '#b8482a'
            : 'var(--rule)'}
        stroke-width={flagged.has(s.socket) || over?.socket === s.socket ? 2.5 : 1}
        stroke-dasharray={p ? '' : '5 4'}
      />
      <rect width="44" height="46" rx="8" fill={p ? '#26352c' : 'var(--rule)'} />
      <text x="22" y="29" text-anchor="middle" fill={p ? '#fff' : 'var(--ink)'} font-weight="700" font-size="15"
        >{s.socket}</text
      >
      <text x="54" y="20" font-weight="600" font-size="14" fill="var(--ink)"
        >{p ? p.name : word(TAKES[boardOf(kit).sockets[s.socket]])}</text
      >
      <text x="54" y="36" font-size="12" fill="var(--soft)">{line(p)}</text>
    </g>
  {/each}
</svg>
