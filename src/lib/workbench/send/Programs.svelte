<!-- The programs that the device holds: which one its button starts, and what can be done with each. -->
<script lang="ts">
  import { goto } from '$app/navigation';
  import type { Held } from '../../../../core/link/send.ts';
  import { placed, regrow } from '../../../../core/language/edit.ts';
  import { newProject } from '../../../../core/project.ts';
  import { clockIn, say } from '../../../../core/words.ts';
  import { loadPython } from '../../python/python.ts';
  import { createOnServer } from '../../shelf/files.ts';
  import Button from '../../ui/Button.svelte';
  import Tag from '../../ui/Tag.svelte';
  import { toasts } from '../../ui/toasts.svelte.ts';
  import { useWorkbench } from '../workbench.svelte.ts';
  import { talk } from './device.svelte.ts';
  const w = useWorkbench();
  const d = $derived(w.device);
  /** taken out of the list, and off the device when nobody takes them back */
  let going = $state.raw<readonly number[]>([]);
  const shown = $derived(d.found?.programs.filter((p) => !going.includes(p.number)));
  const ready = $derived(d.plugged && !d.running && !d.progress);
  const nameOf = (p: Held): string => p.called?.name ?? say('Program {number}', { number: p.number });
  const when = (at: number): string =>
    new Date(at).toLocaleString(clockIn(), { day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit' });
  async function choose(p: Held) {
    const { chooseProgram } = await talk();
    d.found = (await d.speak((cable) => chooseProgram(cable, p.number))) ?? d.found;
  }
  function remove(p: Held) {
    going = [...going, p.number];
    const back = () => (going = going.filter((n) => n !== p.number));
    toasts.tell(
      say('"{name}" is taken off the device.', { name: nameOf(p) }),
      { label: say('Take back'), do: back },
      async () => {
        const { deleteProgram } = await talk();
        d.found = (await d.speak((cable) => deleteProgram(cable, p.number))) ?? d.found;
        back();
      }
    );
  }
  /** Into a project of its own: blocks where the text is one that blocks can say. */
  async function open(p: Held) {
    const { readProgram } = await talk();
    const text = await d.speak((cable) => readProgram(cable, p.number));
    if (text === undefined) return;
    const { kit, mat } = w.session.project;
    const { readPython } = await loadPython();
    const read = readPython(text, kit);
    const made = newProject(nameOf(p), kit, mat);
    const opened = await createOnServer(
      read.ok ? { ...made, program: regrow(placed(read.program)) } : { ...made, text }
    );
    if (opened.ok) await goto(`/project/${opened.id}`);
    else d.tell(opened.problem);
  }
</script>

{#if shown}
  <section class="border-t border-rule pt-3" aria-label={say('Programs on it')} data-testid="held">
    <div class="mb-1.5 flex items-baseline justify-between">
      <h3 class="text-[14px] font-semibold">{say('Programs on it')}</h3>
      <span class="text-[12.5px] text-soft tabular-nums"
        >{say('{kb} kB free', { kb: ((d.found?.freeBytes ?? 0) / 1000).toFixed(0) })}</span
      >
    </div>
    {#if !shown.length}<p class="text-[13px] text-soft">{say('None yet: send one.')}</p>{/if}
    <ul class="flex flex-col gap-1">
      {#each shown as p (p.number)}
        <li class="rounded-lg bg-linen px-3 py-2">
          <div class="flex items-baseline justify-between gap-2">
            <b class="truncate" title={nameOf(p)}>{nameOf(p)}</b>
            {#if p.starts}<Tag>{say('started by Dot')}</Tag>{:else if !p.whole}<Tag>{say('cut short')}</Tag>{/if}
          </div>
          <p class="text-[12.5px] text-soft">
            {say('program {number}', { number: p.number })} · {say('{kb} kB', {
              kb: (p.bytes / 1000).toFixed(1)
            })}{p.called ? ` · ${when(p.called.at)}` : ''}
          </p>
          <div class="mt-1 flex flex-wrap gap-1.5">
            {#if p.whole && !p.starts}<Button size="sm" disabled={!ready} onclick={() => choose(p)}
                >{say('Start this one with Dot')}</Button
              >{/if}
            {#if p.whole}<Button size="sm" disabled={!ready} onclick={() => open(p)}>{say('Open as a project')}</Button
              >{/if}
            <Button
              size="sm"
              disabled={!ready}
              aria-label={say('Take "{name}" off the device', { name: nameOf(p) })}
              onclick={() => remove(p)}>{say('Take off')}</Button
            >
          </div>
        </li>
      {/each}
    </ul>
  </section>
{/if}
