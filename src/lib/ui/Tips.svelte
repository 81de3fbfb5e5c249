<!-- One sentence about what is pointed at or has the focus: of whatever has a `data-tip`. Esc closes it (WCAG 1.4.13). -->
<script lang="ts">
  import Tooltip from 'flowbite-svelte/Tooltip.svelte';
  let { of }: { of: HTMLElement } = $props();
  const id = $props.id();
  const text = $derived(of.dataset.tip ?? '');
  $effect.pre(() => {
    of.id ||= `${id}-of`;
  });
  let open = $state(false);
  $effect(() => {
    open = !!text;
  });
</script>

<span id="{id}-none" hidden></span>
{#key of}<Tooltip
    triggeredBy="#{id}-none"
    reference="#{of.id || `${id}-of`}"
    bind:isOpen={open}
    arrow={false}
    placement={(of.dataset.tipSide as 'left' | undefined) ?? 'bottom'}
    transitionParams={{ duration: 0 }}
    class="z-[95] max-w-72 rounded-md border border-rule bg-card px-3 py-1.5 text-[13.5px] font-medium whitespace-normal text-ink shadow-md dark:bg-card dark:text-ink"
    >{text}</Tooltip
  >{/key}
