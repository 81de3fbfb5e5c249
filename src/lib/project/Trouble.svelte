<!-- What a person must know about saving, and what they can do about it. -->
<script lang="ts">
  import { say } from '../../../core/words.ts';
  import type { Session } from './session.svelte.ts';
  let { session }: { session: Session } = $props();
</script>

{#if session.trouble}
  <div class="flex items-center gap-3 border-b border-[var(--clayrule)] bg-[var(--claywash)] px-4 py-1.5" role="alert">
    <span class="flex-1 text-clay">{session.trouble}</span>
    {#if session.gone}<button class="btn btn-plain !py-1" onclick={() => session.keepAsNew()}
        >{say('Keep it as a new project')}</button
      ><button class="btn btn-plain !py-1" onclick={() => session.takeBack()}>{say('Put it back on the shelf')}</button>
    {:else if session.otherId}<a class="btn btn-plain !py-1" href="/project/{session.otherId}" data-sveltekit-reload
        >{say('Open the other one')}</a
      ><button class="btn btn-plain !py-1" onclick={() => ((session.trouble = ''), (session.otherId = undefined))}
        >{say('Go on with this one')}</button
      >
    {:else if session.saving === 'elsewhere'}<button class="btn btn-plain !py-1" onclick={() => session.refresh()}
        >{say('Show the newest')}</button
      >
    {:else if session.saving === 'kept here'}<button class="btn btn-plain !py-1" onclick={() => session.save()}
        >{say('Try again')}</button
      >{/if}
  </div>
{/if}
