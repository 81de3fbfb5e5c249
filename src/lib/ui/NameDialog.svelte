<!-- Asks for a name or a note; `ask` answers with the text, or undefined when the person thinks better of it. -->
<script lang="ts">
  import { later, say, word } from '../../../core/words.ts';
  import Button from './Button.svelte';
  import Dialog from './Dialog.svelte';
  import Field from './Field.svelte';
  import Lines from './Lines.svelte';
  let open = $state(false);
  let title = $state('');
  type What = 'note' | 'name' | 'routine' | 'label';
  const SAID: Record<What, string> = {
    note: later('note'),
    name: later('name'),
    routine: later('routine'),
    label: later('label')
  };
  let what = $state<What>('name');
  let text = $state('');
  let done: ((text: string | undefined) => void) | undefined;

  export function ask(question: string, kind: What, value = ''): Promise<string | undefined> {
    title = question;
    what = kind;
    text = value;
    open = true;
    return new Promise((resolve) => (done = resolve));
  }
  function close(answer: string | undefined) {
    open = false;
    done?.(answer);
    done = undefined;
  }
  // left by Escape
  $effect(() => {
    if (!open) close(undefined);
  });
</script>

<Dialog bind:open {title} size="xs">
  <form
    class="flex flex-col gap-3"
    onsubmit={(e) => {
      e.preventDefault();
      close(text.trim());
    }}
  >
    {#if what === 'note'}<Lines class="h-24" bind:value={text} maxlength={2000} aria-label={word(SAID[what])} />
    {:else}<Field
        class="w-full!"
        bind:value={text}
        maxlength={what === 'label' ? 40 : 60}
        aria-label={word(SAID[what])}
      />{/if}
    <div class="flex justify-end gap-2">
      <Button onclick={() => close(undefined)}>{say('Leave it')}</Button><Button
        type="submit"
        look="go"
        disabled={what !== 'note' && what !== 'label' && !text.trim()}>{say('Done')}</Button
      >
    </div>
  </form>
</Dialog>
