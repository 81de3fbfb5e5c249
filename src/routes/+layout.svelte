<script lang="ts">
  import '../app.css';
  import ThemeProvider from 'flowbite-svelte/ThemeProvider.svelte';
  import { onMount } from 'svelte';
  import { say } from '../../core/words.ts';
  import { toasts } from '$lib/ui/toasts.svelte.ts';
  let { children } = $props();
  // what is told when something went wrong must be there before it does
  onMount(() => {
    void import('$lib/ui/Toasts.svelte');
  });
  /** what is explained at the moment: a hard word that is pointed at or has the focus */
  let explained = $state.raw<HTMLElement>();
  let due: ReturnType<typeof setTimeout>;
  function look(target: EventTarget | null, after: number) {
    clearTimeout(due);
    const of = (target as Element | null)?.closest?.<HTMLElement>('[data-tip]') ?? undefined;
    if (!of) explained = undefined;
    else if (of !== explained) due = setTimeout(() => (explained = of), after);
  }
</script>

<svelte:window
  onpointerover={(e) => e.pointerType !== 'touch' && look(e.target, 400)}
  onpointerdown={() => look(null, 0)}
  onfocusin={(e) => (e.target as Element).matches(':focus-visible') && look(e.target, 100)}
  onfocusout={() => look(null, 0)}
  onkeydown={(e) => e.key === 'Escape' && look(null, 0)}
/>
<!-- our looks are given in src/lib/ui; where there is no theme at all, every component looks for one and fails -->
<ThemeProvider theme={{}}>{@render children()}</ThemeProvider>
<!-- there from the start, so that it is read aloud when something comes into it -->
<div role="status" aria-live="polite" data-testid="toasts">
  {#if toasts.list.length}{#await import('$lib/ui/Toasts.svelte') then { default: Toasts }}<Toasts />{/await}{/if}
</div>
{#if explained}{#await import('$lib/ui/Tips.svelte') then { default: Tips }}<aside aria-label={say('What it means')}>
      <Tips of={explained} />
    </aside>{/await}{/if}
