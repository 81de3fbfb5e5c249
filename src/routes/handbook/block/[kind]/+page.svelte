<script lang="ts">
  import { say, word } from '../../../../../core/words.ts';
  import { definition } from '../../../../../core/language/catalogue.ts';
  import BlockPage from '$lib/handbook/BlockPage.svelte';
  let { data } = $props();
</script>

<svelte:head><title>{say('{label} · Handbook', { label: word(definition(data.kind).label[0]) })}</title></svelte:head>
<BlockPage kind={data.kind} />
