<!-- The devices of the class: what is plugged in, who has which version of the program, and sending to all of them. -->
<script lang="ts">
  import { say, word } from '../../../../core/words.ts';
  import Button from '../../ui/Button.svelte';
  import Dialog from '../../ui/Dialog.svelte';
  import Progress from '../../ui/Progress.svelte';
  import Table from '../../ui/Table.svelte';
  import { clockIn } from '../../../../core/words.ts';
  import { sendAll, versionOf } from './class-set.ts';
  import type { DeviceLink } from './device.svelte.ts';
  import { useWorkbench } from '../workbench.svelte.ts';
  let { open = $bindable() }: { open: boolean } = $props();
  const w = useWorkbench();
  const set = w.devices;
  let version = $state<number>();
  $effect(() => {
    if (open) void versionOf(set, w.session.project).then((crc) => (version = crc));
  });
  const ready = $derived(set.plugged.filter((d) => d.fits && !d.progress && !d.running && !d.drive));
  /** What Dot starts on it, against the program of this project. */
  function has(d: DeviceLink): string {
    if (!d.found || !d.plugged) return '';
    const p = d.found.programs.find((one) => one.starts);
    if (!p) return say('no program yet');
    if (p.crc === version) return say('this very version');
    if (p.called?.name !== w.session.project.name)
      return say('another program: "{name}"', {
        name: p.called?.name ?? say('program {number}', { number: p.number })
      });
    return say('another version, of {when}', {
      when: new Date(p.called.at).toLocaleString(clockIn(), {
        day: 'numeric',
        month: 'short',
        hour: '2-digit',
        minute: '2-digit'
      })
    });
  }
</script>

<Dialog bind:open title={say('The devices of the class')} size="lg">
  <p class="mb-2 text-soft">
    {say('Each is sent to by itself: one that fails does not hold up the others. The one in the yard is marked.')}
  </p>
  <Table class="text-[14px]" data-testid="class-set">
    <thead class="text-soft">
      <tr
        ><th class="py-1 font-normal">{say('Device')}</th><th class="font-normal">{say('State')}</th><th
          class="font-normal">{say('Dot starts')}</th
        ><th class="font-normal">{say('What came of it')}</th><td></td></tr
      >
    </thead>
    <tbody>
      {#each set.all as d (d.unit.serial)}
        <tr class="border-t border-rule align-top" data-unit={d.unit.name}>
          <td class="py-1.5 pr-3 whitespace-nowrap {d.blinks ? 'animate-pulse bg-linen font-bold' : ''}"
            >{d.unit.name}{d === w.device ? ` · ${say('in the yard')}` : ''}</td
          >
          <td class="py-1.5 pr-3">{word(d.status)}</td>
          <td class="py-1.5 pr-3">{d.fits ? has(d) : ''}</td>
          <td class="max-w-64 py-1.5 pr-3 text-[13px] {d.mood === 'bad' ? 'text-clay' : 'text-soft'}">
            {#if d.progress}{d.progress.says}<Progress
                says={d.progress.says}
                share={d.progress.share}
              />{:else if d.question}
              <Button size="sm" onclick={() => d.question?.answer(true)}>{say('Install the library')}</Button>
            {:else}{d.mood === 'good' && d.plugged ? say('sent') : d.message}{/if}
          </td>
          <td class="py-1 text-right whitespace-nowrap">
            {#if d.plugged}<Button
                size="sm"
                aria-label={say('Which is {name}?', { name: d.unit.name })}
                disabled={!d.found?.library || !!d.progress || d.running}
                onclick={() => d.showWhich()}>{say('Which is it?')}</Button
              >
              <Button
                size="sm"
                aria-label={say('Unplug {name}', { name: d.unit.name })}
                disabled={!!d.progress}
                onclick={() => d.unplug()}>{say('Unplug')}</Button
              >{:else}<Button
                size="sm"
                aria-label={say('Plug {name} in', { name: d.unit.name })}
                onclick={() => d.plugIn()}>{say('Plug in')}</Button
              >{/if}
          </td>
        </tr>
      {/each}
    </tbody>
  </Table>
  <div class="mt-3 flex justify-end gap-2">
    <Button onclick={() => (open = false)}>{say('Close')}</Button>
    <Button look="go" disabled={!ready.length} onclick={() => sendAll(set)}
      >{say('{n, plural, one {Send to # device} other {Send to # devices}}', { n: ready.length })}</Button
    >
  </div>
</Dialog>
