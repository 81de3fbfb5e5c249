<!-- What was taken off the shelf in the last 30 days, and can be taken back. -->
<script lang="ts">
  import Remark from '../ui/Remark.svelte';
  import Card from '../ui/Card.svelte';
  import Button from '../ui/Button.svelte';
  import { say } from '../../../core/words.ts';
  import { silent } from '../ui/silent.ts';
  import type { DeletedCard } from './cards.ts';
  import Dialog from '../ui/Dialog.svelte';
  import Thumb from './Thumb.svelte';
  let { open = $bindable(false), onback }: { open: boolean; onback: () => Promise<void> } = $props();
  let list = $state.raw<DeletedCard[]>();
  let problem = $state('');
  const load = () =>
    fetch('/api/deleted')
      .then((r) => r.json())
      .then((cards) => (list = cards))
      .catch(() => (problem = silent()));
  $effect(() => {
    if (open) void load();
  });
  async function back(id: string) {
    await fetch(`/api/projects/${id}?back`, { method: 'POST' });
    await Promise.all([load(), onback()]);
  }
</script>

<Dialog bind:open title={say('Taken off the shelf')} size="md">
  <p class="text-soft">{say('What is taken off stays here for 30 days.')}</p>
  {#if problem}<Remark look="line">{problem}</Remark>{/if}
  <ul class="grid max-h-[56vh] grid-cols-2 gap-3 overflow-auto" data-testid="deleted">
    {#each list ?? [] as card (card.id)}
      <li>
        <Card>
          <Thumb bars={card.bars} />
          <div class="flex items-center gap-2 px-2.5 py-1.5 text-[13px] leading-snug">
            <span class="min-w-0 flex-1"
              ><b class="block truncate">{card.name}</b><span class="text-soft"
                >{say('{n, plural, one {# day} other {# days}} left', { n: card.days })}</span
              ></span
            >
            <Button size="sm" onclick={() => back(card.id)}>{say('Take back')}</Button>
          </div></Card
        >
      </li>
    {:else}{#if list}<li class="col-span-2 text-soft">
          {say('Nothing was taken off in the last 30 days.')}
        </li>{/if}{/each}
  </ul>
  <div class="flex justify-end"><Button look="go" onclick={() => (open = false)}>{say('Close')}</Button></div>
</Dialog>
