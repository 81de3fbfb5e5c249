<!-- A place that was pointed at, on a mat that is drawn in cm. -->
<script lang="ts">
  import type { Mat } from '../../../core/yard/mat.ts';
  let { mat, at }: { mat: Pick<Mat, 'height'>; at: { x: number; y: number } } = $props();
</script>

<g transform="translate({at.x * 100} {(mat.height - at.y) * 100})" data-testid="pointed">
  <circle r="3.2" fill="#1f7a8c" fill-opacity="0.18" stroke="#1f7a8c" stroke-width="0.6" />
  <path d="M-5 0H5M0 -5V5" stroke="#1f7a8c" stroke-width="0.5" />
</g>
