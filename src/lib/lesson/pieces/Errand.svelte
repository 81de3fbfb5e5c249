<!-- An errand in a lesson: what it asks, how far one is with it, and the way to it. -->
<script lang="ts">
  import { goto } from '$app/navigation';
  import Bell from '@lucide/svelte/icons/bell';
  import { toldIn } from '../../../../core/errand/task.ts';
  import type { Piece } from '../../../../core/lesson/page.ts';
  import { say } from '../../../../core/words.ts';
  import Button from '../../ui/Button.svelte';
  import Remark from '../../ui/Remark.svelte';
  import Prose from '../Prose.svelte';
  import { useRoom } from '../room.svelte.ts';
  let { piece }: { piece: Piece } = $props();
  const room = useRoom();
  const errand = $derived(room.errands?.find((e) => e.id === piece.names[0]));
  async function begin() {
    const to = await room.begin(piece.names[0]);
    if (to) await goto(to);
  }
</script>

<section class="rounded-lg border border-rule bg-card px-4 py-3" data-testid="errand-piece">
  {#if errand}
    <h3 class="flex items-center gap-2 text-[17px]">
      <Bell size={17} class={errand.met ? 'text-brass' : 'text-rule'} />{toldIn(errand.name)}
    </h3>
    <p class="my-1">{toldIn(errand.story)}</p>
    <Prose markdown={piece.markdown} />
    <p class="text-soft">
      {errand.met
        ? say('The bell rang here; {n, plural, one {# try} other {# tries}}.', { n: errand.tries })
        : errand.tries
          ? say('{n, plural, one {# try} other {# tries}}, and the bell has not rung yet.', { n: errand.tries })
          : say('Not tried yet.')}
    </p>
    <Button look="go" class="mt-2" onclick={begin}>{say('Begin the errand')}</Button>
  {:else if room.errands}<Remark>{say('This errand is not on this computer any more.')}</Remark>{/if}
</section>
