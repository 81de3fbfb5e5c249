<script lang="ts">
  import Remark from '../lib/ui/Remark.svelte';
  import OpenFile from '../lib/ui/OpenFile.svelte';
  import Field from '../lib/ui/Field.svelte';
  import DropPlace from '../lib/ui/DropPlace.svelte';
  import Path from '../lib/ui/Path.svelte';
  import Card from '../lib/ui/Card.svelte';
  import Button from '../lib/ui/Button.svelte';
  import { clockIn, say, word } from '../../core/words.ts';
  import { goto } from '$app/navigation';
  import { onMount } from 'svelte';
  import FolderOpen from '@lucide/svelte/icons/folder-open';
  import { boardOf, kits, type Kit } from '../../core/kit/kit.ts';
  import { STAND_INS } from '../../core/kit/units.ts';
  import NewProject from '$lib/shelf/NewProject.svelte';
  import Thumb from '$lib/shelf/Thumb.svelte';
  import ShelfCard from '$lib/shelf/ShelfCard.svelte';
  import { Shelf } from '$lib/shelf/shelf.svelte.ts';
  import Choice from '$lib/ui/Choice.svelte';
  import Fold from '$lib/ui/Fold.svelte';
  import NameDialog from '$lib/ui/NameDialog.svelte';
  import { toasts } from '$lib/ui/toasts.svelte.ts';
  import { createOnServer } from '$lib/shelf/files.ts';
  import { openFile } from '$lib/shelf/open.ts';
  import ThemeButton from '$lib/ui/ThemeButton.svelte';
  import LanguageChoice from '$lib/ui/LanguageChoice.svelte';
  import TopBar from '$lib/ui/TopBar.svelte';
  import KeysDialog from '$lib/ui/KeysDialog.svelte';
  import { isTyping, singleKeys } from '$lib/ui/keys.svelte.ts';
  import DeviceArt from '$lib/ui/DeviceArt.svelte';

  import type { Card as ShelfItem } from '$lib/shelf/cards.ts';
  import Before from '$lib/shelf/Before.svelte';
  import Deleted from '$lib/shelf/Deleted.svelte';
  import Me from '$lib/class/Me.svelte';
  import Errands from '$lib/shelf/Errands.svelte';
  import GivenOut from '$lib/shelf/GivenOut.svelte';
  import Lessons from '$lib/shelf/Lessons.svelte';
  import MadeHere from '$lib/shelf/MadeHere.svelte';
  import type { Made } from '$lib/shelf/made.ts';

  let { data } = $props();
  /** errands that were taken in from files */
  let taken = $state(0);
  let making = $state.raw<Kit>();
  /** cards that are seen before one scrolls, on most screens: the others come once the page stands */
  const AT_FIRST_SIGHT = 8;
  let field = $state<HTMLInputElement>();
  let picker = $state<OpenFile>();
  let names = $state<NameDialog>();
  const shelf = new Shelf(() => data);
  const holds = (text: string) => text.toLowerCase().includes(shelf.words.trim().toLowerCase());
  const wanted = (c: ShelfItem) => holds(c.name) || holds(word(c.label)) || holds(c.device);
  // words are asked for when the person pauses, the rest at once
  let asked = '';
  $effect(() => {
    const now = [shelf.words.trim(), shelf.order, shelf.label].join('|');
    if (now === (asked || '|date|')) return;
    const typing = shelf.words.trim() !== asked.split('|')[0];
    const timer = setTimeout(
      () => {
        asked = now;
        void shelf.ask();
      },
      typing ? 150 : 0
    );
    return () => clearTimeout(timer);
  });
  let made = $state.raw<readonly Made[]>([]);
  const own = $derived(
    made.filter((m) => [m.name, m.project].some((t) => t.toLowerCase().includes(shelf.words.trim().toLowerCase())))
  );
  let demos = $state.raw<ShelfItem[]>();
  const demo = $derived((data.demo ?? demos ?? []).filter(wanted));
  /** groups in the order in which the demo projects come */
  const groups = $derived([...new Set(demo.map((c) => c.label))]);
  /** folded once there is work of one's own, but for what is found in them */
  let unfolded = $state.raw<Record<string, boolean>>({});
  const isOpen = (group: string) => unfolded[group] ?? (!data.own.length || !!shelf.words.trim());
  /** the page comes from the server and takes clicks a moment later */
  let stands = $state(false);
  onMount(async () => {
    stands = true;
    if (!data.demo) demos = (await (await fetch('/api/projects?demo')).json()) as ShelfItem[];
    if (data.own.length) made = (await (await fetch('/api/made')).json()) as Made[];
  });

  async function take(file: File | undefined) {
    if (!file) return;
    shelf.problem = '';
    const opened = await openFile(file);
    if (opened.ok && 'errand' in opened) {
      taken++;
      toasts.tell(say('"{name}" is among the errands now.', { name: file.name }));
      const wrong = await opened.unsound.catch(() => []);
      if (wrong.length)
        shelf.problem = say('{name} is on the shelf, but not sound: {wrong}', {
          name: file.name,
          wrong: wrong.join(' ')
        });
    } else if (opened.ok && 'lesson' in opened) {
      taken++;
      toasts.tell(say('"{name}" is among the lessons now.', { name: file.name }));
    } else if (opened.ok) await goto(`/project/${opened.id}`);
    else shelf.problem = opened.problem;
  }
  async function copyOf(id: string, name?: string) {
    const { project } = await (await fetch(`/api/projects/${id}`)).json();
    const made = await createOnServer(name ? { ...project, name } : project);
    if (!made.ok) shelf.problem = made.problem;
    else if (name) await shelf.again();
    else await goto(`/project/${made.id}`);
  }
  let showsOff = $state(false);
  async function label(list: readonly ShelfItem[]) {
    const text = await names?.ask(say('Which label?'), 'label', list[0].label);
    if (text === undefined) return;
    await shelf.put(
      list.map((c) => c.id),
      text
    );
    if (shelf.label !== undefined && !shelf.labels.includes(shelf.label)) shelf.label = undefined;
  }
  const chosen = $derived(shelf.cards.filter((c) => shelf.chosen.has(c.id)));
  // made once: a formatter costs more than all cards
  const clock = $derived(new Intl.DateTimeFormat(clockIn(), { hour: '2-digit', minute: '2-digit' }));
  const day = $derived(new Intl.DateTimeFormat(clockIn(), { day: 'numeric', month: 'short' }));
  const tonight = new Date().setHours(24, 0, 0, 0);
  function when(at: number): string {
    const days = Math.floor((tonight - at) / 86_400_000);
    const date = new Date(at);
    if (days <= 0) return say('today {x}', { x: clock.format(date) });
    return days === 1 ? say('yesterday') : day.format(date);
  }
  function keys(event: KeyboardEvent) {
    if (event.key === '/' && singleKeys.on && !isTyping(event.target)) {
      event.preventDefault();
      field?.focus();
    }
  }
</script>

<svelte:head><title>{say('Shelf · Moss Bell')}</title></svelte:head>
<svelte:window onkeydown={keys} />

<div class="flex h-full flex-col" data-stands={stands || undefined}>
  <TopBar home={false}>
    {#snippet name()}<Path steps={[{ name: say('Moss Bell') }, { name: say('Shelf') }]} />{/snippet}
    <span class="flex-1"></span>
    <label class="flex items-center gap-1.5 rounded-md border border-[#51665a] px-2.5 py-0.5 text-[#eef2e4]">
      <span class="sr-only">{say('Find a project')}</span>
      <Field
        bind:element={field}
        bind:value={shelf.words}
        placeholder={say('Find a project')}
        look="bare"
        class="w-36! p-1 text-[#eef2e4] placeholder:text-[#c9d2c4]"
      />
      <span class="font-mono" aria-hidden="true">/</span>
    </label>
    <Button look="ghost" onclick={() => picker?.choose()}><FolderOpen size={16} />{say('Open a file')}</Button>
    <OpenFile
      bind:this={picker}
      label={say('Project file')}
      accept=".json,.zip,application/json,application/zip"
      {take}
    />
    <Button look="ghost" href="/handbook">{say('Handbook')}</Button>
    <Me />
    <LanguageChoice />
    <ThemeButton />
  </TopBar>

  <div class="grid min-h-0 flex-1 grid-cols-[300px_1fr] max-[900px]:grid-cols-[200px_1fr]">
    <aside class="flex flex-col gap-2.5 overflow-auto border-r border-rule bg-paper px-4 py-[18px]">
      <h2 class="text-[19px]">{say('Start something')}</h2>
      <span class="-mt-2 text-soft">{say('Which device is it for?')}</span>
      {#each Object.values(kits) as kit (kit.device)}
        <Card>
          <Button
            look="bare"
            class="grid w-full grid-cols-[64px_1fr] items-center gap-3 px-2.5 py-2 text-left"
            onclick={() => (making = kit)}
          >
            <DeviceArt {kit} />
            <span
              ><b class="block leading-tight">{kit.name}</b><small class="text-soft">{word(boardOf(kit).about)}</small
              ></span
            >
          </Button></Card
        >
      {/each}
      <p class="mt-auto text-[12.5px] text-soft">
        {say(
          'No device at hand? There are stand-ins in the yard that behave like real ones, small faults included: {names}.',
          { names: STAND_INS.map((s) => s.name).join(', ') }
        )}
      </p>
    </aside>

    <main class="overflow-auto px-[22px] py-[18px]">
      {#if shelf.problem}
        <Remark class="mb-4 flex items-start justify-between gap-4">
          <span>{shelf.problem}</span><Button look="quiet" onclick={() => (shelf.problem = '')}>{say('Close')}</Button>
        </Remark>
      {/if}
      {#if data.before.length}<Before names={data.before} problem={(p) => (shelf.problem = p)} />{/if}
      {#if data.me.role === 'pupil'}<GivenOut problem={(p) => (shelf.problem = p)} />{/if}
      <div class="mb-2.5 flex flex-wrap items-center gap-x-3.5 gap-y-1">
        <h2 class="text-[19px]">{say('Go on with')}</h2>
        <span class="text-soft max-[900px]:sr-only">{say('saved by themselves as you work')}</span>
        <span class="flex-1"></span>
        {#if chosen.length}
          <span role="group" aria-label={say('What is chosen')} class="flex flex-wrap items-center gap-1.5"
            ><b>{say('{n} chosen', { n: chosen.length })}</b>
            <Button size="sm" onclick={() => label(chosen)}>{say('Label')}</Button>
            <Button size="sm" onclick={() => shelf.remove(chosen)}>{say('Take off the shelf')}</Button>
            <Button look="quiet" onclick={() => (shelf.chosen = new Set())}>{say('None')}</Button></span
          >
        {:else}
          {#if shelf.labels.length}<Choice
              size="sm"
              aria-label={say('Label')}
              value={shelf.label ?? ''}
              onchange={(e) => (shelf.label = e.currentTarget.value || undefined)}
              ><option value="">{say('all labels')}</option>{#each shelf.labels as l (l)}<option value={l}>{l}</option
                >{/each}</Choice
            >{/if}
          <Choice size="sm" aria-label={say('In which order')} bind:value={shelf.order}
            ><option value="date">{say('newest first')}</option><option value="name">{say('by name')}</option><option
              value="device">{say('by device')}</option
            ></Choice
          >
          <Button look="quiet" class="underline" onclick={() => (showsOff = true)}>{say('Taken off the shelf')}</Button>
        {/if}
      </div>
      {#if shelf.cards.length === 0}
        <p class="rounded-xl border border-dashed border-rule bg-paper p-5 text-soft">
          {shelf.words.trim()
            ? say('No project of yours has that in its name, its blocks, its device or its label.')
            : say(
                'Your projects will stand here, each known by the picture of its blocks. Start one on the left, open a demo project below as a copy, or drop a project file anywhere on this page.'
              )}
        </p>
      {:else}
        <ul class="grid grid-cols-[repeat(auto-fill,minmax(205px,1fr))] gap-3.5">
          {#each stands ? shelf.cards : shelf.cards.slice(0, AT_FIRST_SIGHT) as card (card.id)}
            <ShelfCard
              {card}
              when={when(card.changedAt)}
              chosen={shelf.chosen.has(card.id)}
              choosing={shelf.chosen.size > 0}
              onchoose={() => shelf.choose(card.id)}
              onrename={(name) => shelf.rename(card.id, name)}
              oncopy={() => copyOf(card.id, say('{name} (copy)', { name: card.name.slice(0, 70) }))}
              onlabel={() => label([card])}
              onremove={() => shelf.remove([card])}
            />
          {/each}
        </ul>
        {#if shelf.more}<Button class="mt-3" onclick={shelf.older} data-testid="more">{say('Show more')}</Button>{/if}
      {/if}
      <div class="mt-4 mb-5 h-1.5 rounded-b bg-[#d8cfb6] opacity-80 dark:opacity-30"></div>
      <div class="mb-2.5 flex items-baseline gap-3.5">
        <h2 class="text-[19px]">{say('Errands')}</h2>
        <span class="text-soft">{say('tasks of the garden; the bell rings when all goals are met')}</span>
      </div>
      <Errands words={shelf.words} folded={!!data.own.length} version={taken} problem={(p) => (shelf.problem = p)} />
      <div class="mt-4 mb-5 h-1.5 rounded-b bg-[#d8cfb6] opacity-80 dark:opacity-30"></div>
      <div class="mb-2.5 flex items-baseline gap-3.5">
        <h2 class="text-[19px]">{say('Lessons')}</h2>
        <span class="text-soft">{say('read step by step, shown to a room, printed')}</span>
      </div>
      <Lessons words={shelf.words} version={taken} problem={(p) => (shelf.problem = p)} />
      {#if own.length}
        <div class="mt-4 mb-5 h-1.5 rounded-b bg-[#d8cfb6] opacity-80 dark:opacity-30"></div>
        <div class="mb-2.5 flex items-baseline gap-3.5">
          <h2 class="text-[19px]">{say('Own mats and machines')}</h2>
          <span class="text-soft">{say('from your projects; a new project is begun with one')}</span>
        </div>
        <MadeHere list={own} problem={(p) => (shelf.problem = p)} />
      {/if}
      <div class="mt-4 mb-5 h-1.5 rounded-b bg-[#d8cfb6] opacity-80 dark:opacity-30"></div>
      <div class="mb-2.5 flex items-baseline gap-3.5">
        <h2 class="text-[19px]">{say('Demo projects')}</h2>
        <span class="text-soft">{say('from the Hollowmere Glasshouse; opened as a copy')}</span>
      </div>
      {#each groups as group (group)}
        <Fold title={word(group)} open={isOpen(group)} onopen={(open) => (unfolded = { ...unfolded, [group]: open })}>
          <ul class="grid grid-cols-[repeat(auto-fill,minmax(205px,1fr))] gap-3.5">
            {#each demo.filter((c) => c.label === group) as card (card.id)}
              <li>
                <Card>
                  <Button look="bare" class="block w-full text-left" onclick={() => copyOf(card.id)}>
                    <Thumb bars={card.bars} />
                    <span class="block px-3 py-2 leading-snug"
                      ><b class="block truncate" title={card.name}>{card.name}</b><small class="text-soft"
                        >{say('{device} · opens as a copy', {
                          device: kits[card.device as keyof typeof kits]?.name ?? card.device
                        })}</small
                      ></span
                    >
                  </Button></Card
                >
              </li>
            {/each}
          </ul>
        </Fold>
      {/each}
    </main>
  </div>
  <DropPlace {take}>{say('Drop the project file to open it')}</DropPlace>
</div>
<NewProject bind:kit={making} />
<Deleted bind:open={showsOff} onback={() => shelf.again()} />
<NameDialog bind:this={names} />
<KeysDialog />
