<!-- A step in words that leads to its block, and lights it on the way. -->
<script lang="ts">
  import Button from '../../ui/Button.svelte';
  import { partName } from '../../../../core/kit/kit.ts';
  import { sentence } from '../../../../core/language/catalogue.ts';
  import { allSteps, type Step } from '../../../../core/language/program.ts';
  import { useWorkbench } from '../workbench.svelte.ts';
  let { id, step, words }: { id: string; step?: Step; words?: string } = $props();
  const w = useWorkbench();
  const text = $derived.by(() => {
    if (words) return words;
    const { program, kit } = w.session.project;
    const found = step ?? [...allSteps(program)].find((s) => s.id === id);
    return found ? sentence(found, program, (socket) => partName(kit, socket)) : id;
  });
</script>

<Button
  look="quiet"
  class="max-w-full truncate bg-transparent px-1 text-left underline"
  onpointerenter={() => (w.pointed = id)}
  onpointerleave={() => (w.pointed = undefined)}
  onclick={() => {
    w.selected = undefined;
    w.selected = id;
  }}>{text}</Button
>
