<script lang="ts">
  import Field from '../../ui/Field.svelte';
  import { say } from '../../../../core/words.ts';
  import { partName } from '../../../../core/kit/kit.ts';
  import { sentence } from '../../../../core/language/catalogue.ts';
  import { allSteps } from '../../../../core/language/program.ts';
  import { useWorkbench } from '../workbench.svelte.ts';
  import BlockLink from './BlockLink.svelte';
  import Panel from './Panel.svelte';
  let { close }: { close: () => void } = $props();
  const w = useWorkbench();
  let text = $state('');
  const found = $derived.by(() => {
    const words = text.trim().toLowerCase().split(/\s+/).filter(Boolean);
    if (!words.length) return [];
    const { program, kit } = w.session.project;
    return [...allSteps(program)].filter((s) => {
      const says = `${sentence(s, program, (socket) => partName(kit, socket))} ${s.note ?? ''}`.toLowerCase();
      return words.every((word) => says.includes(word));
    });
  });
</script>

<Panel title={say('Find in the program')} {close}>
  <Field placeholder={say('A word of a block, a name, a number, a note')} aria-label={say('Find')} bind:value={text} />
  {#if text.trim()}<p class="text-soft" role="status">
      {found.length === 0
        ? say('No block says that.')
        : say('{n, plural, one {# block} other {# blocks}}', { n: found.length })}
    </p>{/if}
  {#each found as step (step.id)}<div><BlockLink id={step.id} /></div>{/each}
</Panel>
