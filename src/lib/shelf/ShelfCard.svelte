<!-- A project on the shelf: its picture, its name, and what can be done with it. -->
<script lang="ts">
  import Field from '../ui/Field.svelte';
  import Menu from '../ui/Menu.svelte';
  import MenuItem from '../ui/MenuItem.svelte';
  import Tick from '../ui/Tick.svelte';
  import { say } from '../../../core/words.ts';
  import { kits } from '../../../core/kit/kit.ts';
  import Card from '../ui/Card.svelte';
  import Tag from '../ui/Tag.svelte';
  import type { Card as Item } from './cards.ts';
  import Thumb from './Thumb.svelte';
  let {
    card,
    when,
    chosen,
    choosing,
    onchoose,
    onrename,
    oncopy,
    onlabel,
    onremove
  }: {
    card: Item;
    when: string;
    chosen: boolean;
    /** some are chosen: boxes to tick are seen on all */
    choosing: boolean;
    onchoose: () => void;
    onrename: (name: string) => void;
    oncopy: () => void;
    onlabel: () => void;
    onremove: () => void;
  } = $props();
  let naming = $state(false);
  function rename(name: string) {
    naming = false;
    if (name.trim() && name.trim() !== card.name) onrename(name.trim());
  }
</script>

<li data-testid="card">
  <Card class="group {chosen ? 'border-brass ring-1 ring-brass' : ''}">
    <a href="/project/{card.id}" class="block" aria-label={card.name} tabindex={naming ? -1 : 0}
      ><Thumb bars={card.bars} /></a
    >
    <span
      class="absolute top-1.5 right-1.5 grid rounded-md bg-card/90 p-1 {chosen || choosing
        ? ''
        : 'opacity-0 group-hover:opacity-100 focus-within:opacity-100 pointer-coarse:opacity-100'}"
      ><Tick
        class="pointer-coarse:h-10 pointer-coarse:w-10"
        checked={chosen}
        aria-label={say('Choose {name}', { name: card.name })}
        onchange={onchoose}
      /></span
    >
    <div class="flex items-start gap-1 py-1.5 pr-1 pl-3 leading-snug">
      <div class="min-w-0 flex-1">
        {#if naming}<Field
            size="sm"
            class="w-full!"
            aria-label={say('Name of the project')}
            maxlength={80}
            value={card.name}
            {@attach (e: HTMLElement) => {
              const field = e as HTMLInputElement;
              field.focus();
              field.select();
            }}
            onchange={(e) => rename(e.currentTarget.value)}
            onblur={() => (naming = false)}
            onkeydown={(e) => e.key === 'Escape' && (naming = false)}
          />{:else}<a href="/project/{card.id}" class="block truncate font-bold" title={card.name} tabindex="-1"
            >{card.name}</a
          >{/if}
        <small class="block text-soft"
          >{say('{device} · {when}', {
            device: kits[card.device as keyof typeof kits]?.name ?? card.device,
            when
          })}</small
        >
        {#if card.origin}<small class="block truncate text-soft" title={card.origin}
            >{say('copied from {origin}', { origin: card.origin })}</small
          >{/if}
        {#if card.label}<Tag class="mr-1">{card.label}</Tag>{/if}
        {#if card.toCheck}<Tag tone="clay"
            >{say('{n, plural, one {# thing} other {# things}} to check', { n: card.toCheck })}</Tag
          >
        {:else if card.parked}<Tag tone="calm"
            >{say('{n, plural, one {# stack} other {# stacks}} parked', { n: card.parked })}</Tag
          >{/if}
      </div>
      <Menu label={say('What to do with {name}', { name: card.name })}>
        <MenuItem onclick={() => setTimeout(() => (naming = true), 10)}>{say('Rename')}</MenuItem>
        <MenuItem onclick={oncopy}>{say('Duplicate')}</MenuItem>
        <MenuItem onclick={onlabel}>{say('Label')}</MenuItem>
        <MenuItem onclick={onremove}>{say('Take off the shelf')}</MenuItem>
      </Menu>
    </div>
  </Card>
</li>
