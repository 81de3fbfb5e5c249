<!-- What else can be done with the yard; it comes when it is asked for. -->
<script lang="ts">
  import { say } from '../../../../core/words.ts';
  import Dropdown from 'flowbite-svelte/Dropdown.svelte';
  import DropdownItem from 'flowbite-svelte/DropdownItem.svelte';
  import Another from './Another.svelte';
  import Clip from './Clip.svelte';
  import { useWorkbench } from '../workbench.svelte.ts';
  let {
    open = $bindable(),
    trigger,
    onpicture
  }: { open: boolean; /** the button that it hangs on */ trigger: string; onpicture: () => void } = $props();
  let clip = $state(false);
  let another = $state(false);
  const w = useWorkbench();
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

<Dropdown
  simple
  triggeredBy={trigger}
  bind:isOpen={open}
  placement="bottom-end"
  class="z-30 min-w-56 border border-rule bg-card text-ink"
>
  <DropdownItem class="hover:bg-linen" href="/project/{w.session.id}/mat">{say('Edit the mat')}</DropdownItem>
  <DropdownItem class="hover:bg-linen" onclick={act(() => (another = true))}
    >{say('Put another device in')}</DropdownItem
  >
  {#each others as o (o.name)}<DropdownItem class="hover:bg-linen" onclick={act(() => takeOut(o.name))}
      >{say('Take {name} out of the yard', { name: o.name })}</DropdownItem
    >{/each}
  <DropdownItem class="hover:bg-linen" onclick={act(onpicture)}>{say('Save a picture (PNG)')}</DropdownItem>
  <DropdownItem class="hover:bg-linen" onclick={act(() => (clip = true))}>{say('Record a clip')}</DropdownItem>
</Dropdown>
<Clip bind:open={clip} />
<Another bind:open={another} />
