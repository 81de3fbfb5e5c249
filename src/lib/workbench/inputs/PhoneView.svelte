<script lang="ts">
  import Remark from '../../ui/Remark.svelte';
  import Button from '../../ui/Button.svelte';
  import Qr from '../../ui/Qr.svelte';
  import { say } from '../../../../core/words.ts';
  import { useWorkbench } from '../workbench.svelte.ts';
  const w = useWorkbench();
  const phone = $derived(w.phone!);
</script>

<p class="text-soft">
  {say(
    'A phone or tablet on the same network becomes the hand: leaning and shaking it leans and shakes the device, its page has the buttons. Any computer can open that page too, and lean with the mouse.'
  )}
</p>
{#if phone.problem}<Remark>{phone.problem}</Remark>{/if}
{#if !phone.code}
  <Button look="go" class="self-start" onclick={() => phone.pair()}>{say('Pair a phone')}</Button>
{:else}
  <div class="flex gap-4">
    <Qr class="h-40 w-40" address={phone.addresses[0]} />
    <div class="min-w-0">
      <p>{say('Scan it, or open one of these addresses and type the code:')}</p>
      <p class="my-1 font-mono text-[26px] font-bold tracking-[0.2em]" data-testid="hand-code">{phone.code}</p>
      {#each phone.addresses as a (a)}<p class="truncate font-mono text-[12px] text-soft">{a}</p>{/each}
      <p class="mt-1" data-testid="phone">
        {#if phone.here}{say('The phone is here, {n} ms away.', { n: Math.round(phone.delayMs ?? 0) })}{:else}{say(
            'Waiting for the phone.'
          )}{/if}
      </p>
      {#if !phone.addresses[0].startsWith('https')}<Remark tone="ink" role={null} class="mt-1">
          {say(
            'Phones tell how they are leaned only to a secure page. This server has no secure address, so the phone can be leaned with the finger alone.'
          )}
        </Remark>{:else}<p class="mt-1 text-[12.5px] text-soft">
          {say('The phone warns that it does not know the certificate: this computer made it itself. Choose to go on.')}
        </p>{/if}
      <Button look="quiet" class="underline" onclick={() => phone.close()}>{say('Let it go')}</Button>
    </div>
  </div>
{/if}
