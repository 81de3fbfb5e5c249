<!-- Any device from above in millimetres, facing right. -->
<script lang="ts">
  import type { Kit } from '../../../core/kit/kit.ts';
  import BarrowShape from './BarrowShape.svelte';
  import TrowelShape from './TrowelShape.svelte';
  type Lamps = Record<'left' | 'right', { on: boolean; colour: string }>;
  let {
    kit,
    lamps,
    horns = {},
    picture = '',
    ghost = false
  }: { kit: Kit; lamps?: Lamps; horns?: Record<string, number>; picture?: string; ghost?: boolean } = $props();
</script>

{#if kit.device === 'trowel'}
  <g transform="rotate(90)"><TrowelShape {kit} lamp={lamps?.left} {horns} picture={picture || undefined} {ghost} /></g>
{:else}<BarrowShape {kit} {lamps} {horns} {picture} {ghost} />{/if}
