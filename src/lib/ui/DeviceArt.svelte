<script lang="ts">
  import { hasWheels, reach, type Kit } from '../../../core/kit/kit.ts';
  import DeviceShape from './DeviceShape.svelte';
  let { kit }: { kit: Kit } = $props();
  const lit = { on: true, colour: 'amber' };
  /** all of it, with room for what looks ahead of a machine */
  const box = $derived.by(() => {
    const { rear, front, left } = reach(kit);
    const [from, to] = hasWheels(kit) ? [rear - 12, Math.max(front + 82, front * 1.6)] : [rear - 6, front + 6];
    const half = Math.max((to - rear) * 0.32, left + 6);
    return `${from} ${-half} ${to - from} ${2 * half}`;
  });
  const leaf = '...#... ..###.. .#####. ..###.. ...#...';
</script>

<svg width="64" viewBox={box} aria-hidden="true"
  ><DeviceShape
    {kit}
    lamps={Object.fromEntries(kit.chassis.lamps.map((l) => [l.name, lit]))}
    picture={hasWheels(kit) ? '' : leaf}
  /></svg
>
