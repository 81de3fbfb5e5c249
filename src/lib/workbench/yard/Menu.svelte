<!-- What else can be done with the yard. Its dialogs are loaded when they are asked for. -->
<script lang="ts">
  import Menu from '../../ui/Menu.svelte';
  import MenuItem from '../../ui/MenuItem.svelte';
  import type { Component } from 'svelte';
  import { say } from '../../../../core/words.ts';
  import { useWorkbench } from '../workbench.svelte.ts';
  let { onpicture }: { onpicture: () => void } = $props();
  const w = useWorkbench();
  type Dialog = Component<{ open: boolean }, object, 'open'>;
  let Asked = $state.raw<Dialog>();
  let asking = $state(false);
  const others = $derived(w.session.project.others ?? []);
  async function ask(load: () => Promise<{ default: Dialog }>) {
    Asked = (await load()).default;
    asking = true;
  }
  function takeOut(name: string) {
    const { others: _, ...rest } = w.session.project;
    const left = others.filter((o) => o.name !== name);
    w.session.change(say('take {name} out of the yard', { name }), left.length ? { ...rest, others: left } : rest);
    w.runs.clear();
  }
</script>

<Menu label={say('More about the yard')}>
  <MenuItem href="/project/{w.session.id}/mat">{say('Edit the mat')}</MenuItem>
  <MenuItem onclick={() => ask(() => import('./Another.svelte'))}>{say('Put another device in')}</MenuItem>
  {#each others as o (o.name)}<MenuItem onclick={() => takeOut(o.name)}
      >{say('Take {name} out of the yard', { name: o.name })}</MenuItem
    >{/each}
  <MenuItem onclick={() => (w.stage = w.stage ? undefined : 'yard')}
    >{w.stage ? say('Back to the workbench') : say('Fill the screen')}</MenuItem
  >
  <MenuItem onclick={onpicture}>{say('Save a picture (PNG)')}</MenuItem>
  <MenuItem onclick={() => ask(() => import('./Clip.svelte'))}>{say('Record a clip')}</MenuItem>
</Menu>
{#if Asked && asking}<Asked bind:open={asking} />{/if}
