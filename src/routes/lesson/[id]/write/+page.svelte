<script lang="ts">
  import Writer from '$lib/lesson/Writer.svelte';
  let { data } = $props();
</script>

{#key data.lesson.id}<Writer {data} />{/key}
