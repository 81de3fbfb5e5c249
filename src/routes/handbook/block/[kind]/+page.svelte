<script lang="ts">
  import { definition } from '../../../../../core/language/catalogue.ts';
  import BlockPage from '$lib/handbook/BlockPage.svelte';
  let { data } = $props();
</script>

<svelte:head><title>{definition(data.kind).label[0]} · Handbook</title></svelte:head>
<BlockPage kind={data.kind} />
