<!-- A device that appears as a drive: the files on it, and the place to drop one. -->
<script lang="ts">
  import Dropzone from 'flowbite-svelte/Dropzone.svelte';
  import FileIcon from '@lucide/svelte/icons/file-text';
  import { say } from '../../../../core/words.ts';
  import Button from '../../ui/Button.svelte';
  import OpenFile from '../../ui/OpenFile.svelte';
  import Progress from '../../ui/Progress.svelte';
  import Remark from '../../ui/Remark.svelte';
  import { useWorkbench } from '../workbench.svelte.ts';
  const w = useWorkbench();
  const d = $derived(w.device);
  let file: OpenFile;
  let about = $state('');
  const take = (chosen: File | undefined) =>
    chosen && d.drop(chosen.name, chosen.size, async () => new Uint8Array(await chosen.arrayBuffer()));
</script>

<div
  class="fixed bottom-1.5 left-6 z-50 w-[min(430px,calc(100vw-24px))] overflow-hidden rounded-xl border border-rule bg-card text-ink shadow-xl"
  role="region"
  aria-label={say('Drive of the device')}
  data-testid="drive"
>
  <div class="flex items-center justify-between border-b border-rule bg-linen px-3 py-1.5">
    <h2 class="text-[15px]">{say('{name} as a drive', { name: d.unit.name })}</h2>
    <span class="flex-1"></span>
    <Button look="quiet" disabled={!!d.progress} onclick={() => file.choose()}>{say('Choose a file')}</Button>
    <Button look="quiet" onclick={() => d.unplug()}>{say('Eject')}</Button>
  </div>
  <ul class="max-h-44 overflow-y-auto px-3 py-2 text-[13.5px]">
    {#each d.files as f (f.name)}
      <li class="flex items-center gap-2 py-0.5">
        <FileIcon size={15} class="shrink-0 text-soft" />
        {#if f.text}<Button look="quiet" class="underline" onclick={() => (about = about ? '' : f.text!)}
            >{f.name}</Button
          >{:else}<span class="truncate">{f.name}</span>{/if}
        <span class="ml-auto text-soft tabular-nums">{say('{kb} kB', { kb: (f.bytes / 1000).toFixed(1) })}</span>
      </li>
    {/each}
  </ul>
  {#if about}<pre class="mx-3 mb-2 rounded-md bg-linen px-2 py-1 text-[12.5px] whitespace-pre-wrap">{about}</pre>{/if}
  <div class="px-3 pb-3">
    {#if d.progress}
      <p class="mb-1 truncate text-[13.5px]">{d.progress.says}</p>
      <Progress says={d.progress.says} share={d.progress.share} />
    {:else}
      <Dropzone
        class="h-24 rounded-lg border-rule bg-paper text-center text-[13.5px] text-soft hover:bg-linen dark:border-rule dark:bg-paper dark:hover:bg-linen"
        aria-label={say('Drop a file for the device here')}
        onDrop={(e) => void take(e.dataTransfer?.files[0])}
        onChange={(e) => {
          const input = e.currentTarget as HTMLInputElement;
          void take(input.files?.[0]);
          input.value = '';
        }}>{say('Drop a file for the device here')}</Dropzone
      >
    {/if}
    {#if d.message}<Remark class="mt-2 text-[13.5px]" tone={d.mood === 'bad' ? 'clay' : 'moss'} role="status"
        >{d.message}</Remark
      >{/if}
  </div>
  <OpenFile bind:this={file} label={say('File for the drive')} accept="" {take} />
</div>
