<!-- A device in three dimensions, from its kit's own measures: turning wheels, moving horns, lit lamps. -->
<script lang="ts">
  import { T } from '@threlte/core';
  import GroundShadow from './GroundShadow.svelte';
  import { Color, ExtrudeGeometry, Shape } from 'three';
  import { hasWheels, type Kit } from '../../../../core/kit/kit.ts';
  import { DARK, levelOf, shownAs } from '../../../../core/language/pixels.ts';
  import type { State } from '../../../../core/trace/query.ts';
  import type { Pose } from '../../../../core/yard/mat.ts';
  import { LAMP_COLOURS } from '../../ui/lamp-colours.ts';
  let {
    kit,
    pose,
    state,
    beams,
    simple
  }: { kit: Kit; pose: Pose; state: State | undefined; beams: boolean; simple: boolean } = $props();
  const RAD = Math.PI / 180;
  const m = (mm: number) => mm / 1000;
  const b = $derived(kit.body);
  const wheels = $derived(kit.wheels);
  const rear = $derived(-m(b.axleFromRearMm));
  const front = $derived(rear + m(b.lengthMm));
  const middle = $derived((rear + front) / 2);
  const values = $derived(state?.values ?? {});
  const servos = $derived(kit.parts.filter((p) => p.type === 'servo' || p.type === 'spin'));
  const flat = $derived(shownAs(state?.picture ?? DARK, kit.display?.turnedDeg ?? 0).replaceAll(' ', ''));
  const lifted = $derived(values.lifted ? 0.09 : 0);
  const board = $derived(!hasWheels(kit));
  /** a board is held over the mat, leaned as the hand leans it */
  const height = $derived(board ? 0.12 + (values.height ?? 0) / 100 : lifted);
  const label = $derived.by(() => {
    const [half, top, foot] = [m(b.widthMm / 2), m(b.lengthMm / 2), -m(b.lengthMm / 2)];
    const shape = new Shape();
    shape.moveTo(-half, top);
    shape.lineTo(half, top);
    shape.lineTo(half, foot + 0.026);
    shape.lineTo(0, foot);
    shape.lineTo(-half, foot + 0.026);
    return new ExtrudeGeometry(shape, { depth: 0.004, bevelEnabled: false });
  });
  const glow = (colour: string) => new Color(LAMP_COLOURS[colour] ?? '#e0a100');
</script>

<GroundShadow
  x={pose.x + (board ? 0 : middle) * Math.sin(pose.facingDeg * RAD)}
  y={pose.y + (board ? 0 : middle) * Math.cos(pose.facingDeg * RAD)}
  turn={(90 - pose.facingDeg) * RAD}
  length={m(b.lengthMm)}
  width={board ? m(b.widthMm) : m(wheels.trackMm + wheels.widthMm)}
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
          <T.Mesh geometry={label} castShadow><T.MeshStandardMaterial color="#fdfcf6" roughness={0.6} /></T.Mesh>
          <T.Mesh position={[0, 0.03, 0.0045]}
            ><T.BoxGeometry args={[0.029, 0.022, 0.001]} /><T.MeshStandardMaterial color="#26352c" /></T.Mesh
          >
          {#each { length: 35 } as _, i (i)}{#if levelOf(flat[i])}
              <T.Mesh position={[-0.0115 + (i % 7) * 0.00385, 0.038 - Math.floor(i / 7) * 0.004, 0.0055]}>
                <T.BoxGeometry args={[0.0032, 0.0032, 0.001]} /><T.MeshBasicMaterial color="#ffcf5a" />
              </T.Mesh>
            {/if}{/each}
          {#if state?.lamps.left.on}<T.Mesh position={[-0.008, 0, 0.006]}
              ><T.SphereGeometry args={[0.003, 10, 8]} /><T.MeshBasicMaterial
                color={glow(state.lamps.left.colour)}
              /></T.Mesh
            >{/if}
        </T.Group>
      </T.Group>
    </T.Group>
  {:else}
    <T.Mesh position={[middle, 0.047, 0]} castShadow>
      <T.BoxGeometry args={[m(b.lengthMm), 0.04, m(b.widthMm)]} /><T.MeshStandardMaterial
        color="#fdfcf6"
        roughness={0.6}
      />
    </T.Mesh>
    <T.Mesh position={[front + 0.003, 0.04, 0]}
      ><T.BoxGeometry args={[0.006, 0.02, 0.042]} /><T.MeshStandardMaterial color="#c9cbb8" /></T.Mesh
    >
    <T.Mesh position={[rear + 0.031, 0.0685, 0]}
      ><T.BoxGeometry args={[0.04, 0.003, 0.048]} /><T.MeshStandardMaterial color="#26352c" /></T.Mesh
    >
    {#each { length: 35 } as _, i (i)}{#if levelOf(flat[i])}
        <T.Mesh position={[rear + 0.0463 - Math.floor(i / 7) * 0.007, 0.0708, 0.0188 - (i % 7) * 0.006]}>
          <T.BoxGeometry args={[0.005, 0.0015, 0.0046]} /><T.MeshBasicMaterial color="#ffcf5a" />
        </T.Mesh>
      {/if}{/each}
    {#each [['left', -1, wheels.leftDiameterMm, 'turnsLeft'], ['right', 1, wheels.rightDiameterMm, 'turnsRight']] as const as [side, sign, d, key] (side)}
      <T.Group
        position={[0, m(d / 2), sign * m(wheels.trackMm / 2)]}
        rotation={[0, 0, -(values[key] ?? 0) * 2 * Math.PI]}
      >
        <T.Mesh rotation={[Math.PI / 2, 0, 0]} castShadow>
          <T.CylinderGeometry args={[m(d / 2), m(d / 2), m(wheels.widthMm), simple ? 18 : 32]} /><T.MeshStandardMaterial
            color="#26352c"
          />
        </T.Mesh>
        <T.Mesh position={[m(d / 4), 0, sign * m(wheels.widthMm / 2)]}
          ><T.BoxGeometry args={[m(d / 2.4), 0.006, 0.002]} /><T.MeshStandardMaterial color="#c9b98a" /></T.Mesh
        >
      </T.Group>
      <T.Mesh position={[front - 0.016, 0.07, sign * (m(b.widthMm / 2) - 0.018)]}>
        <T.SphereGeometry args={[0.0055, 12, 8]} />
        {#if state?.lamps[side].on}<T.MeshBasicMaterial
            color={glow(state.lamps[side].colour)}
          />{:else}<T.MeshStandardMaterial color="#d9dccb" />{/if}
      </T.Mesh>
    {/each}
    {#each servos as s, i (s.socket)}
      <T.Group
        position={[0.006, 0.075, i === 0 ? -0.026 : 0.022]}
        rotation={[0, -((values[`servo${s.socket}`] ?? 90) + (s.hornDeg ?? 0) - 90) * RAD, 0]}
      >
        <T.Mesh position={[0.013, 0, 0]} castShadow
          ><T.BoxGeometry args={[0.028, 0.004, 0.006]} /><T.MeshStandardMaterial color="#7a3f63" /></T.Mesh
        >
      </T.Group>
    {/each}
    {#if beams && kit.parts.some((p) => p.type === 'distance')}
      <T.Mesh position={[front + 0.25, 0.045, 0]} rotation={[0, 0, Math.PI / 2]}>
        <T.ConeGeometry args={[Math.tan(11 * RAD) * 0.5, 0.5, 24, 1, true]} /><T.MeshBasicMaterial
          color="#1f7a8c"
          transparent
          opacity={0.18}
          side={2}
        />
      </T.Mesh>
    {/if}
    {#if beams && kit.parts.some((p) => p.type === 'line')}
      {#each [-1, 1] as side (side)}
        <T.Mesh
          position={[m(kit.lineSensors.aheadMm), 0.002, (side * m(kit.lineSensors.apartMm)) / 2]}
          rotation={[-Math.PI / 2, 0, 0]}
        >
          <T.CircleGeometry args={[0.004, 16]} /><T.MeshBasicMaterial color="#1f7a8c" />
        </T.Mesh>
      {/each}
    {/if}
  {/if}
</T.Group>
