<!-- A measured drawing, to scale from the kit's own numbers: click a dimension to change it, drag a card to another socket. -->
<script lang="ts">
  import { later, say, word } from '../../../core/words.ts';
  import {
    reach,
    socketsFor,
    boardOf,
    trackMm,
    wheelOf,
    wheelsAt,
    type Kit,
    type Part
  } from '../../../core/kit/kit.ts';
  import { sits } from '../../../core/kit/parts/parts.ts';
  import MachineShape from '../ui/MachineShape.svelte';
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
  const CX = 432;
  const CY = 374;
  const CARD = { wide: 176, high: 46 };
  const size = $derived(reach(kit));
  /** pixels a millimetre: as large as leaves room for cards at its sides and measures round it */
  const S = $derived.by(() => {
    const reaches = kit.wheels.map((w) => Math.abs(w.at.yMm) + w.widthMm / 2);
    const [long, wide] = [size.front - size.rear, 2 * Math.max(size.left, ...reaches)];
    return Math.min(2.6, 400 / long, 370 / wide);
  });
  /** the origin, so that the body stands in the middle */
  const OX = $derived(CX - 26 - ((size.front + size.rear) / 2) * S);
  const px = (xMm: number) => OX + xMm * S;
  const py = (yMm: number) => CY - yMm * S;
  const front = $derived(px(size.front));
  const track = $derived(trackMm(kit));
  const wheel = $derived(wheelsAt(kit, 'left')[0] ?? kit.wheels[0]);
  const other = $derived(wheelsAt(kit, 'right')[0]);
  const top = $derived(py(Math.max(size.left, ...kit.wheels.map((w) => w.at.yMm))));
  const bottom = $derived(py(Math.min(size.right, ...kit.wheels.map((w) => w.at.yMm))));
  const looksDown = $derived(kit.parts.find((p) => p.type === 'line' || p.type === 'colour'));
  const TAKES = {
    motor: later('motor socket'),
    servo: later('servo socket'),
    sensor: later('sensor socket'),
    lamp: later('lamp socket')
  };
  type Spot = { socket: string; x: number; y: number; tx: number; ty: number };
  /** the place on the device that a card points to, mm */
  function placeOf(part: Part): { xMm: number; yMm: number } | undefined {
    const wheel = wheelOf(kit, part);
    if (wheel) return wheel.at;
    return 'at' in part ? part.at : undefined;
  }
  /** Cards as near to their places as they have room: those of what looks ahead on the right, the others on the left, empty sockets below. */
  const spots = $derived.by((): Spot[] => {
    const ahead = size.front * 0.45;
    const [left, right, below]: [Spot[], Spot[], Spot[]] = [[], [], []];
    for (const socket of Object.keys(boardOf(kit).sockets)) {
      const part = partOf(socket);
      const place = part && placeOf(part);
      const spot = { socket, x: 0, y: 0, tx: px(place?.xMm ?? size.rear * 0.5), ty: py(place?.yMm ?? 0) };
      if (!part) below.push(spot);
      else if (place && place.xMm > ahead && !wheelOf(kit, part)) right.push(spot);
      else left.push(spot);
    }
    const column = (list: Spot[], x: number): void => {
      list.sort((a, b) => a.ty - b.ty);
      const gap = CARD.high + 14;
      // spread out from the middle, then pushed apart where they would lie on one another
      list.forEach((s, i) => {
        const wished = CY + (s.ty - CY) * 1.35 - CARD.high / 2;
        s.x = x;
        s.y = Math.max(wished, i ? list[i - 1].y + gap : 84);
      });
      for (let i = list.length - 1; i >= 0; i--)
        list[i].y = Math.min(list[i].y, i === list.length - 1 ? 600 : list[i + 1].y - gap);
    };
    column(left, 16);
    column(right, 880 - CARD.wide - 16);
    below.forEach((s, i) => {
      s.x = 16 + (i % 4) * (CARD.wide + 18);
      s.y = 686 - Math.floor((below.length - 1 - i) / 4) * (CARD.high + 8);
    });
    return [...left, ...right, ...below];
  });
  const partOf = (socket: string) => kit.parts.find((p) => p.socket === socket);
  const line = (p: Part | undefined): string => (p ? sits(p, kit) : say('empty'));
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
</script>

<svg
  bind:this={svg}
  viewBox="0 0 880 748"
  class="h-full w-full"
  role="group"
  aria-label={say('{name} from above, measured', { name: kit.name })}
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
  <g transform="translate({OX} {CY}) scale({S})"
    ><MachineShape
      {kit}
      horns={Object.fromEntries(kit.parts.filter((p) => p.type === 'servo').map((p) => [p.socket, 60]))}
      lamps={Object.fromEntries(kit.chassis.lamps.map((l) => [l.name, { on: true, colour: 'amber' }]))}
    /></g
  >

  {#if wheel}
    {@const half = (wheel.diameterMm / 2) * S}
    {@const x = px(wheel.at.xMm)}
    {@const y = track ? top : py(wheel.at.yMm)}
    <g stroke="#8a8f82" fill="none">
      {#if track}
        <path d="M{x - half} {y - 24}V{y - 62}M{x + half} {y - 24}V{y - 62}" />
        <path d="M{x - half} {y - 50}H{x + half}" marker-start="url(#kit-arrow)" marker-end="url(#kit-arrow)" />
        <path
          d="M{x + half + 8} {py(wheel.at.yMm)}H{front + 60}M{px(other.at.xMm) + half + 8} {py(other.at.yMm)}H{front +
            60}"
        />
        <path
          d="M{front + 48} {py(wheel.at.yMm)}V{py(other.at.yMm)}"
          marker-start="url(#kit-arrow)"
          marker-end="url(#kit-arrow)"
        />
      {/if}
      {#if looksDown}
        <path d="M{OX} {bottom + 26}V{bottom + 50}M{px(looksDown.at.xMm)} {py(looksDown.at.yMm) + 14}V{bottom + 50}" />
        <path
          d="M{OX} {bottom + 40}H{px(looksDown.at.xMm)}"
          marker-start="url(#kit-arrow)"
          marker-end="url(#kit-arrow)"
        />
      {/if}
    </g>
    <g class="font-mono" font-size="13" fill="var(--soft)">
      <g
        role="button"
        tabindex="0"
        class="cursor-pointer"
        aria-label={say('Wheel diameter {leftDiameterMm} mm, change it', { leftDiameterMm: wheel.diameterMm })}
        onclick={() => ondimension('diameter')}
        onkeydown={(e) => e.key === 'Enter' && ondimension('diameter')}
        ><rect
          x={(track ? x : OX) - 44}
          y={(track ? y : top + 48) - 74}
          width="88"
          height="20"
          rx="5"
          fill="var(--paper)"
        /><text x={track ? x : OX} y={(track ? y : top + 48) - 59} text-anchor="middle" text-decoration="underline"
          >{say('⌀ {leftDiameterMm}{x} mm', {
            leftDiameterMm: wheel.diameterMm,
            x: other && other.diameterMm !== wheel.diameterMm ? ` / ${other.diameterMm}` : ''
          })}</text
        ></g
      >
      {#if track}<g
          role="button"
          tabindex="0"
          class="cursor-pointer"
          aria-label={say('Track width {trackMm} mm, change it', { trackMm: track })}
          onclick={() => ondimension('track')}
          onkeydown={(e) => e.key === 'Enter' && ondimension('track')}
          ><rect x={front - 4} y={py(other.at.yMm) + 8} width="104" height="20" rx="5" fill="var(--paper)" /><text
            x={front + 48}
            y={py(other.at.yMm) + 23}
            text-anchor="middle"
            text-decoration="underline">{say('track {trackMm} mm', { trackMm: track })}</text
          ></g
        >{/if}
      {#if looksDown}<text x={(OX + px(looksDown.at.xMm)) / 2} y={bottom + 58} text-anchor="middle"
          >{say('{aheadMm} mm', { aheadMm: looksDown.at.xMm })}</text
        >{/if}
    </g>
  {/if}
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
