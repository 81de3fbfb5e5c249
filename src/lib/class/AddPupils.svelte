<!-- Pupils come into the class: nicknames written or pasted, one a line, or drawn from a list. -->
<script lang="ts">
  import { say, word } from '../../../core/words.ts';
  import Button from '../ui/Button.svelte';
  import Dialog from '../ui/Dialog.svelte';
  import Lines from '../ui/Lines.svelte';
  import NumberField from '../ui/NumberField.svelte';
  import Remark from '../ui/Remark.svelte';
  import { ask } from './ask.ts';
  import type { OpenedClass, PrintedCard } from './class.ts';
  import { folded } from './folded.ts';
  import { NAMES } from './names.ts';
  let {
    open = $bindable(),
    of,
    added
  }: { open: boolean; of: OpenedClass; added: (cards: PrintedCard[]) => void } = $props();
  let text = $state('');
  let count = $state(10);
  let problem = $state('');
  let busy = $state(false);
  const list = $derived(
    text
      .split(/[\n,;\t]/)
      .map((n) => n.trim())
      .filter(Boolean)
  );
  function draw() {
    const taken = new Set([...of.pupils.map((p) => p.nickname), ...list].map(folded));
    const all = NAMES.map((n) => word(n));
    // once the list is used up, the same names come with a number
    const more = [...all, ...all.map((n) => `${n} 2`)].filter((n) => !taken.has(folded(n)));
    text = [...list, ...more.slice(0, count)].join('\n');
  }
  async function add() {
    busy = true;
    const answer = await ask<PrintedCard[]>(`/api/classes/${of.id}/pupils`, 'POST', { nicknames: list });
    busy = false;
    problem = answer.ok ? '' : answer.problem;
    if (!answer.ok) return;
    [open, text] = [false, ''];
    added(answer.value);
  }
</script>

<Dialog bind:open title={say('Add pupils')} size="sm">
  <p class="text-soft">
    {say(
      'One nickname in each line, no real names: who is who stays on your own list. Each pupil gets a card to print.'
    )}
  </p>
  <Lines
    class="h-52"
    bind:value={text}
    aria-label={say('Nicknames')}
    placeholder={NAMES.slice(0, 3)
      .map((n) => word(n))
      .join('\n')}
  />
  <div class="flex flex-wrap items-center gap-2">
    <NumberField class="w-16!" min={1} max={40} bind:value={count} aria-label={say('How many')} />
    <Button size="sm" onclick={draw}>{say('Draw names')}</Button>
    <span class="text-soft">{say('{n, plural, one {# nickname} other {# nicknames}}', { n: list.length })}</span>
  </div>
  {#if problem}<Remark look="line">{problem}</Remark>{/if}
  <div class="flex justify-end gap-2">
    <Button onclick={() => (open = false)}>{say('Leave it')}</Button>
    <Button look="go" disabled={!list.length || busy} onclick={add}>{say('Add, and show the cards')}</Button>
  </div>
</Dialog>
