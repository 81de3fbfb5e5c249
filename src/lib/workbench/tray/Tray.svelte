<script lang="ts">
  import Field from '../../ui/Field.svelte';
  import Button from '../../ui/Button.svelte';
  import { say, word } from '../../../../core/words.ts';
  import { abilities } from '../../../../core/kit/kit.ts';
  import { catalogue } from '../../../../core/language/catalogue.ts';
  import { FAMILIES, SECTIONS, type BlockDef, type Section } from '../../../../core/language/define.ts';
  import { ICONS } from '../../ui/icons.ts';
  import { search, type Found } from './search.ts';
  import { useWorkbench } from '../workbench.svelte.ts';

  import { usesOf } from '../../../../core/language/edit.ts';

  type Card = Found & { help: string; section: Section };
  type NameCard = { id: string; name: string; what: string; kind: string; slot: string; uses: number };
  let {
    onadd,
    ondrag,
    onleave
  }: {
    onadd: (kind: string, slots?: Record<string, string>) => void;
    ondrag: (kind: string, event: PointerEvent, slots?: Record<string, string>) => void;
    /** the person is done with the tray: on to the block that was taken last */
    onleave: () => void;
  } = $props();
  const w = useWorkbench();
  let find = $state('');
  let field: HTMLInputElement;
  let list: HTMLElement;

  const able = $derived(abilities(w.session.project.kit));
  const offers = $derived(w.session.project.errand?.offers);
  const offered = (def: BlockDef): boolean =>
    (def.needs ?? []).every((n) => able.has(n)) && (offers?.includes(def.kind) ?? true);
  const cards = $derived.by((): Card[] => {
    const all = [...catalogue.values()].filter(offered).map((d): Card => ({
      kind: d.kind,
      title: word(d.label[0]),
      line: word(d.label[1]),
      also: word(d.also ?? ''),
      rest: `${word(d.help)} ${word(SECTIONS[d.section].title)} ${word(d.words)}`,
      help: word(d.help),
      section: d.section
    }));
    all.push({
      kind: 'routine.define',
      title: say('A new routine'),
      line: say('a stack with a name'),
      also: '',
      rest: '',
      help: say('Gives a stack a name, so that "Do a routine" can run it.'),
      section: 'reuse'
    });
    return all;
  });
  const shown = $derived.by(() => {
    return find.trim() ? search(cards, find) : cards.filter((c) => c.section === w.section);
  });
  /** the program's own names, with how often each is used; each is the block that reads or does it */
  const names = $derived.by((): NameCard[] => {
    const { program } = w.session.project;
    if (find.trim() || (w.section !== 'remember' && w.section !== 'reuse')) return [];
    const all =
      w.section === 'remember'
        ? program.variables.map((v) => ({
            id: v.id,
            name: v.name,
            what: v.list ? 'list' : 'variable',
            kind: v.list ? 'list.value' : 'var.value',
            slot: v.list ? 'list' : 'variable'
          }))
        : program.routines.map((r) => ({
            id: r.id,
            name: r.name,
            what: 'routine',
            kind: 'routine.do',
            slot: 'routine'
          }));
    return all.map((a) => ({ ...a, uses: usesOf(program, a.id).length }));
  });
  const sections = Object.entries(SECTIONS) as [Section, (typeof SECTIONS)[Section]][];

  export function area(): DOMRect {
    return list.getBoundingClientRect();
  }
  export function focusFind() {
    field.focus();
    field.select();
  }
  let from: { kind: string; x: number; y: number; slots?: Record<string, string> } | undefined;
  function down(event: PointerEvent, kind: string, slots?: Record<string, string>) {
    if (event.button !== 0) return;
    (event.currentTarget as HTMLElement).releasePointerCapture?.(event.pointerId);
    from = { kind, x: event.clientX, y: event.clientY, slots };
  }
  function move(event: PointerEvent) {
    if (!from || !(event.buttons & 1)) return;
    if (Math.hypot(event.clientX - from.x, event.clientY - from.y) < 5) return;
    const { kind, slots } = from;
    from = undefined;
    dragged = true;
    ondrag(kind, event, slots);
  }
  let dragged = false;
  function click(kind: string, slots?: Record<string, string>) {
    from = undefined;
    if (dragged) {
      dragged = false;
      return;
    }
    onadd(kind, slots);
  }
  function keys(event: KeyboardEvent) {
    if (event.key === 'Enter' && shown[0]) {
      event.preventDefault();
      onadd(shown[0].kind);
      find = '';
    } else if (event.key === 'Escape') {
      find = '';
      field.blur();
      onleave();
    } else if (event.key === 'ArrowDown') {
      event.preventDefault();
      list.querySelector<HTMLElement>('[data-card]')?.focus();
    }
  }
  function cardKeys(event: KeyboardEvent) {
    const way =
      event.key === 'ArrowDown' ? 'nextElementSibling' : event.key === 'ArrowUp' ? 'previousElementSibling' : undefined;
    if (!way) return;
    event.preventDefault();
    ((event.currentTarget as HTMLElement)[way] as HTMLElement | null)?.focus();
  }
</script>

<svelte:window
  onpointermove={move}
  onpointerup={() => {
    from = undefined;
    setTimeout(() => (dragged = false), 0);
  }}
/>
<aside class="grid h-full min-h-0 grid-cols-[1fr_minmax(104px,auto)] bg-card" aria-label={say('Tray')}>
  <div class="mb-tray-list flex min-h-0 flex-col gap-[7px] overflow-auto p-2" bind:this={list}>
    <label class="flex items-center rounded-md border border-rule bg-paper px-[9px] py-0.5">
      <span class="sr-only">{say('Find a block')}</span>
      <Field
        bind:element={field}
        bind:value={find}
        onkeydown={keys}
        placeholder={say('Find a block')}
        look="bare"
        class="min-w-0 flex-1 p-1 placeholder:text-soft"
      />
      <span class="font-mono text-soft" aria-hidden="true">/</span>
    </label>
    {#each names as one (one.id)}
      <div class="flex gap-1">
        <Button
          data-name={one.name}
          title={say('The {what} {name}: drag it into the program', { what: word(one.what), name: one.name })}
          onpointerdown={(e: PointerEvent) => down(e, one.kind, { [one.slot]: one.id })}
          onclick={() => click(one.kind, { [one.slot]: one.id })}
          look="bare"
          class="min-w-0 flex-1 cursor-grab truncate pointer-coarse:min-h-10 rounded-[7px] border border-rule bg-paper px-2 py-[3px] text-left font-semibold touch-none"
          >{one.name}<small class="ml-1.5 font-[450] text-soft"
            >{word(one.what)} · {one.uses
              ? say('used {n, plural, one {once} other {# times}}', { n: one.uses })
              : say('not used')}</small
          ></Button
        >
        <Button
          look="quiet"
          class="px-1.5"
          aria-label={say('Names: {name}', { name: one.name })}
          title={say('Rename, take out, where it is used')}
          onclick={() => (w.panel = { kind: 'names', id: one.id })}>⋯</Button
        >
      </div>
    {/each}
    {#each shown as card (card.kind)}
      <Button
        data-card={card.kind}
        data-tip={card.help}
        data-tip-side="left"
        onpointerdown={(e: PointerEvent) => down(e, card.kind)}
        onclick={() => click(card.kind)}
        onkeydown={cardKeys}
        look="bare"
        class="cursor-grab rounded-[7px] pointer-coarse:min-h-10 border border-l-[9px] px-2 py-[5px] text-left leading-[1.2] font-semibold touch-none"
        style="--c: var(--{SECTIONS[card.section]
          .family}); border-color: color-mix(in srgb, var(--c) 34%, var(--card)); border-left-color: var(--c); background: color-mix(in srgb, var(--c) 7%, var(--card))"
        >{card.title}<small class="block text-[11.5px] font-[450] text-soft">{card.line}</small></Button
      >
    {:else}
      <p class="px-1 text-soft">{say('No block has that in it. Try one word of what it should do.')}</p>
    {/each}
  </div>
  <div
    class="flex flex-col overflow-auto border-l border-rule bg-linen py-1.5"
    role="tablist"
    aria-label={say('Sections')}
    aria-orientation="vertical"
  >
    {#each FAMILIES as family (family)}
      <div class="border-b border-rule py-1 last:border-0" role="presentation">
        {#each sections.filter(([, s]) => s.family === family) as [key, section] (key)}
          <Button
            role="tab"
            aria-selected={w.section === key && !find}
            onclick={() => {
              w.section = key;
              find = '';
            }}
            look="bare"
            class="flex w-full items-center justify-start gap-2 border-l-4 px-1.5 py-1.5 pointer-coarse:min-h-10 text-left text-[12.5px] font-semibold {w.section ===
              key && find
              ? 'bg-card text-ink'
              : 'border-transparent text-soft'}"
            style={w.section === key && !find ? `border-color: var(--${family})` : ''}
            ><svg
              viewBox="0 0 24 24"
              width="16"
              height="16"
              class="shrink-0"
              fill="none"
              stroke-width="2.2"
              stroke-linecap="round"
              stroke-linejoin="round"
              style="stroke: var(--{family})"
              aria-hidden="true">{@html ICONS[key]}</svg
            >{word(section.title)}</Button
          >
        {/each}
      </div>
    {/each}
  </div>
</aside>
