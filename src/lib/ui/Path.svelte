<!-- Where one is, and the way back, on the bar at the top: the component library's breadcrumb. The last step is the page's heading. -->
<script lang="ts">
  import ChevronRight from '@lucide/svelte/icons/chevron-right';
  import Breadcrumb from 'flowbite-svelte/Breadcrumb.svelte';
  import BreadcrumbItem from 'flowbite-svelte/BreadcrumbItem.svelte';
  import { say } from '../../../core/words.ts';
  let { steps }: { steps: { name: string; href?: string }[] } = $props();
  const own = 'ms-0! md:ms-0! min-w-0 text-[#eef2e4]! dark:text-[#eef2e4]! text-[17px]';
</script>

<Breadcrumb ariaLabel={say('Where you are')} class="min-w-0" classes={{ list: 'min-w-0 space-x-2 md:space-x-2' }}>
  {#each steps as step, i (i)}
    <BreadcrumbItem
      href={step.href}
      class="min-w-0"
      linkClass="{own} hover:underline pointer-coarse:min-h-10"
      spanClass={own}
    >
      {#snippet icon()}{#if i}<ChevronRight
            size={15}
            class="mr-2 shrink-0 text-[#a9b8a4]"
            aria-hidden="true"
          />{/if}{/snippet}
      {#if i === steps.length - 1}<h1 class="truncate text-[17px]" title={step.name}>{step.name}</h1>{:else}<span
          class="truncate"
          title={step.name}>{step.name}</span
        >{/if}
    </BreadcrumbItem>
  {/each}
</Breadcrumb>
