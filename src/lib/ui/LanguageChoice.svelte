<script lang="ts">
  import Choice from './Choice.svelte';
  import { say } from '../../../core/words.ts';
  import { isCode, language, LANGUAGES } from '../language.svelte.ts';
</script>

<Choice
  look="ghost"
  class="text-[13px]"
  aria-label={say('Language')}
  title={say('Language')}
  value={language.code}
  onchange={(e) => isCode(e.currentTarget.value) && void language.choose(e.currentTarget.value)}
>
  {#each Object.entries(LANGUAGES) as [code, name] (code)}<option value={code} title={name}>{code.toUpperCase()}</option
    >{/each}
</Choice>
