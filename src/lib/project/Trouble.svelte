<!-- What a person must know about saving, and what they can do about it. -->
<script lang="ts">
  import Remark from '../ui/Remark.svelte';
  import Button from '../ui/Button.svelte';
  import { say } from '../../../core/words.ts';
  import type { Session } from './session.svelte.ts';
  let { session }: { session: Session } = $props();
</script>

{#if session.trouble}
  <Remark look="bar">
    <span class="flex-1">{session.trouble}</span>
    {#if session.gone}<Button size="sm" onclick={() => session.keepAsNew()}>{say('Keep it as a new project')}</Button
      ><Button size="sm" onclick={() => session.takeBack()}>{say('Put it back on the shelf')}</Button>
    {:else if session.otherId}<Button size="sm" href="/project/{session.otherId}" data-sveltekit-reload
        >{say('Open the other one')}</Button
      ><Button size="sm" onclick={() => ((session.trouble = ''), (session.otherId = undefined))}
        >{say('Go on with this one')}</Button
      >
    {:else if session.saving === 'elsewhere'}<Button size="sm" onclick={() => session.refresh()}
        >{say('Show the newest')}</Button
      >
    {:else if session.saving === 'kept here'}<Button size="sm" onclick={() => session.save()}>{say('Try again')}</Button
      >{/if}
  </Remark>
{/if}
