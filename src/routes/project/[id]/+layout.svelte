<script lang="ts">
  import { replaceState } from '$app/navigation';
  import { onDestroy, untrack } from 'svelte';
  import { Workbench, setWorkbench } from '$lib/workbench/workbench.svelte.ts';
  let { data, children } = $props();
  // one workbench a project; the kit sheet and the workbench share it, and with it the history
  let workbench = $derived.by(() => {
    const { session } = data;
    session.onMoved = (id) => replaceState(location.pathname.replace(/^\/project\/[^/]+/, `/project/${id}`), {});
    // what the workbench looks at as it is made must not make it anew
    return untrack(() => new Workbench(session));
  });
  setWorkbench(() => workbench);
  onDestroy(() => {
    workbench.close();
    data.session.close();
  });
  function keys(event: KeyboardEvent) {
    if (
      !(event.ctrlKey || event.metaKey) ||
      event.target instanceof HTMLInputElement ||
      event.target instanceof HTMLTextAreaElement
    )
      return;
    const key = event.key.toLowerCase();
    if (key !== 'z' && key !== 'y') return;
    event.preventDefault();
    event.stopPropagation();
    if (key === 'y' || event.shiftKey) data.session.redo();
    else data.session.undo();
  }
</script>

<svelte:window
  onkeydowncapture={keys}
  onbeforeunload={() => data.session.saving === 'saving' && void data.session.save()}
/>
{@render children()}
