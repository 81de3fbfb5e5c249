<script lang="ts">
  import Field from '../../ui/Field.svelte';
  import Button from '../../ui/Button.svelte';
  import { told } from '../../../../core/trace/compare.ts';
  import { say } from '../../../../core/words.ts';
  import type { Run } from '../runs.svelte.ts';
  import Sheet from './Sheet.svelte';
  let { run, lead }: { run: Run; lead: (toUs: number, block?: string) => void } = $props();
  let words = $state('');
  const MOST = 200;
  const NEVER = new Set(['moved', 'ready']);
  const hits = $derived.by(() => {
    if (run.version < 0) return [];
    const asked = words.trim().toLowerCase();
    const out: { tUs: number; block?: string; text: string }[] = [];
    for (const e of run.trace.events) {
      if (out.length >= MOST) break;
      if (NEVER.has(e.type)) continue;
      const text = told(e);
      if (!asked || text.toLowerCase().includes(asked)) out.push({ tUs: e.tUs, block: e.block, text });
    }
    return out;
  });
</script>

<Sheet title={say('Search log and events')}>
  <Field
    class="mb-1 w-full!"
    autofocus
    bind:value={words}
    placeholder={say('Words of a log, a message, an event')}
    aria-label={say('Search log and events')}
  />
  <ul class="text-[13px]" data-testid="hits">
    {#each hits as h, i (i)}<li>
        <Button
          look="bare"
          class="min-h-6 w-full rounded-md px-2 py-0.5 text-left hover:bg-linen"
          onclick={() => lead(h.tUs, h.block)}
          ><span class="font-mono text-[12px] text-soft">{(h.tUs / 1e6).toFixed(3)} s</span> {h.text}</Button
        >
      </li>{:else}<li class="px-2 text-soft">{say('Nothing of that kind in this run.')}</li>{/each}
  </ul>
</Sheet>
