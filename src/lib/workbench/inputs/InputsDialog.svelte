<!-- The inputs of a run as lines to change and keep; the gamepad and the phone that give them. -->
<script lang="ts">
  import Dialog from '../../ui/Dialog.svelte';
  import { untrack } from 'svelte';
  import { say } from '../../../../core/words.ts';
  import { parseInputs, writeInputs } from '../../../../core/trace/inputs.ts';
  import { trackOf } from '../../../../core/trace/track.ts';
  import { download, fileName } from '../../shelf/files.ts';
  import { useWorkbench } from '../workbench.svelte.ts';
  import GamepadView from './GamepadView.svelte';
  import PhoneView from './PhoneView.svelte';
  const w = useWorkbench();
  const { runs } = w;
  let { open = $bindable() }: { open: boolean } = $props();
  let tab = $state<'track' | 'gamepad' | 'phone'>('track');
  let problem = $state('');
  const tracks = $derived(w.session.project.tracks ?? []);
  const last = $derived(runs.run && runs.run.version >= 0 && !runs.looking ? trackOf(runs.run.trace) : []);
  let text = $state(
    untrack(() => (runs.inputs ? writeInputs(runs.inputs.list) : last.length ? writeInputs(last) : ''))
  );
  let name = $state(untrack(() => runs.inputs?.name ?? say('inputs {n}', { n: tracks.length + 1 })));

  function read() {
    const found = parseInputs(text);
    problem = found.ok ? '' : say('The inputs cannot be used: {problem}', { problem: found.problem });
    return found.ok ? found.inputs : undefined;
  }
  function use() {
    const list = read();
    if (!list) return;
    runs.inputs = list.length ? { name, list } : undefined;
    open = false;
    void w.rehearse();
  }
  function keep() {
    if (!read() || !name.trim()) return;
    const { project } = w.session;
    const others = tracks.filter((t) => t.name !== name.trim());
    w.session.change(say('keep the inputs {name}', { name }), {
      ...project,
      tracks: [...others, { name: name.trim(), lines: text }]
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

<Dialog bind:open title={say('Inputs')} size="md">
  <div class="flex gap-1" role="tablist">
    {#each [['track', say('Track')], ['gamepad', say('Gamepad')], ['phone', say('Phone or tablet')]] as const as [id, title] (id)}<button
        class="chip {tab === id ? 'border-rule !bg-card font-semibold text-ink' : ''}"
        role="tab"
        aria-selected={tab === id}
        onclick={() => (tab = id)}>{title}</button
      >{/each}
  </div>
  {#if tab === 'track'}
    <p class="text-soft">
      {say(
        'Everything you did in a run, one line each, with its second. Change it, keep it under a name, or run with it again: the run is then the same to the microsecond.'
      )}
    </p>
    <textarea
      class="field h-48 font-mono text-[12.5px]"
      bind:value={text}
      spellcheck="false"
      aria-label={say('Lines of inputs')}
      placeholder={'{"t": 1.25, "press": "Dot"}'}
      oninput={() => (problem = '')}></textarea>
    {#if problem}<p class="remark text-clay" role="alert">{problem}</p>{/if}
    <div class="flex flex-wrap items-center gap-2">
      <input class="field !w-48" bind:value={name} maxlength="60" aria-label={say('Name of these inputs')} />
      <button class="btn btn-plain" onclick={keep}>{say('Keep it')}</button>
      <button class="btn btn-plain" disabled={!last.length} onclick={() => (text = writeInputs(last))}
        >{say('From the last run')}</button
      >
      <button
        class="btn btn-plain"
        disabled={!text.trim()}
        onclick={() => download(`${fileName(name)}.jsonl`, text, 'application/jsonl')}>{say('Save as a file')}</button
      >
    </div>
    {#each tracks as t (t.name)}
      <div class="flex items-center gap-2">
        <button class="chip underline" onclick={() => ((text = t.lines), (name = t.name))}>{t.name}</button><span
          class="text-soft"
          >{say('{n, plural, one {# line} other {# lines}}', { n: t.lines.trim().split('\n').length })}</span
        ><button class="chip" aria-label={say('Throw {name} away', { name: t.name })} onclick={() => drop(t.name)}
          >✕</button
        >
      </div>
    {/each}
  {:else if tab === 'gamepad'}<GamepadView />
  {:else}<PhoneView />{/if}
  <div class="flex justify-end gap-2">
    {#if tab === 'track' && runs.inputs}<button
        class="btn btn-plain"
        onclick={() => ((runs.inputs = undefined), (open = false))}>{say('Without inputs')}</button
      >{/if}
    <button class="btn btn-plain" onclick={() => (open = false)}>{say('Close')}</button>
    {#if tab === 'track'}<button class="btn btn-go" onclick={use}>{say('Rehearse with these')}</button>{/if}
  </div>
</Dialog>
