<script lang="ts">
  import { barrow } from '../../../core/kit/kit.ts';
  import BarrowShape from './BarrowShape.svelte';
</script>

<svg width="64" viewBox="-97 -78 244 156" aria-hidden="true"
  ><BarrowShape
    kit={barrow}
    lamps={{ left: { on: true, colour: 'amber' }, right: { on: true, colour: 'amber' } }}
  /></svg
>
