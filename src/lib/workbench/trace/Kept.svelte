<!-- The runs of this project that are kept: open one again, lay one beside, give it a name, pin it. -->
<script lang="ts">
  import Remark from '../../ui/Remark.svelte';
  import Table from '../../ui/Table.svelte';
  import Field from '../../ui/Field.svelte';
  import Button from '../../ui/Button.svelte';
  import Pin from '@lucide/svelte/icons/pin';
  import Trash from '@lucide/svelte/icons/trash-2';
  import { onMount } from 'svelte';
  import { clockIn, say, word } from '../../../../core/words.ts';
  import type { RunCard } from '../../../../core/trace/runfile.ts';
  import { useWorkbench } from '../workbench.svelte.ts';
  import Sheet from './Sheet.svelte';
  // a sheet like the others, but it needs no run
  let _: { lead?: unknown } = $props();
  const w = useWorkbench();
  const { history } = w;
  let busy = $state('');
  onMount(() => void history.load());
  async function during<T>(card: RunCard, does: Promise<T>): Promise<T> {
    busy = card.id;
    try {
      return await does;
    } finally {
      busy = '';
    }
  }
  async function open(card: RunCard) {
    if (await during(card, history.show(card))) w.trace.whole();
  }
  async function beside(card: RunCard) {
    const run = await during(card, history.bring(card));
    if (run) w.trace.beside = run;
  }
  const pin = (card: RunCard) => during(card, history.pin(card, !card.pinned));
  const when = (at: number) => new Date(at).toLocaleString(clockIn(), { dateStyle: 'short', timeStyle: 'medium' });
</script>

<Sheet title={say('Runs of this project')} wide>
  {#if history.trouble}<Remark look="line">{history.trouble}</Remark>{/if}
  <Table class="text-[13px]" data-testid="kept">
    <tbody>
      {#each history.list as card (card.id)}
        <tr class="border-t border-rule first:border-0">
          <td class="py-0.5 pr-2"
            ><Field
              look="line"
              class="w-28! px-1"
              aria-label={say('Name of the run')}
              value={card.name}
              onchange={(e) => history.rename(card.id, e.currentTarget.value)}
            /></td
          >
          <td class="pr-2 whitespace-nowrap text-soft tabular-nums">{when(card.at)}</td>
          <td class="pr-2 text-soft"
            >{card.kind === 'device' ? card.device : say('rehearsal')}, {(card.ms / 1000).toFixed(1)} s, {word(
              card.ended
            )}</td
          >
          <td class="text-right">
            <Button look="quiet" class="underline" disabled={!!busy} onclick={() => open(card)}>{say('Open')}</Button
            ><Button look="quiet" class="underline" disabled={!!busy} onclick={() => beside(card)}
              >{say('Beside')}</Button
            ><Button
              look="quiet"
              class="min-h-6 min-w-6 px-1"
              aria-pressed={card.pinned}
              aria-label={card.pinned ? say('Unpin') : say('Pin')}
              title={card.pinned
                ? say('It is kept for good, with every sample')
                : say('Keep it for good, with every sample')}
              onclick={() => pin(card)}><Pin size={14} /></Button
            ><Button
              look="quiet"
              class="min-h-6 min-w-6 px-1"
              aria-label={say('Take the run out')}
              title={say('Take the run out')}
              onclick={() => history.remove(card)}><Trash size={14} /></Button
            >
          </td>
        </tr>
      {:else}<tr
          ><td class="text-soft">{say('No run is kept yet. Each run that ends is kept here, with what made it.')}</td
          ></tr
        >{/each}
    </tbody>
  </Table>
</Sheet>
