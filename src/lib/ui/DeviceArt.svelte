<script lang="ts">
  import { hasWheels, type Kit } from '../../../core/kit/kit.ts';
  import DeviceShape from './DeviceShape.svelte';
  let { kit }: { kit: Kit } = $props();
  const lit = { on: true, colour: 'amber' };
  const leaf = '...#... ..###.. .#####. ..###.. ...#...';
</script>

<svg width="64" viewBox={hasWheels(kit) ? '-97 -78 244 156' : '-52 -33 104 66'} aria-hidden="true"
  ><DeviceShape {kit} lamps={{ left: lit, right: lit }} picture={hasWheels(kit) ? '' : leaf} /></svg
>
