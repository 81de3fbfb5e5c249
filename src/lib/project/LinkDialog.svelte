<!-- A link for the room: whoever has it may look at the project, and take a copy. -->
<script lang="ts">
  import { say } from '../../../core/words.ts';
  import { ask } from '../class/ask.ts';
  import Button from '../ui/Button.svelte';
  import Dialog from '../ui/Dialog.svelte';
  import Field from '../ui/Field.svelte';
  import Qr from '../ui/Qr.svelte';
  import Remark from '../ui/Remark.svelte';
  import { toasts } from '../ui/toasts.svelte.ts';
  let {
    open = $bindable(),
    id,
    kind = 'project'
  }: { open: boolean; id: string; kind?: 'project' | 'errand' } = $props();
  const path = $derived(`/api/${kind}s/${id}/link`);
  let addresses = $state.raw<readonly string[]>([]);
  let problem = $state('');
  $effect(() => {
    if (!open) return;
    void ask<{ addresses: string[] }>(path, 'POST').then((answer) => {
      if (answer.ok) addresses = answer.value.addresses;
      problem = answer.ok ? '' : answer.problem;
    });
  });
  async function takeBack() {
    const answer = await ask(path, 'DELETE');
    if (!answer.ok) return void (problem = answer.problem);
    open = false;
    toasts.tell(say('The link opens nothing any more. Copies that were taken stay.'));
  }
</script>

<Dialog bind:open title={say('A link for the room')} size="sm">
  <p class="text-soft">
    {kind === 'project'
      ? say('Whoever opens it sees the program as it is now, and can take a copy. Nobody changes yours.')
      : say('Whoever opens it can put a copy of the errand among their own.')}
  </p>
  {#if problem}<Remark look="line">{problem}</Remark>{/if}
  {#if addresses.length}<div class="flex gap-4">
      <Qr class="h-36 w-36" address={addresses[0]} />
      <div class="flex min-w-0 flex-1 flex-col gap-1.5">
        {#each addresses as address (address)}<Field
            readonly
            class="w-full! font-mono text-[12.5px]"
            value={address}
            aria-label={say('Address')}
            data-testid="link"
            onfocus={(e) => e.currentTarget.select()}
          />{/each}
      </div>
    </div>{/if}
  <div class="flex justify-end gap-2">
    <Button onclick={takeBack}>{say('Take the link back')}</Button>
    <Button look="go" onclick={() => (open = false)}>{say('Close')}</Button>
  </div>
</Dialog>
