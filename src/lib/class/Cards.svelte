<!-- Cards to print: each with a nickname, the three words, the code, the address and its QR code. The same cards can be printed again. -->
<script lang="ts">
  import { say } from '../../../core/words.ts';
  import Button from '../ui/Button.svelte';
  import Choice from '../ui/Choice.svelte';
  import Qr from '../ui/Qr.svelte';
  import Remark from '../ui/Remark.svelte';
  import type { OpenedClass, PrintedCard } from './class.ts';
  let {
    of,
    cards,
    unknown = [],
    close
  }: {
    of: OpenedClass;
    cards: readonly PrintedCard[];
    /** of whom nobody knows the words any more */
    unknown?: readonly string[];
    close: () => void;
  } = $props();
  let address = $state(0);
  const base = $derived(of.addresses[address] ?? of.addresses[0]);
  const link = (card: PrintedCard) =>
    `${base}/sign-in?code=${of.code}#${encodeURIComponent(card.nickname)}/${card.words.replaceAll(' ', '-')}`;
</script>

<div
  class="fixed inset-0 z-40 flex flex-col bg-linen print:static print:block print:bg-white"
  role="dialog"
  aria-modal="true"
  aria-label={say('Cards to print')}
>
  <div class="flex print:hidden flex-wrap items-center gap-3 border-b border-rule bg-card px-4 py-2">
    <Button look="go" onclick={() => print()}>{say('Print')}</Button>
    {#if of.addresses.length > 1}<label class="flex items-center gap-1.5"
        >{say('Address')}
        <Choice size="sm" bind:value={address}
          >{#each of.addresses as a, i (a)}<option value={i}>{a}</option>{/each}</Choice
        ></label
      >{/if}
    <Button onclick={close}>{say('Close')}</Button>
    <Remark look="line" tone="clay" role={null} class="flex-1"
      >{unknown.length
        ? say('Nobody knows the words of {names} any more: give them a new card each.', { names: unknown.join(', ') })
        : say('Whoever has a card can sign in with it. Who loses one tells you, and gets a new one.')}</Remark
    >
  </div>
  <div class="paper min-h-0 flex-1 overflow-auto bg-linen p-6 print:overflow-visible print:bg-white print:p-0">
    <ul class="mb-cards mx-auto grid max-w-[190mm] grid-cols-2 gap-[4mm]" data-testid="cards">
      {#each cards as card (card.nickname)}
        <li
          class="grid h-[50mm] break-inside-avoid grid-cols-[1fr_34mm] gap-[3mm] rounded-[3mm] border border-dashed border-[#8b9684] bg-white p-[4mm] text-[#1f2a25]"
        >
          <div class="flex min-w-0 flex-col">
            <small class="truncate text-[#5c6a60]">{of.name}</small>
            <b class="truncate font-display text-[19px] leading-tight" data-nickname>{card.nickname}</b>
            <span class="mt-auto text-[12px] text-[#5c6a60]">{say('The three words')}</span>
            <b class="font-mono text-[14.5px] leading-snug" data-words>{card.words}</b>
            <span class="mt-[2mm] truncate text-[11.5px]"
              >{say('Class code')} <b class="font-mono text-[14px] tracking-[0.12em]">{of.code}</b></span
            >
            <span class="truncate text-[11px]">{base}</span>
          </div>
          <Qr class="self-center p-0!" border={0} address={link(card)} />
        </li>
      {/each}
    </ul>
  </div>
</div>

<style>
  @media print {
    .mb-cards {
      max-width: none;
    }
    @page {
      size: A4;
      margin: 12mm;
    }
  }
</style>
