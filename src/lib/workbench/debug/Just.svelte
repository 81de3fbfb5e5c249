<!-- Some blocks, a stack or a routine on their own: from a place and with values that can be set. -->
<script lang="ts">
  import Field from '../../ui/Field.svelte';
  import Button from '../../ui/Button.svelte';
  import NumberField from '../../ui/NumberField.svelte';
  import { just } from '../../../../core/language/just.ts';
  import { typedValue } from '../../../../core/language/values.ts';
  import type { TimedInput } from '../../../../core/trace/trace.ts';
  import { heldAt } from '../../../../core/trace/measure.ts';
  import { hasWheels } from '../../../../core/kit/kit.ts';
  import { say } from '../../../../core/words.ts';
  import Dialog from '../../ui/Dialog.svelte';
  import { sentences } from '../sentences.ts';
  import { useWorkbench } from '../workbench.svelte.ts';
  let { ids, close }: { ids: ReadonlySet<string>; close: () => void } = $props();
  const w = useWorkbench();
  let open = $state(true);
  $effect(() => {
    if (!open) close();
  });
  const { runs } = w;
  const { project } = w.session;
  const routine = project.program.routines.find((r) => ids.has(r.id));
  const names = sentences(project);
  const from = runs.view ?? project.start ?? project.mat.start;
  let x = $state(Math.round(from.x * 1000) / 10);
  let y = $state(Math.round(from.y * 1000) / 10);
  let facing = $state(Math.round(from.facingDeg * 10) / 10);
  const held = runs.run ? heldAt(runs.run.trace, runs.playheadUs) : new Map<string, string>();
  const values = $state<Record<string, string>>(
    Object.fromEntries(project.program.variables.filter((v) => !v.list).map((v) => [v.name, held.get(v.name) ?? '0']))
  );
  const given = $state<Record<string, string>>(Object.fromEntries((routine?.inputs ?? []).map((i) => [i.id, '0'])));
  const part = $derived(
    just(project.program, ids, Object.fromEntries(Object.entries(given).map(([id, text]) => [id, typedValue(text)])))
  );
  function made() {
    const start = { x: x / 100, y: y / 100, facingDeg: facing };
    return part && { ...project, program: part, start };
  }
  const inputs = (): TimedInput[] =>
    Object.entries(values)
      .filter(([, text]) => text.trim() !== '' && text !== '0')
      .map(([variable, text]) => ({ tUs: 0, input: { set: { variable, to: typedValue(text) } } }));
  async function rehearse() {
    const alone = made();
    if (!alone) return;
    close();
    await w.rehearse({ inputs: inputs() }, alone);
  }
  async function send() {
    const alone = made();
    if (!alone) return;
    close();
    await w.device.send(alone);
  }
</script>

<Dialog bind:open title={say('Try just this')}>
  {#if !part}
    <p>
      {say('These blocks cannot run on their own: they leave a loop, or belong to a routine, that is not with them.')}
    </p>
  {:else}
    <p class="text-soft">
      {routine
        ? say('The routine {name}, once.', { name: routine.name })
        : [...ids]
            .map((id) => names.get(id))
            .filter(Boolean)
            .slice(0, 3)
            .join(' · ')}
    </p>
    {#if hasWheels(project.kit)}
      <fieldset class="flex items-center gap-3">
        <legend class="mb-1 font-semibold">{say('Where it stands')}</legend>
        <label class="flex items-center gap-1"
          >x <NumberField class="w-20! text-right font-mono" step={0.1} min={-1000} max={1000} bind:value={x} /></label
        >
        <label class="flex items-center gap-1"
          >y <NumberField class="w-20! text-right font-mono" step={0.1} min={-1000} max={1000} bind:value={y} /> cm</label
        >
        <label class="flex items-center gap-1"
          >{say('facing')}
          <NumberField class="w-20! text-right font-mono" min={-3600} max={3600} bind:value={facing} /> °</label
        >
      </fieldset>
    {/if}
    {#if routine?.inputs?.length}
      <fieldset class="flex flex-wrap gap-3">
        <legend class="mb-1 font-semibold">{say('What it is given')}</legend>
        {#each routine.inputs as i (i.id)}<label class="flex items-center gap-1"
            >{i.name} <Field class="w-24! text-right font-mono" bind:value={given[i.id]} /></label
          >{/each}
      </fieldset>
    {/if}
    {#if Object.keys(values).length}
      <fieldset class="flex flex-wrap gap-3">
        <legend class="mb-1 font-semibold">{say('Variables')}</legend>
        {#each Object.keys(values) as name (name)}<label class="flex items-center gap-1"
            >{name} <Field class="w-24! text-right font-mono" bind:value={values[name]} /></label
          >{/each}
      </fieldset>
    {/if}
  {/if}
  <div class="flex justify-end gap-2">
    <Button look="go" disabled={!part} onclick={rehearse}>{say('Rehearse just this')}</Button>
    <Button
      disabled={!part || !w.device.plugged}
      title={w.device.plugged ? '' : say('Plug the device in first')}
      onclick={send}>{say('Send just this')}</Button
    >
    <Button onclick={close}>{say('Cancel')}</Button>
  </div>
</Dialog>
