<script lang="ts">
  import { later, word } from '../../../core/words.ts';
  import type { Session } from './session.svelte.ts';
  let { session }: { session: Session } = $props();
  const words = $derived(
    {
      saved: later('saved'),
      saving: later('saving ...'),
      'kept here': later('kept in this browser'),
      elsewhere: later('changed in another tab'),
      looks: later('only to look at')
    }[session.of.looks ? 'looks' : session.saving]
  );
</script>

<span
  class="rounded px-1.5 text-[12.5px] {session.saving === 'saved' || session.saving === 'saving'
    ? 'text-[#b9c7b4]'
    : 'bg-[#5d2412] text-[#fbe9e2]'}"
  role="status"
  title={session.trouble}
  data-testid="saving">{word(words)}</span
>
