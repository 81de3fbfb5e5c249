<script lang="ts">
  import Remark from '../ui/Remark.svelte';
  import OneOf from '../ui/OneOf.svelte';
  import Field from '../ui/Field.svelte';
  import Button from '../ui/Button.svelte';
  import { later, say, word } from '../../../core/words.ts';
  import { goto } from '$app/navigation';
  import Dialog from '../ui/Dialog.svelte';
  import { boardOf, type Kit } from '../../../core/kit/kit.ts';
  import { newStep } from '../../../core/language/catalogue.ts';
  import { emptyProgram } from '../../../core/language/program.ts';
  import { loadPython } from '../python/python.ts';
  import { newProject } from '../../../core/project.ts';
  import { mats } from '../../../core/yard/mats.ts';
  import MatShape from '../workbench/yard/MatShape.svelte';
  import { createOnServer } from './files.ts';

  let { kit = $bindable() }: { kit: Kit | undefined } = $props();
  let open = $state(false);
  $effect(() => {
    open = !!kit;
    if (kit) mat = boardOf(kit).mat;
  });
  $effect(() => {
    if (!open) kit = undefined;
  });
  let name = $state('');
  let mat = $state('');
  let kind = $state<'blocks' | 'text'>('blocks');
  const firstText = async () =>
    (await loadPython()).printPython(
      {
        ...emptyProgram(),
        stacks: [{ id: 's', x: 0, y: 0, steps: [newStep('begin.start', 'a'), newStep('sound.beep', 'b')] }]
      },
      kit!
    ).text;
  const ABOUT: Record<string, string> = {
    'Fern bed': later('a five-sided path round it, 40 cm a side'),
    'Long aisle': later('straight, with a hoop at 80 cm and marks each 10 cm'),
    'Potting floor': later('free floor, with the corners of a bed marked'),
    'Gravel path': later('a dark path in wide bends, for the line sensors'),
    'Narrow aisle': later('between benches, with a bend: a route without touching'),
    'Compost yard': later('4 m by 3 m, with a heap and two beds, for a large machine'),
    'Frost bench': later('lamps, a frosty corner and damp soil, for a board in the hand')
  };
  let problem = $state('');
  let busy = $state(false);

  async function create(event: SubmitEvent) {
    event.preventDefault();
    problem = '';
    if (!name.trim()) {
      problem = say('Give the project a name, so that you find it again.');
      return;
    }
    busy = true;
    const project = newProject(
      name.trim(),
      kit!,
      mats.find((m) => m.name === mat)!
    );
    const made = await createOnServer(kind === 'text' ? { ...project, text: await firstText() } : project);
    busy = false;
    if (made.ok) await goto(`/project/${made.id}`);
    else problem = made.problem;
  }
</script>

<Dialog bind:open size="md" title={say('A project for {name}', { name: kit?.name ?? '' })}>
  <form class="flex flex-col gap-3" onsubmit={create}>
    <label class="flex flex-col gap-1 font-semibold">
      {say('What shall it be called?')}
      <Field class="font-normal" bind:value={name} maxlength={80} autofocus placeholder={say('Pots to the bench')} />
    </label>
    <fieldset class="flex gap-2">
      <legend class="mb-1 font-semibold">{say('Blocks or text?')}</legend>
      {#each ['blocks', 'text'] as const as k (k)}
        <OneOf name="kind" value={k} bind:group={kind} class="flex-1 rounded-md border border-rule px-3 py-2"
          ><b>{k === 'blocks' ? say('Blocks') : say('Text (Python)')}</b></OneOf
        >
      {/each}
    </fieldset>
    <fieldset class="grid grid-cols-2 gap-2">
      <legend class="mb-1 font-semibold">{say('Which mat lies in the yard?')}</legend>
      {#each mats as m (m.name)}
        <OneOf name="mat" value={m.name} bind:group={mat} class="rounded-md border border-rule px-2.5 py-2">
          <svg
            viewBox="0 0 {m.width * 100} {m.height * 100}"
            class="h-[54px] w-[84px] shrink-0"
            preserveAspectRatio="xMidYMid meet"
            aria-hidden="true"><MatShape mat={m} /></svg
          >
          <span class="leading-[1.25]"
            ><b class="block">{m.name}</b><span class="text-[12.5px] text-soft">{word(ABOUT[m.name])}</span></span
          >
        </OneOf>
      {/each}
    </fieldset>
    {#if problem}<Remark>{problem}</Remark>{/if}
    <div class="flex justify-end gap-2">
      <Button onclick={() => (open = false)}>{say('Leave it')}</Button><Button type="submit" look="go" disabled={busy}
        >{say('Start the project')}</Button
      >
    </div>
  </form>
</Dialog>
