<script lang="ts">
  import OpenFile from '../lib/ui/OpenFile.svelte';
  import Field from '../lib/ui/Field.svelte';
  import Button from '../lib/ui/Button.svelte';
  import { clockIn, later, say, word } from '../../core/words.ts';
  import { goto, invalidateAll } from '$app/navigation';
  import { onMount } from 'svelte';
  import FolderOpen from '@lucide/svelte/icons/folder-open';
  import Trash from '@lucide/svelte/icons/trash-2';
  import { kits, type Kit } from '../../core/kit/kit.ts';
  import NewProject from '$lib/shelf/NewProject.svelte';
  import Thumb from '$lib/shelf/Thumb.svelte';
  import { createOnServer, openFile } from '$lib/shelf/files.ts';
  import ThemeButton from '$lib/ui/ThemeButton.svelte';
  import LanguageChoice from '$lib/ui/LanguageChoice.svelte';
  import TopBar from '$lib/ui/TopBar.svelte';
  import KeysDialog from '$lib/ui/KeysDialog.svelte';
  import { isTyping, singleKeys } from '$lib/ui/keys.svelte.ts';
  import DeviceArt from '$lib/ui/DeviceArt.svelte';

  import type { Card } from '$lib/shelf/cards.ts';
  import Deleted from '$lib/shelf/Deleted.svelte';

  let { data } = $props();
  let making = $state.raw<Kit>();
  const ABOUT: Record<Kit['device'], string> = {
    barrow: later('two-wheeled robot'),
    trowel: later('board for the hand')
  };
  let problem = $state('');
  let dropping = $state(false);
  let find = $state('');
  let field = $state<HTMLInputElement>();
  let picker = $state<OpenFile>();
  const wanted = (name: string) => name.toLowerCase().includes(find.trim().toLowerCase());
  /** pages of the shelf after the first one, and what is found on all of them */
  let older = $state.raw<Card[]>([]);
  let hasMore = $derived(data.more);
  let found = $state.raw<Card[]>();
  const own = $derived(found ?? [...data.own, ...older.filter((c) => !data.own.some((o) => o.id === c.id))]);
  async function more() {
    const last = own.at(-1)!;
    const page = (await (
      await fetch(`/api/projects?after=${encodeURIComponent(`${last.changedAt} ${last.id}`)}`)
    ).json()) as Card[];
    older = [...older, ...page];
    hasMore = page.length > 0;
  }
  $effect(() => {
    const words = find.trim();
    if (!words) return void (found = undefined);
    const timer = setTimeout(async () => {
      const answer = await fetch(`/api/projects?find=${encodeURIComponent(words)}`).catch(() => undefined);
      if (answer?.ok && words === find.trim()) found = (await answer.json()) as Card[];
    }, 150);
    return () => clearTimeout(timer);
  });
  let demos = $state.raw<Card[]>();
  const demo = $derived((data.demo ?? demos ?? []).filter((c) => wanted(c.name)));
  /** the page comes from the server and takes clicks a moment later */
  let stands = $state(false);
  onMount(async () => {
    stands = true;
    if (!data.demo) demos = (await (await fetch('/api/projects?demo')).json()) as Card[];
  });

  async function take(file: File | undefined) {
    if (!file) return;
    problem = '';
    const opened = await openFile(file);
    if (opened.ok) await goto(`/project/${opened.id}`);
    else problem = opened.problem;
  }
  async function copyOf(id: string) {
    const response = await fetch(`/api/projects/${id}`);
    const made = await createOnServer((await response.json()).project);
    if (made.ok) await goto(`/project/${made.id}`);
    else problem = made.problem;
  }
  /** what was taken off last: it can be taken back at once, or for 30 days from the list below */
  let off = $state.raw<{ id: string; name: string }>();
  let showsOff = $state(false);
  async function again() {
    older = [];
    await invalidateAll();
    if (find.trim())
      found = (await (await fetch(`/api/projects?find=${encodeURIComponent(find.trim())}`)).json()) as Card[];
  }
  async function remove(id: string, name: string) {
    const answer = await fetch(`/api/projects/${id}`, { method: 'DELETE' }).catch(() => undefined);
    if (!answer?.ok)
      return void (problem = say('The school computer does not answer. Is Moss Bell still running there?'));
    off = { id, name };
    await again();
  }
  async function back(id: string) {
    await fetch(`/api/projects/${id}?back`, { method: 'POST' });
    off = undefined;
    await again();
  }
  // made once: a formatter costs more than all cards
  const clock = $derived(new Intl.DateTimeFormat(clockIn(), { hour: '2-digit', minute: '2-digit' }));
  const day = $derived(new Intl.DateTimeFormat(clockIn(), { day: 'numeric', month: 'short' }));
  function when(at: number): string {
    const days = Math.floor((new Date().setHours(24, 0, 0, 0) - at) / 86_400_000);
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

<div
  class="flex h-full flex-col"
  data-stands={stands || undefined}
  role="presentation"
  ondragover={(e) => {
    e.preventDefault();
    dropping = true;
  }}
  ondragleave={(e) => {
    if (e.relatedTarget === null) dropping = false;
  }}
  ondrop={(e) => {
    e.preventDefault();
    dropping = false;
    void take(e.dataTransfer?.files[0]);
  }}
>
  <TopBar home={false} crumb={say('Shelf')}>
    {#snippet name()}<h1 class="text-[18px]">{say('Moss Bell')}</h1>{/snippet}
    <span class="flex-1"></span>
    <label class="flex items-center gap-1.5 rounded-md border border-[#51665a] px-2.5 py-0.5 text-[#eef2e4]">
      <span class="sr-only">{say('Find a project')}</span>
      <Field
        bind:element={field}
        bind:value={find}
        placeholder={say('Find a project')}
        look="bare"
        class="w-36! p-1 text-[#eef2e4] placeholder:text-[#c9d2c4]"
      />
      <span class="font-mono" aria-hidden="true">/</span>
    </label>
    <Button look="ghost" onclick={() => picker?.choose()}><FolderOpen size={16} />{say('Open a file')}</Button>
    <OpenFile bind:this={picker} label={say('Project file')} accept=".json,application/json" {take} />
    <Button look="ghost" href="/handbook">{say('Handbook')}</Button>
    <LanguageChoice />
    <ThemeButton />
  </TopBar>

  <div class="grid min-h-0 flex-1 grid-cols-[300px_1fr]">
    <aside class="flex flex-col gap-2.5 overflow-auto border-r border-rule bg-paper px-4 py-[18px]">
      <h2 class="text-[19px]">{say('Start something')}</h2>
      <span class="-mt-2 text-soft">{say('Which device is it for?')}</span>
      {#each Object.values(kits) as kit (kit.device)}
        <Button
          look="bare"
          class="grid cursor-pointer grid-cols-[64px_1fr] items-center gap-3 rounded-xl border border-rule bg-card px-2.5 py-2 text-left hover:border-brass"
          onclick={() => (making = kit)}
        >
          <DeviceArt {kit} />
          <span
            ><b class="block leading-tight">{kit.name}</b><small class="text-soft">{word(ABOUT[kit.device])}</small
            ></span
          >
        </Button>
      {/each}
      <p class="mt-auto text-[12.5px] text-soft">
        {say(
          'No device at hand? There are stand-ins in the yard, Barrow 3, Barrow 5 and Trowel 2, that behave like real ones, small faults included.'
        )}
      </p>
    </aside>

    <main class="overflow-auto px-[22px] py-[18px]">
      {#if problem}
        <div class="remark mb-4 flex items-start justify-between gap-4" role="alert">
          <span class="text-clay">{problem}</span><Button look="quiet" onclick={() => (problem = '')}
            >{say('Close')}</Button
          >
        </div>
      {/if}
      {#if off}
        <div
          class="mb-4 flex items-center justify-between gap-4 rounded-xl border border-rule bg-card px-4 py-2"
          role="status"
          data-testid="off"
        >
          <span>{say('"{name}" was taken off the shelf.', { name: off.name })}</span>
          <span class="flex gap-2"
            ><Button size="sm" onclick={() => back(off!.id)}>{say('Take back')}</Button><Button
              look="quiet"
              onclick={() => (off = undefined)}>{say('Close')}</Button
            ></span
          >
        </div>
      {/if}
      <div class="mb-2.5 flex items-baseline gap-3.5">
        <h2 class="text-[19px]">{say('Go on with')}</h2>
        <span class="text-soft">{say('saved by themselves as you work')}</span>
        <span class="flex-1"></span>
        <Button look="quiet" class="underline" onclick={() => (showsOff = true)}>{say('Taken off the shelf')}</Button>
      </div>
      {#if own.length === 0}
        <p class="rounded-xl border border-dashed border-rule bg-paper p-5 text-soft">
          {find
            ? say('No project of that name.')
            : say(
                'Your projects will stand here, each known by the picture of its blocks. Start one on the left, open a demo project below as a copy, or drop a project file anywhere on this page.'
              )}
        </p>
      {:else}
        <ul class="grid grid-cols-[repeat(auto-fill,minmax(215px,1fr))] gap-3.5">
          {#each own as card (card.id)}
            <li class="group relative">
              <a
                href="/project/{card.id}"
                class="block overflow-hidden rounded-t-xl rounded-b border border-rule bg-card hover:border-brass"
              >
                <Thumb bars={card.bars} />
                <span class="block px-3 py-2 leading-snug">
                  <b class="block truncate">{card.name}</b><small class="text-soft"
                    >{say('{device} · {when}', {
                      device: kits[card.device as keyof typeof kits]?.name ?? card.device,
                      when: when(card.changedAt)
                    })}</small
                  >
                  {#if card.toCheck}<small class="mt-1 block w-fit rounded-md bg-[var(--claywash)] px-2 text-clay"
                      >{say('{n, plural, one {# thing} other {# things}} to check', { n: card.toCheck })}</small
                    >
                  {:else if card.parked}<small class="mt-1 block w-fit rounded-md bg-linen px-2 text-soft"
                      >{say('{n, plural, one {# stack} other {# stacks}} parked', { n: card.parked })}</small
                    >{/if}
                </span>
              </a>
              <Button
                look="bare"
                class="absolute right-1.5 bottom-1.5 rounded-md p-1.5 text-soft opacity-0 group-hover:opacity-100 pointer-coarse:opacity-100 hover:text-clay focus-visible:opacity-100"
                aria-label={say('Take {name} off the shelf', { name: card.name })}
                title={say('Take off the shelf')}
                onclick={() => remove(card.id, card.name)}><Trash size={15} /></Button
              >
            </li>
          {/each}
        </ul>
        {#if hasMore && !found}<Button class="mt-3" onclick={more} data-testid="more">{say('Show older ones')}</Button
          >{/if}
      {/if}
      <div class="mt-4 mb-5 h-1.5 rounded-b bg-[#d8cfb6] opacity-80 dark:opacity-30"></div>
      <div class="mb-2.5 flex items-baseline gap-3.5">
        <h2 class="text-[19px]">{say('Demo projects')}</h2>
        <span class="text-soft">{say('from the Hollowmere Glasshouse; opened as a copy')}</span>
      </div>
      <ul class="grid grid-cols-[repeat(auto-fill,minmax(215px,1fr))] gap-3.5">
        {#each demo as card (card.id)}
          <li>
            <Button
              look="bare"
              class="block w-full cursor-pointer overflow-hidden rounded-t-xl rounded-b border border-rule bg-card text-left hover:border-brass"
              onclick={() => copyOf(card.id)}
            >
              <Thumb bars={card.bars} />
              <span class="block px-3 py-2 leading-snug"
                ><b class="block truncate">{card.name}</b><small class="text-soft"
                  >{say('{device} · opens as a copy', {
                    device: kits[card.device as keyof typeof kits]?.name ?? card.device
                  })}</small
                ></span
              >
            </Button>
          </li>
        {/each}
      </ul>
    </main>
  </div>
  {#if dropping}<div
      class="pointer-events-none fixed inset-3 z-50 grid place-items-center rounded-2xl border-2 border-dashed border-brass bg-[#26352ccc] text-xl font-semibold text-white"
    >
      {say('Drop the project file to open it')}
    </div>{/if}
</div>
<NewProject bind:kit={making} />
<Deleted bind:open={showsOff} onback={again} />
<KeysDialog />
