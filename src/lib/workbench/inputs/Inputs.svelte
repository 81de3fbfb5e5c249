<!-- What a person did during a run, used again; the dialog comes when it is asked for. -->
<script lang="ts">
  import Button from '../../ui/Button.svelte';
  import type { Component } from 'svelte';
  import { say } from '../../../../core/words.ts';
  import { trackOf } from '../../../../core/trace/track.ts';
  import { useWorkbench } from '../workbench.svelte.ts';
  const { runs } = useWorkbench();
  let open = $state(false);
  let Dialog = $state.raw<Component<{ open: boolean }, object, 'open'>>();
  const last = $derived(
    runs.run && runs.run.version >= 0 && !runs.looking && !runs.busy ? trackOf(runs.run.trace) : []
  );
  async function show() {
    Dialog ??= (await import('./InputsDialog.svelte')).default;
    open = true;
  }
  function same() {
    runs.inputs = runs.inputs ? undefined : { name: say('same as last time'), list: last };
  }
</script>

<Button look="quiet" onclick={show} data-testid="inputs"
  >{runs.inputs ? say('Inputs: {name}', { name: runs.inputs.name }) : say('Inputs')}</Button
>
{#if (last.length || runs.inputs) && !runs.busy}<Button look="quiet" aria-pressed={!!runs.inputs} onclick={same}
    >{runs.inputs ? say('No inputs') : say('Same inputs as last time')}</Button
  >{/if}
{#if Dialog && open}<Dialog bind:open />{/if}
