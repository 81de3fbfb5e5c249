<!-- What else can be done with the yard. -->
<script lang="ts">
  import { say } from '../../../../core/words.ts';
  import Dots from '@lucide/svelte/icons/ellipsis';
  import Dropdown from 'flowbite-svelte/Dropdown.svelte';
  import DropdownItem from 'flowbite-svelte/DropdownItem.svelte';
  import { useWorkbench } from '../workbench.svelte.ts';
  let { onclip, onpicture, onmore }: { onclip: () => void; onpicture: () => void; onmore: () => void } = $props();
  const w = useWorkbench();
  let open = $state(false);
  const others = $derived(w.session.project.others ?? []);
  const act = (what: () => void) => () => {
    open = false;
    what();
  };
  function takeOut(name: string) {
    const { others: _, ...rest } = w.session.project;
    const left = others.filter((o) => o.name !== name);
    w.session.change(say('take {name} out of the yard', { name }), left.length ? { ...rest, others: left } : rest);
    w.runs.clear();
  }
</script>

<button class="chip min-h-6 !px-1.5" aria-label={say('More about the yard')} title={say('More about the yard')}
  ><Dots size={15} /></button
>
<Dropdown simple bind:isOpen={open} placement="bottom-end" class="z-30 min-w-56 border border-rule bg-card text-ink">
  <DropdownItem class="hover:bg-linen" href="/project/{w.session.id}/mat">{say('Edit the mat')}</DropdownItem>
  <DropdownItem class="hover:bg-linen" onclick={act(onmore)}>{say('Put another device in')}</DropdownItem>
  {#each others as o (o.name)}<DropdownItem class="hover:bg-linen" onclick={act(() => takeOut(o.name))}
      >{say('Take {name} out of the yard', { name: o.name })}</DropdownItem
    >{/each}
  <DropdownItem class="hover:bg-linen" onclick={act(onpicture)}>{say('Save a picture (PNG)')}</DropdownItem>
  <DropdownItem class="hover:bg-linen" onclick={act(onclip)}>{say('Record a clip')}</DropdownItem>
</Dropdown>
