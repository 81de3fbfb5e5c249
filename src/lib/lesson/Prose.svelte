<!-- Words of a lesson, as Markdown says them. -->
<script lang="ts">
  import { proseOf } from './prose.ts';
  let { markdown, class: own = '' }: { markdown: string; class?: string } = $props();
</script>

{#if markdown.trim()}<div class="mb-prose {own}">{@html proseOf(markdown)}</div>{/if}
