<!-- A device in three dimensions, from its kit's own measures: turning wheels, moving horns, lit lamps. -->
<script lang="ts">
  import { T } from '@threlte/core';
  import GroundShadow from './GroundShadow.svelte';
  import { Color, ExtrudeGeometry, Shape } from 'three';
  import { hasWheels, reach, type Kit } from '../../../../core/kit/kit.ts';
  import { wheelKey } from '../../../../core/kit/keys.ts';
  import { rasterOf, type Display } from '../../../../core/kit/display.ts';
  import { colourOf, levelOf, shownOn } from '../../../../core/language/pixels.ts';
  import type { State } from '../../../../core/trace/query.ts';
  import type { Pose } from '../../../../core/yard/mat.ts';
  import { GLOW, LAMP_COLOURS } from '../../ui/lamp-colours.ts';
  let {
    kit,
    pose,
    state,
    beams,
    simple
  }: { kit: Kit; pose: Pose; state: State | undefined; beams: boolean; simple: boolean } = $props();
  const RAD = Math.PI / 180;
  const m = (mm: number) => mm / 1000;
  const chassis = $derived(kit.chassis);
  const size = $derived(reach(kit));
  const rear = $derived(m(size.rear));
  const front = $derived(m(size.front));
  const middle = $derived((rear + front) / 2);
  const widest = $derived(
    Math.max(size.left - size.right, ...kit.wheels.map((w) => 2 * (Math.abs(w.at.yMm) + w.widthMm / 2)))
  );
  const [low, high] = $derived([m(chassis.fromMm), m(chassis.toMm)]);
  const values = $derived(state?.values ?? {});
  const servos = $derived(kit.parts.filter((p) => p.type === 'servo' || p.type === 'spin'));
  const lifted = $derived(values.lifted ? 0.09 : 0);
  const board = $derived(!hasWheels(kit));
  /** a board is held over the mat, leaned as the hand leans it */
  const height = $derived(board ? 0.12 + (values.height ?? 0) / 100 : lifted);
  const body = $derived.by(() => {
    // ahead is up on a board, to the right on a machine
    const points = chassis.outline.map((p) => (board ? [-p.yMm, p.xMm] : [p.xMm, p.yMm]).map(m));
    const shape = new Shape();
    points.forEach(([x, y], i) => (i ? shape.lineTo(x, y) : shape.moveTo(x, y)));
    return new ExtrudeGeometry(shape, { depth: high - low, bevelEnabled: false });
  });
  const glow = (colour: string) => new Color(LAMP_COLOURS[colour] ?? '#e0a100');
</script>

<!-- Upright, its middle at the origin, facing the one who looks; within so many millimetres. -->
{#snippet display(d: Display, wide: number, tall: number)}
  {@const { columns, rows, colours } = rasterOf(d)}
  {@const pitch = Math.min(m(wide) / (columns + 0.5), m(tall) / (rows + 0.5))}
  <T.Mesh
    ><T.BoxGeometry args={[(columns + 0.5) * pitch, (rows + 0.5) * pitch, 0.002]} /><T.MeshStandardMaterial
      color="#26352c"
    /></T.Mesh
  >
  {#each shownOn(d, state?.picture ?? '') as dot, i (i)}{#if levelOf(dot.sign)}
      <T.Mesh
        position={[
          ((i % columns) - (columns - 1) / 2) * pitch,
          ((rows - 1) / 2 - Math.floor(i / columns)) * pitch,
          0.0014
        ]}
      >
        <T.BoxGeometry args={[pitch * 0.8, pitch * 0.8, 0.001]} /><T.MeshBasicMaterial
          color={GLOW[colours ? colourOf(dot.sign) : 'amber']}
        />
      </T.Mesh>
    {/if}{/each}
{/snippet}

<GroundShadow
  x={pose.x + (board ? 0 : middle) * Math.sin(pose.facingDeg * RAD)}
  y={pose.y + (board ? 0 : middle) * Math.cos(pose.facingDeg * RAD)}
  turn={(90 - pose.facingDeg) * RAD}
  length={front - rear}
  width={m(widest)}
  {height}
/>
<T.Group position={[pose.x, height, -pose.y]} rotation={[0, (90 - pose.facingDeg) * RAD, 0]}>
  {#if board}
    <T.Group rotation={[0, -Math.PI / 2, 0]}>
      <T.Group
        rotation={[
          -(values.leanForwards ?? 0) * RAD,
          -(values.leanTurned ?? 0) * RAD,
          -(values.leanSideways ?? 0) * RAD
        ]}
      >
        <T.Group rotation={[-Math.PI / 2, 0, 0]}>
          <T.Mesh geometry={body} castShadow><T.MeshStandardMaterial color="#fdfcf6" roughness={0.6} /></T.Mesh>
          {#if kit.display}<T.Group position={[0, m(kit.display.at.xMm), 0.0045]}
              >{@render display(kit.display, 29, 22)}</T.Group
            >{/if}
          {#if state?.lamps.left?.on}<T.Mesh position={[-0.008, 0, 0.006]}
              ><T.SphereGeometry args={[0.003, 10, 8]} /><T.MeshBasicMaterial
                color={glow(state.lamps.left.colour)}
              /></T.Mesh
            >{/if}
        </T.Group>
      </T.Group>
    </T.Group>
  {:else}
    <T.Mesh position={[0, low, 0]} rotation={[-Math.PI / 2, 0, 0]} geometry={body} castShadow
      ><T.MeshStandardMaterial color="#fdfcf6" roughness={0.6} /></T.Mesh
    >
    {#each chassis.bars as bar (bar.name)}
      <T.Mesh position={[m(bar.from.xMm + bar.to.xMm) / 2, (low + high) / 2 - 0.007, -m(bar.from.yMm + bar.to.yMm) / 2]}
        ><T.BoxGeometry
          args={[m(Math.abs(bar.to.xMm - bar.from.xMm)), 0.02, m(Math.abs(bar.to.yMm - bar.from.yMm))]}
        /><T.MeshStandardMaterial color="#c9cbb8" /></T.Mesh
      >
    {/each}
    {#if kit.display}
      {@const { at } = kit.display}
      <!-- flat on the body, the top of a picture ahead -->
      <T.Group position={[m(at.xMm), high + 0.0015, -m(at.yMm)]} rotation={[-Math.PI / 2, 0, (at.deg - 90) * RAD]}
        >{@render display(kit.display, 46, 38)}</T.Group
      >
    {/if}
    {#each kit.wheels as w (w.id)}
      {@const radius = m(w.diameterMm / 2)}
      <T.Group position={[m(w.at.xMm), radius, -m(w.at.yMm)]} rotation={[0, w.at.deg * RAD, 0]}>
        <T.Group rotation={[0, 0, -(values[wheelKey('turns', w.id)] ?? 0) * 2 * Math.PI]}>
          <T.Mesh rotation={[Math.PI / 2, 0, 0]} castShadow>
            <T.CylinderGeometry args={[radius, radius, m(w.widthMm), simple ? 18 : 32]} /><T.MeshStandardMaterial
              color="#26352c"
            />
          </T.Mesh>
          {#each [-1, 1] as side (side)}
            <T.Mesh position={[radius / 2, 0, side * m(w.widthMm / 2)]}
              ><T.BoxGeometry args={[radius / 1.2, 0.006, 0.002]} /><T.MeshStandardMaterial color="#c9b98a" /></T.Mesh
            >
          {/each}
          {#if w.rim === 'rollers'}{#each { length: 8 } as _, i (i)}
              {@const a = (i * Math.PI) / 4}
              <T.Mesh position={[radius * 0.94 * Math.cos(a), radius * 0.94 * Math.sin(a), 0]}
                ><T.SphereGeometry args={[m(w.widthMm) * 0.42, 10, 8]} /><T.MeshStandardMaterial
                  color="#8a8f82"
                /></T.Mesh
              >
            {/each}{/if}
        </T.Group>
      </T.Group>
    {/each}
    {#each chassis.lamps as l, i (i)}
      {@const lamp = state?.lamps[l.name]}
      <T.Mesh position={[m(l.at.xMm), high + 0.003, -m(l.at.yMm)]}>
        <T.SphereGeometry args={[0.0055, 12, 8]} />
        {#if lamp?.on}<T.MeshBasicMaterial color={glow(lamp.colour)} />{:else}<T.MeshStandardMaterial
            color="#d9dccb"
          />{/if}
      </T.Mesh>
    {/each}
    {#each servos as s, i (i)}{#if s.type === 'servo' && s.at && s.tips}
        {@const tipped = ((values[`servo${s.socket}`] ?? 90) + (s.hornDeg ?? 0) - 90) * RAD}
        {@const long = m(s.tips.lengthMm)}
        <T.Group position={[m(s.at.xMm) - long / 2, high + 0.012, -m(s.at.yMm)]} rotation={[0, s.at.deg * RAD, tipped]}>
          <T.Mesh position={[long / 2, 0, 0]} castShadow
            ><T.BoxGeometry args={[long, 0.012, m(s.tips.widthMm)]} /><T.MeshStandardMaterial color="#7a3f63" /></T.Mesh
          >
          {#each [-1, 1] as side (side)}<T.Mesh position={[long / 2, 0.018, (side * m(s.tips.widthMm)) / 2]}
              ><T.BoxGeometry args={[long, 0.036, 0.006]} /><T.MeshStandardMaterial color="#c9a3bb" /></T.Mesh
            >{/each}
        </T.Group>
      {:else if s.at}
        <T.Group
          position={[m(s.at.xMm), high + 0.008, -m(s.at.yMm)]}
          rotation={[0, (s.at.deg - ((values[`servo${s.socket}`] ?? 90) + (s.hornDeg ?? 0) - 90)) * RAD, 0]}
        >
          <T.Mesh position={[0.013, 0, 0]} castShadow
            ><T.BoxGeometry args={[0.028, 0.004, 0.006]} /><T.MeshStandardMaterial color="#7a3f63" /></T.Mesh
          >
        </T.Group>
      {/if}{/each}
    {#if beams}{#each kit.parts as p, i (i)}
        {#if p.type === 'distance'}
          <T.Group position={[m(p.at.xMm), 0.045, -m(p.at.yMm)]} rotation={[0, p.at.deg * RAD, 0]}>
            <T.Mesh position={[0.25, 0, 0]} rotation={[0, 0, Math.PI / 2]}>
              <T.ConeGeometry args={[Math.tan(11 * RAD) * 0.5, 0.5, 24, 1, true]} /><T.MeshBasicMaterial
                color="#1f7a8c"
                transparent
                opacity={0.18}
                side={2}
              />
            </T.Mesh>
          </T.Group>
        {:else if p.type === 'line' || p.type === 'colour'}
          <T.Mesh position={[m(p.at.xMm), 0.002, -m(p.at.yMm)]} rotation={[-Math.PI / 2, 0, 0]}>
            <T.CircleGeometry args={[0.004, 16]} /><T.MeshBasicMaterial color="#1f7a8c" />
          </T.Mesh>
        {/if}
      {/each}{/if}
  {/if}
</T.Group>
