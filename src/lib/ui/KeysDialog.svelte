<!-- Every shortcut, under "?". -->
<script lang="ts">
  import { isTyping, singleKeys } from './keys.svelte.ts';
  let dialog: HTMLDialogElement;
  const LIST: [string, string][] = [
    ['Space', 'rehearse, pause, go on (when no field, button or block has the focus)'],
    ['/', 'find a block; on the shelf, a project'],
    ['Tab, arrows', 'into the program, and among its blocks'],
    ['Enter', 'change the chosen block; in the tray, take the block'],
    ['M', 'pick a block up, move it with the arrows, Enter puts it down'],
    ['Delete', 'take the chosen block out'],
    ['Ctrl C, Ctrl V', 'copy and paste blocks'],
    ['Ctrl Z, Ctrl Y', 'undo and redo, on every page of a project'],
    ['arrows, [ and ]', 'move and turn the robot when it has the focus; with Shift in millimetres'],
    ['arrows, Home, End, + and -', 'move the playhead and the time shown, when the trace has the focus'],
    ['?', 'this list']
  ];
  function key(event: KeyboardEvent) {
    if (event.key !== '?' || !singleKeys.on || isTyping(event.target)) return;
    event.preventDefault();
    dialog.showModal();
  }
</script>

<svelte:window onkeydown={key} />
<dialog
  bind:this={dialog}
  class="m-auto w-[560px] rounded-xl border border-rule bg-card p-5 text-ink backdrop:bg-[#1a211daa]"
  aria-labelledby="keys-title"
>
  <h2 id="keys-title" class="mb-3 text-[19px]">Keys</h2>
  <dl class="grid grid-cols-[170px_1fr] gap-x-4 gap-y-1.5">
    {#each LIST as [keys, does] (keys)}<dt class="font-mono text-[13px] font-semibold">{keys}</dt>
      <dd>{does}</dd>{/each}
  </dl>
  <label class="mt-4 flex items-center gap-2"
    ><input
      type="checkbox"
      class="accent-brass"
      checked={singleKeys.on}
      onchange={(e) => singleKeys.turn(e.currentTarget.checked)}
    /> Space, / and ? act on their own</label
  >
  <div class="mt-4 flex justify-end"><button class="btn btn-go" onclick={() => dialog.close()}>Close</button></div>
</dialog>
