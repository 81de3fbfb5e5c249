<!-- Any device from above in millimetres, facing right. -->
<script lang="ts">
  import { hasWheels, type Kit } from '../../../core/kit/kit.ts';
  import HandBoardShape from './HandBoardShape.svelte';
  import MachineShape from './MachineShape.svelte';
  type Lamps = Readonly<Partial<Record<string, { on: boolean; colour: string }>>>;
  let {
    kit,
    lamps,
    horns = {},
    picture = '',
    ghost = false
  }: { kit: Kit; lamps?: Lamps; horns?: Record<string, number>; picture?: string; ghost?: boolean } = $props();
</script>

{#if !hasWheels(kit)}
  <g transform="rotate(90)"><HandBoardShape {kit} lamp={lamps?.left} {horns} {picture} {ghost} /></g>
{:else}<MachineShape {kit} {lamps} {horns} {picture} {ghost} />{/if}
