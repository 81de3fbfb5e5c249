<!-- An address as a QR code. -->
<script lang="ts">
  import { renderSVG } from 'uqr';
  import { say } from '../../../core/words.ts';
  let { address, border = 1, class: own = '' }: { address: string; border?: number; class?: string } = $props();
</script>

<div
  class="shrink-0 rounded-lg bg-white p-1 [&>svg]:h-full [&>svg]:w-full {own}"
  role="img"
  aria-label={say('QR code of the address')}
>
  <!-- eslint-disable-next-line svelte/no-at-html-tags -- drawn by the QR library from our own address -->
  {@html renderSVG(address, { border })}
</div>
