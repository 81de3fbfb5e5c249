<script lang="ts">
  import { say } from '../../../core/words.ts';
  import { isCode, language, LANGUAGES } from '../language.svelte.ts';
</script>

<select
  class="rounded-lg border border-[#51665a] bg-header px-1 py-1.5 text-[13px] text-[#eef2e4]"
  aria-label={say('Language')}
  title={say('Language')}
  value={language.code}
  onchange={(e) => isCode(e.currentTarget.value) && void language.choose(e.currentTarget.value)}
>
  {#each Object.entries(LANGUAGES) as [code, name] (code)}<option value={code} title={name}>{code.toUpperCase()}</option
    >{/each}
</select>
