<!--
  A menu behind a button. It closes by Escape, by a click beside it and by what was chosen; arrow keys, Home and End walk
  it; the focus goes back to its button.
-->
<script lang="ts">
  import type { Snippet } from 'svelte';
  import Dropdown from 'flowbite-svelte/Dropdown.svelte';
  import DropdownGroup from 'flowbite-svelte/DropdownGroup.svelte';
  import Ellipsis from '@lucide/svelte/icons/ellipsis';
  import Button from './Button.svelte';
  let {
    label,
    title = label,
    look = 'quiet',
    face,
    children
  }: {
    label: string;
    title?: string;
    look?: 'quiet' | 'ghost';
    /** what its button shows, in place of three dots */
    face?: Snippet;
    children: Snippet;
  } = $props();
  const id = $props.id();
  /** buttons behind a button, as the component's types do not know it */
  const as: object = $derived({ role: 'group', 'aria-label': label });
  let open = $state(false);
  /** it is made when it is first asked for: a shelf has many */
  let made = $state(false);
  let list = $state<HTMLElement>();
  const items = () => [...(list?.querySelectorAll<HTMLElement>('a, button:enabled') ?? [])];

  // the component's own triggers open at the mere focus: it gets one that nobody can touch
  const button = () => document.getElementById(id);
  /** at the moment of the press: by its end the focus has left the menu, and the component may have closed it */
  let openAtPress: boolean | undefined;
  /** after the click is over: the component takes what is left of it for one beside the menu */
  function toggle() {
    const next = !(openAtPress ?? open);
    openAtPress = undefined;
    made = true;
    setTimeout(() => (open = next), 0);
  }
  function close() {
    if (!open) return;
    open = false;
    button()?.focus();
  }
  function keys(e: KeyboardEvent) {
    // a list within the menu walks its own entries
    if ((e.target as Element).closest('select') && e.key !== 'Escape') return;
    const all = items();
    const at = all.indexOf(document.activeElement as HTMLElement);
    const to = { ArrowDown: at + 1, ArrowUp: at < 0 ? -1 : at - 1, Home: 0, End: -1 }[e.key];
    if (e.key === 'Escape') close();
    else if (to !== undefined) all.at(to === all.length ? 0 : to)?.focus();
    else return;
    e.preventDefault();
    e.stopPropagation();
  }
</script>

<Button
  {id}
  {look}
  class="min-h-6 px-1.5"
  aria-label={label}
  {title}
  aria-expanded={open}
  onpointerdown={() => (openAtPress = open)}
  onclick={toggle}
  onkeydown={(e: KeyboardEvent) => {
    if (open) keys(e);
    else if (e.key === 'ArrowDown') {
      toggle();
      e.preventDefault();
    }
  }}
  >{#if face}{@render face()}{:else}<Ellipsis size={16} />{/if}</Button
>
<span id="{id}-none" hidden></span>
{#if made}<Dropdown
    bind:isOpen={open}
    triggeredBy="#{id}-none"
    reference="#{id}"
    placement="bottom-end"
    strategy="fixed"
    triggerDelay={0}
    {...as}
    transitionParams={{ duration: 0 }}
    class="mt-0 max-h-[min(70vh,calc(100vh-150px))] w-60 divide-y-0 overflow-auto! rounded-lg border border-rule bg-card p-1 text-ink shadow-lg dark:bg-card"
    onclickcapture={(e) => (e.target as Element).closest('a, button') && setTimeout(close, 0)}
    onkeydown={keys}
    ><DropdownGroup
      class="flex flex-col py-0 text-[length:inherit] text-ink dark:text-ink"
      {@attach (node: HTMLElement) => {
        list = node;
        items()[0]?.focus();
      }}>{@render children()}</DropdownGroup
    ></Dropdown
  >{/if}
