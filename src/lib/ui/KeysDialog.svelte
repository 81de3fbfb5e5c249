<!-- Every shortcut, under "?". -->
<script lang="ts">
  import Button from './Button.svelte';
  import Dialog from './Dialog.svelte';
  import Tick from './Tick.svelte';
  import LanguageChoice from './LanguageChoice.svelte';
  import { later, say, word } from '../../../core/words.ts';
  import { isTyping, singleKeys } from './keys.svelte.ts';
  let { open = $bindable(false) }: { open?: boolean } = $props();
  const LIST: [string, string][] = [
    [later('Space'), later('rehearse, pause, go on; not while you type, and not for a program that uses it')],
    ['/', later('find a block; on the shelf, a project')],
    [later('Tab, arrows'), later('into the program, and among its blocks')],
    [later('Enter'), later('change the chosen block; in the tray, take the block')],
    ['M', later('pick a block up, move it with the arrows, Enter puts it down')],
    [later('Delete'), later('take the chosen block out')],
    [later('Ctrl C, Ctrl V'), later('copy and paste blocks')],
    [later('Ctrl Z, Ctrl Y'), later('undo and redo, on every page of a project')],
    [later('arrows, [ and ]'), later('move and turn the robot when it has the focus; with Shift in millimetres')],
    [later('arrows, Home, End, + and -'), later('move the playhead and the time shown, when the trace has the focus')],
    ['y, p, t', later('the yard, the program or the trace fills the screen')],
    ['?', later('this list')]
  ];
  function key(event: KeyboardEvent) {
    if (event.key !== '?' || !singleKeys.on || isTyping(event.target)) return;
    event.preventDefault();
    open = true;
  }
</script>

<svelte:window onkeydown={key} />
<Dialog bind:open title={say('Keys')}>
  <dl class="grid grid-cols-[170px_1fr] gap-x-4 gap-y-1.5">
    {#each LIST as [keys, does] (keys)}<dt class="font-mono text-[13px] font-semibold">{word(keys)}</dt>
      <dd>{word(does)}</dd>{/each}
  </dl>
  <label class="flex items-center gap-2"
    ><Tick checked={singleKeys.on} onchange={(e) => singleKeys.turn(e.currentTarget.checked)} />
    {say('Single keys act on their own: Space, /, ?, y, p, t')}</label
  >
  <div class="flex items-center justify-end gap-3">
    <LanguageChoice />
    <Button look="go" onclick={() => (open = false)}>{say('Close')}</Button>
  </div>
</Dialog>
