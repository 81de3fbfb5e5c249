<!-- What was made in this browser before somebody signed in: who it was takes it along. -->
<script lang="ts">
  import { invalidateAll } from '$app/navigation';
  import { say } from '../../../core/words.ts';
  import { ask } from '../class/ask.ts';
  import Button from '../ui/Button.svelte';
  import Remark from '../ui/Remark.svelte';
  let { names, problem }: { names: readonly string[]; problem: (says: string) => void } = $props();
  const MOST = 3;
  const told = $derived(names.slice(0, MOST).join(', ') + (names.length > MOST ? ' ...' : ''));
  async function take() {
    const answer = await ask('/api/me', 'POST');
    if (answer.ok) await invalidateAll();
    else problem(answer.problem);
  }
</script>

<Remark tone="calm" role="status" class="mb-4 flex items-center justify-between gap-4">
  <span>{say('Made in this browser just before you signed in: {names}', { names: told })}</span>
  <Button onclick={take}>{say('It is mine: take it to my shelf')}</Button>
</Remark>
