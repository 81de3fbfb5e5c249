<script lang="ts">
  import Button from '../ui/Button.svelte';
  import { say } from '../../../core/words.ts';
  import Redo from '@lucide/svelte/icons/redo-2';
  import Undo from '@lucide/svelte/icons/undo-2';
  import type { Session } from './session.svelte.ts';
  let { session }: { session: Session } = $props();
</script>

<Button
  look="ghost"
  class="px-2"
  aria-label={say('Undo')}
  title={session.past.at(-1)?.label ?? say('Nothing to undo')}
  disabled={!session.past.length}
  onclick={() => session.undo()}><Undo size={17} /></Button
>
<Button
  look="ghost"
  class="px-2"
  aria-label={say('Redo')}
  title={session.future.at(-1)?.label ?? say('Nothing to redo')}
  disabled={!session.future.length}
  onclick={() => session.redo()}><Redo size={17} /></Button
>
