<!-- The inputs of a run as lines to change and keep; the gamepad and the phone that give them. -->
<script lang="ts">
  import Remark from '../../ui/Remark.svelte';
  import OpenFile from '../../ui/OpenFile.svelte';
  import Field from '../../ui/Field.svelte';
  import Button from '../../ui/Button.svelte';
  import Dialog from '../../ui/Dialog.svelte';
  import { untrack } from 'svelte';
  import { say } from '../../../../core/words.ts';
  import { parseInputs, writeInputs } from '../../../../core/trace/inputs.ts';
  import { trackOf } from '../../../../core/trace/track.ts';
  import { download, fileName } from '../../shelf/files.ts';
  import type { TimedInput } from '../../../../core/trace/trace.ts';
  import { inputOf, rowOf, type Row } from './rows.ts';
  import Rows from './Rows.svelte';
  import { useWorkbench } from '../workbench.svelte.ts';
  import GamepadView from './GamepadView.svelte';
  import PhoneView from './PhoneView.svelte';
  /** as the project's file takes it, characters */
  const LARGEST = 500_000;
  const w = useWorkbench();
  const { runs } = w;
  let { open = $bindable() }: { open: boolean } = $props();
  let tab = $state<'track' | 'gamepad' | 'phone'>('track');
  let problem = $state('');
  const tracks = $derived(w.session.project.tracks ?? []);
  const last = $derived(runs.run && runs.run.version >= 0 && !runs.looking ? trackOf(runs.run.trace) : []);
  /** in a file and in the project they are lines; here they are rows */
  const rowsOf = (list: readonly TimedInput[]) => list.map(rowOf);
  let rows = $state.raw<Row[]>(untrack(() => rowsOf(runs.inputs?.list ?? last)));
  let name = $state(untrack(() => runs.inputs?.name ?? say('inputs {n}', { n: tracks.length + 1 })));
  const others = $derived((w.session.project.others ?? []).map((o) => o.name));
  const list = $derived(rows.map(inputOf).sort((a, b) => a.tUs - b.tUs));
  const lines = $derived(writeInputs(list));

  // what was said of other rows
  $effect(() => {
    void rows;
    problem = '';
  });
  /** Lines become rows; what is no input is told with its line. */
  function take(text: string, called: string) {
    const found = parseInputs(text);
    problem = found.ok ? '' : say('The inputs cannot be used: {problem}', { problem: found.problem });
    if (!found.ok) return;
    rows = rowsOf(found.inputs);
    name = called.slice(0, 60);
  }
  let picker: OpenFile;
  async function openFile(file: File) {
    if (file.size > LARGEST) problem = say('{name} is too long for inputs: 500 kB are taken.', { name: file.name });
    else take(await file.text(), file.name.replace(/\.jsonl$/, ''));
  }
  /** Whether there is somebody for each of them. */
  function fits(): boolean {
    const stranger = list.find((i) => i.to !== undefined && !others.includes(i.to));
    problem = stranger
      ? say('At {s} s something is done to "{name}", and no device in this yard is called so.', {
          s: stranger.tUs / 1e6,
          name: stranger.to!
        })
      : '';
    return !stranger;
  }
  function use() {
    if (!fits()) return;
    runs.inputs = list.length ? { name, list } : undefined;
    open = false;
    void w.rehearse();
  }
  function keep() {
    if (!name.trim() || !fits()) return;
    if (lines.length > LARGEST) {
      problem = say('{name} is too long for inputs: 500 kB are taken.', { name });
      return;
    }
    const { project } = w.session;
    const rest = tracks.filter((t) => t.name !== name.trim());
    w.session.change(say('keep the inputs {name}', { name }), {
      ...project,
      tracks: [...rest, { name: name.trim(), lines }]
    });
  }
  function drop(track: string) {
    const { tracks: _, ...rest } = w.session.project;
    const left = tracks.filter((t) => t.name !== track);
    w.session.change(
      say('throw the inputs {name} away', { name: track }),
      left.length ? { ...rest, tracks: left } : rest
    );
  }
</script>

<Dialog bind:open title={say('Inputs')} size="lg">
  <div class="flex gap-1" role="tablist">
    {#each [['track', say('Track')], ['gamepad', say('Gamepad')], ['phone', say('Phone or tablet')]] as const as [id, title] (id)}<Button
        look="quiet"
        class={tab === id ? 'border-rule bg-card font-semibold text-ink' : ''}
        role="tab"
        aria-selected={tab === id}
        onclick={() => (tab = id)}>{title}</Button
      >{/each}
  </div>
  {#if tab === 'track'}
    <p class="text-soft">
      {say(
        'Everything you did in a run, a row each, with its second. Change it, keep it under a name, or run with it again: the run is then the same to the microsecond.'
      )}
    </p>
    <Rows bind:rows {others} />
    {#if problem}<Remark>{problem}</Remark>{/if}
    <div class="flex flex-wrap items-center gap-2">
      <Field class="w-44!" bind:value={name} maxlength={60} aria-label={say('Name of these inputs')} />
      <Button onclick={keep}>{say('Keep it')}</Button>
      <Button disabled={!last.length} onclick={() => (rows = rowsOf(last))}>{say('From the last run')}</Button>
      <Button disabled={!rows.length} onclick={() => download(`${fileName(name)}.jsonl`, lines, 'application/jsonl')}
        >{say('Save as a file')}</Button
      >
      <Button onclick={() => picker.choose()}>{say('Open a file')}</Button>
      <OpenFile bind:this={picker} label={say('Inputs file')} accept=".jsonl,.json,.txt" take={openFile} />
    </div>
    {#each tracks as t (t.name)}
      <div class="flex items-center gap-2">
        <Button look="quiet" class="underline" onclick={() => take(t.lines, t.name)}>{t.name}</Button><span
          class="text-soft"
          >{say('{n, plural, one {# line} other {# lines}}', { n: t.lines.trim().split('\n').length })}</span
        ><Button look="quiet" aria-label={say('Throw {name} away', { name: t.name })} onclick={() => drop(t.name)}
          >✕</Button
        >
      </div>
    {/each}
  {:else if tab === 'gamepad'}<GamepadView />
  {:else}<PhoneView />{/if}
  <div class="flex justify-end gap-2">
    {#if tab === 'track' && runs.inputs}<Button onclick={() => ((runs.inputs = undefined), (open = false))}
        >{say('Without inputs')}</Button
      >{/if}
    <Button onclick={() => (open = false)}>{say('Close')}</Button>
    {#if tab === 'track'}<Button look="go" onclick={use}>{say('Rehearse with these')}</Button>{/if}
  </div>
</Dialog>
