<!-- The run that is shown, as a WebM or GIF file, as the yard is seen now: from above, from behind or free. -->
<script lang="ts">
  import Remark from '../../ui/Remark.svelte';
  import OneOf from '../../ui/OneOf.svelte';
  import Button from '../../ui/Button.svelte';
  import Dialog from '../../ui/Dialog.svelte';
  import Progress from '../../ui/Progress.svelte';
  import { tick } from 'svelte';
  import { say } from '../../../../core/words.ts';
  import { download, fileName } from '../../shelf/files.ts';
  import { useWorkbench } from '../workbench.svelte.ts';
  import type { Kind } from './clip.ts';
  let { open = $bindable(false) }: { open: boolean } = $props();
  const w = useWorkbench();
  let kind = $state<Kind>('webm');
  let share = $state<number>();
  let problem = $state('');
  let cancelled = false;
  const end = $derived(w.runs.run?.endUs ?? 0);
  async function go() {
    const { runs } = w;
    problem = '';
    cancelled = false;
    share = 0;
    const before = runs.scrubUs;
    try {
      const { record } = await import('./clip.ts');
      const blob = await record(
        kind,
        end,
        async (us) => {
          runs.scrubUs = us;
          await tick();
          await new Promise(requestAnimationFrame);
          await new Promise(requestAnimationFrame);
          return w.grab!();
        },
        (done) => (share = done),
        () => cancelled
      );
      if (blob) {
        download(`${fileName(w.session.project.name)}.${kind}`, blob);
        open = false;
      }
    } catch (error) {
      problem = say('The clip could not be made: {message}', {
        message: (error as Error).message || say('the yard is not drawn yet')
      });
    } finally {
      runs.scrubUs = before;
      share = undefined;
    }
  }
</script>

<Dialog bind:open title={say('Record a clip')} size="xs">
  {#if !end || w.runs.busy}
    <p>{say('Rehearse first, and let the run end: a clip is made of the run that is shown.')}</p>
  {:else}
    <p class="text-soft">
      {say('{n} seconds, drawn moment by moment from the trace, as the yard is seen now.', {
        n: (end / 1e6).toFixed(1)
      })}
    </p>
    <fieldset class="flex gap-2" disabled={share !== undefined}>
      <legend class="sr-only">{say('Kind of file')}</legend>
      {#each ['webm', 'gif'] as const as k (k)}<OneOf
          name="clip"
          value={k}
          bind:group={kind}
          class="flex-1 rounded-md border border-rule px-3 py-2"><b>{k === 'webm' ? 'WebM' : 'GIF'}</b></OneOf
        >{/each}
    </fieldset>
    {#if share !== undefined}<Progress says={say('Record a clip')} {share} />{/if}
    {#if problem}<Remark>{problem}</Remark>{/if}
  {/if}
  <div class="flex justify-end gap-2">
    <Button onclick={() => (share !== undefined ? (cancelled = true) : (open = false))}
      >{share !== undefined ? say('Cancel') : say('Leave it')}</Button
    >
    {#if end && !w.runs.busy}<Button look="go" disabled={share !== undefined} onclick={go}>{say('Record')}</Button>{/if}
  </div>
</Dialog>
