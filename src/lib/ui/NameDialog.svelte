<!-- Asks for a name or a note; `ask` answers with the text, or undefined when the person thinks better of it. -->
<script lang="ts">
  import { later, say, word } from '../../../core/words.ts';
  let dialog: HTMLDialogElement;
  let title = $state('');
  type What = 'note' | 'name' | 'routine';
  const SAID: Record<What, string> = { note: later('note'), name: later('name'), routine: later('routine') };
  let what = $state<What>();
  let text = $state('');
  let done: ((text: string | undefined) => void) | undefined;

  export function ask(question: string, kind: What, value = ''): Promise<string | undefined> {
    title = question;
    what = kind;
    text = value;
    dialog.showModal();
    return new Promise((resolve) => (done = resolve));
  }
  function close(answer: string | undefined) {
    dialog.close();
    done?.(answer);
    done = undefined;
  }
</script>

<dialog
  bind:this={dialog}
  class="m-auto w-96 rounded-xl border border-rule bg-card p-5 text-ink backdrop:bg-[#1a211daa]"
  oncancel={(e) => {
    e.preventDefault();
    close(undefined);
  }}
  aria-labelledby="name-dialog"
>
  <form
    class="flex flex-col gap-3"
    onsubmit={(e) => {
      e.preventDefault();
      close(text.trim());
    }}
  >
    <h2 id="name-dialog" class="text-[17px]">{title}</h2>
    {#if what === 'note'}<textarea
        class="field h-24"
        bind:value={text}
        maxlength="2000"
        aria-label={what && word(SAID[what])}></textarea>
    {:else}<input class="field" bind:value={text} maxlength="60" aria-label={what && word(SAID[what])} />{/if}
    <div class="flex justify-end gap-2">
      <button type="button" class="btn btn-plain" onclick={() => close(undefined)}>{say('Leave it')}</button><button
        class="btn btn-go"
        disabled={what !== 'note' && !text.trim()}>{say('Done')}</button
      >
    </div>
  </form>
</dialog>
