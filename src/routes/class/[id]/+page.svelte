<!-- A class: its pupils and their cards, what was given out, what was handed in. -->
<script lang="ts">
  import { invalidateAll } from '$app/navigation';
  import { toldIn } from '../../../../core/errand/task.ts';
  import { clockIn, later, say, word } from '../../../../core/words.ts';
  import AddPupils from '$lib/class/AddPupils.svelte';
  import { ask } from '$lib/class/ask.ts';
  import Cards from '$lib/class/Cards.svelte';
  import type { CardsAgain, Given, HeldStill, OpenedClass, PrintedCard, Pupil } from '$lib/class/class.ts';
  import Collected from '$lib/class/Collected.svelte';
  import CopyClass from '$lib/class/CopyClass.svelte';
  import DeleteClass from '$lib/class/DeleteClass.svelte';
  import { heldStill } from '$lib/class/held-still.ts';
  import { inOrder } from '$lib/class/folded.ts';
  import GiveOut from '$lib/class/GiveOut.svelte';
  import Me from '$lib/class/Me.svelte';
  import MovePupil from '$lib/class/MovePupil.svelte';
  import Predict from '$lib/class/Predict.svelte';
  import Teachers from '$lib/class/Teachers.svelte';
  import Button from '$lib/ui/Button.svelte';
  import Choice from '$lib/ui/Choice.svelte';
  import Field from '$lib/ui/Field.svelte';
  import Menu from '$lib/ui/Menu.svelte';
  import MenuItem from '$lib/ui/MenuItem.svelte';
  import NameDialog from '$lib/ui/NameDialog.svelte';
  import Path from '$lib/ui/Path.svelte';
  import Qr from '$lib/ui/Qr.svelte';
  import Remark from '$lib/ui/Remark.svelte';
  import Table from '$lib/ui/Table.svelte';
  import TopBar from '$lib/ui/TopBar.svelte';
  let { data } = $props();
  const of = $derived(data.class as OpenedClass);
  const groups = $derived([...new Set(of.pupils.map((p) => p.group).filter(Boolean))].sort(inOrder));
  let adding = $state(false);
  let giving = $state(false);
  let deleting = $state(false);
  let predicting = $state(false);
  let copying = $state(false);
  let teaching = $state(false);
  let moving = $state.raw<Pupil>();
  let cards = $state.raw<readonly PrintedCard[]>();
  let unknown = $state.raw<readonly string[]>([]);
  let problem = $state('');
  let names = $state<NameDialog>();
  const nameOf = (id?: string) => of.pupils.find((p) => p.id === id)?.nickname ?? '';
  async function does(path: string, method: 'POST' | 'PATCH' | 'DELETE', body?: object) {
    const answer = await ask<unknown>(`/api/classes/${of.id}${path}`, method, body);
    problem = answer.ok ? '' : answer.problem;
    await invalidateAll();
    return answer.ok ? answer.value : undefined;
  }
  async function newCard(pupil: Pupil) {
    const card = (await does(`/pupils/${pupil.id}`, 'POST')) as PrintedCard | undefined;
    if (card) [cards, unknown] = [[card], []];
  }
  /** the same cards once more: all, or one pupil's */
  async function cardsAgain(pupil?: Pupil) {
    const again = (await does(pupil ? `/pupils/${pupil.id}/card` : '/cards', 'POST')) as CardsAgain | undefined;
    if (again) [cards, unknown] = [again.cards, again.unknown];
  }
  async function renamePupil(pupil: Pupil) {
    const nickname = await names?.ask(say('What is {name} called?', { name: pupil.nickname }), 'name', pupil.nickname);
    if (nickname) await does(`/pupils/${pupil.id}`, 'PATCH', { nickname });
  }
  const KINDS: Record<Given['kind'], string> = {
    errand: later('errand'),
    lesson: later('lesson'),
    project: later('project')
  };
  let takingBack = $state('');
  /** of what is not given any more, or never was */
  const elsewhere = $derived(of.collected.filter((c) => !of.given.some((g) => g.id === c.givenId)));
  let leaving = $state.raw<Pupil>();
  async function rename() {
    const name = await names?.ask(say('What is the class called?'), 'name', of.name);
    if (name) await does('', 'PATCH', { name });
  }
  const clock = $derived(new Intl.DateTimeFormat(clockIn(), { dateStyle: 'short', timeStyle: 'short' }));
  const when = (one: Given) => {
    const from = one.fromAt > Date.now() ? say('from {time}', { time: clock.format(one.fromAt) }) : '';
    const until =
      one.untilAt === null
        ? ''
        : one.untilAt > Date.now()
          ? say('until {time}', { time: clock.format(one.untilAt) })
          : say('ended {time}', { time: clock.format(one.untilAt) });
    return [from, until].filter(Boolean).join(' · ');
  };
</script>

<svelte:head><title>{say('{name} · Class', { name: of.name })}</title></svelte:head>
<div class="flex h-full flex-col {cards ? 'print:hidden' : ''}">
  <TopBar>
    {#snippet name()}<Path
        steps={[{ name: say('Shelf'), href: '/' }, { name: say('Classes'), href: '/class' }, { name: of.name }]}
      />{/snippet}
    <span class="flex-1"></span>
    <Button look="go" href="/class/{of.id}/wall">{say('The wall')}</Button>
    <Button look="ghost" href="/class/{of.id}/marks">{say('Marks')}</Button>
    <Button look="ghost" href="/class/{of.id}/shows">{say('What the class shows')}</Button>
    <Me />
    <Menu look="ghost" label={say('More of this class')}>
      <MenuItem onclick={() => (predicting = true)}>{say('Predict together')}</MenuItem>
      <MenuItem onclick={() => cardsAgain()}>{say('All cards once more')}</MenuItem>
      <MenuItem onclick={rename}>{say('Another name')}</MenuItem>
      <MenuItem onclick={() => (teaching = true)}>{say('Teachers of this class')}</MenuItem>
      <MenuItem onclick={() => (copying = true)}>{say('A class like this one')}</MenuItem>
      <MenuItem href="/class/audit">{say('What was done')}</MenuItem>
      {#if of.own}<MenuItem onclick={() => (deleting = true)}>{say('Delete this class with everything')}</MenuItem>{/if}
    </Menu>
  </TopBar>
  <main
    class="grid min-h-0 flex-1 grid-cols-[minmax(0,1fr)_minmax(320px,38%)] max-[1000px]:block max-[1000px]:overflow-auto"
  >
    <section class="overflow-auto px-[22px] py-[18px]">
      {#if problem}<Remark class="mb-4">{problem}</Remark>{/if}
      <div class="mb-2.5 flex flex-wrap items-baseline gap-3">
        <h2 class="text-[19px]">{say('Pupils')}</h2>
        <span class="text-soft">{say('{n, plural, one {# pupil} other {# pupils}}', { n: of.pupils.length })}</span>
        <span class="flex-1"></span>
        <Button look={of.pupils.length ? 'plain' : 'go'} onclick={() => (adding = true)}>{say('Add pupils')}</Button>
      </div>
      {#if of.renamed.length}<Remark class="mb-3" data-testid="renamed"
          >{say(
            'Two had the same nickname but for capitals. Who came later is called otherwise now: {names}. Give them a new card, or another name.',
            { names: of.renamed.join(', ') }
          )}</Remark
        >{/if}
      {#if of.pupils.length}
        <Table data-testid="pupils">
          <thead class="text-left text-[12.5px] text-soft"
            ><tr
              ><th class="py-1 font-semibold">{say('Nickname')}</th><th class="font-semibold">{say('Group')}</th><th
                class="font-semibold">{say('Works with')}</th
              ><th><span class="sr-only">{say('What to do')}</span></th></tr
            ></thead
          >
          <tbody>
            {#each of.pupils as pupil (pupil.id)}
              <tr class="border-t border-rule">
                <td class="py-1 font-semibold">{pupil.nickname}</td>
                <td
                  ><Field
                    look="line"
                    size="sm"
                    class="w-28!"
                    value={pupil.group}
                    maxlength={24}
                    placeholder={say('none')}
                    aria-label={say('Group of {name}', { name: pupil.nickname })}
                    onchange={(e) => does(`/pupils/${pupil.id}`, 'PATCH', { group: e.currentTarget.value })}
                  /></td
                >
                <td
                  ><Choice
                    size="sm"
                    class="w-44"
                    value={pupil.partner ?? ''}
                    aria-label={say('With whom {name} works', { name: pupil.nickname })}
                    onchange={(e) => does(`/pupils/${pupil.id}`, 'PATCH', { partner: e.currentTarget.value || null })}
                    ><option value="">{say('alone')}</option
                    >{#each of.pupils.filter((p) => p.id !== pupil.id) as other (other.id)}<option value={other.id}
                        >{other.nickname}{other.partner && other.partner !== pupil.id
                          ? ` (${say('with {name}', { name: nameOf(other.partner) })})`
                          : ''}</option
                      >{/each}</Choice
                  ></td
                >
                <td class="text-right"
                  ><Menu label={say('What to do with {name}', { name: pupil.nickname })}>
                    <MenuItem onclick={() => renamePupil(pupil)}>{say('Another name')}</MenuItem>
                    <MenuItem onclick={() => cardsAgain(pupil)}>{say('The card once more')}</MenuItem>
                    <MenuItem onclick={() => newCard(pupil)}>{say('A new card')}</MenuItem>
                    {#if of.others.length}<MenuItem onclick={() => (moving = pupil)}>{say('To another class')}</MenuItem
                      >{/if}
                    <MenuItem href="/api/classes/{of.id}/pupils/{pupil.id}/everything" download=""
                      >{say('Everything as a file')}</MenuItem
                    >
                    <MenuItem onclick={() => (leaving = pupil)}>{say('Take out of the class')}</MenuItem>
                  </Menu></td
                >
              </tr>
            {/each}
          </tbody>
        </Table>
      {:else}<p class="max-w-[56ch] text-soft">
          {say(
            'Nobody is in this class yet. Add pupils by nicknames: each gets a card to print, with three words to sign in.'
          )}
        </p>{/if}
      {#if leaving}<Remark class="mt-3 flex flex-wrap items-center gap-3">
          <span class="flex-1"
            >{say('{name} goes with all projects and everything handed in. There is no way back.', {
              name: leaving.nickname
            })}</span
          >
          <Button
            size="sm"
            onclick={async () => {
              const { id } = leaving!;
              leaving = undefined;
              const gone = (await does(`/pupils/${id}`, 'DELETE')) as { left: HeldStill[] } | undefined;
              problem ||= heldStill(gone?.left ?? []);
            }}>{say('Take out')}</Button
          >
          <Button size="sm" onclick={() => (leaving = undefined)}>{say('Leave it')}</Button>
        </Remark>{/if}
      <h2 class="mb-1 pt-7 text-[19px]">{say('How to come in')}</h2>
      <div class="flex gap-4">
        <Qr class="h-32 w-32" address={`${of.addresses[0]}/sign-in?code=${of.code}`} />
        <div class="min-w-0">
          <p>{say('Class code')} <b class="font-mono text-[22px] tracking-[0.15em]" data-testid="code">{of.code}</b></p>
          {#each of.addresses as a (a)}<p class="truncate font-mono text-[12.5px] text-soft">{a}/sign-in</p>{/each}
          {#if of.addresses[0].startsWith('https')}<p class="mt-1 text-[13px] text-soft">
              {say(
                'The browser warns once that it does not know the certificate: this computer made it itself. Choose “Advanced”, then to go on.'
              )}
              <a class="underline" href="/handbook/the-first-hour" target="_blank"
                >{say('With a picture, in the handbook')}</a
              >
            </p>{/if}
        </div>
      </div>
    </section>
    <aside class="overflow-auto border-l border-rule bg-paper px-[22px] py-[18px] max-[1000px]:border-l-0">
      <div class="mb-2.5 flex flex-wrap items-baseline gap-3">
        <h2 class="text-[19px]">{say('Given out')}</h2>
        <span class="flex-1"></span>
        <Button onclick={() => (giving = true)}>{say('Give out')}</Button>
      </div>
      {#if !of.given.length}<p class="text-soft">
          {say('Nothing yet. What you give out stands first on the shelf of each pupil.')}
        </p>{/if}
      <ul class="flex flex-col gap-3" data-testid="given">
        {#each of.given as one (one.id)}
          <li class="rounded-lg border border-rule bg-card px-3.5 py-2.5">
            <div class="flex items-start gap-2">
              <div class="min-w-0 flex-1">
                <b class="block truncate">{toldIn(one.name)}</b>
                <small class="text-soft"
                  >{[word(KINDS[one.kind]), one.group || say('the whole class'), when(one)]
                    .filter(Boolean)
                    .join(' · ')}</small
                >
              </div>
              <Menu label={say('What to do with {name}', { name: toldIn(one.name) })}>
                {#if one.untilAt === null || one.untilAt > Date.now()}<MenuItem
                    onclick={() => does(`/given/${one.id}`, 'PATCH', { untilAt: Date.now() })}
                    >{say('End it now')}</MenuItem
                  >{:else}<MenuItem onclick={() => does(`/given/${one.id}`, 'PATCH', { untilAt: null })}
                    >{say('Open it again')}</MenuItem
                  >{/if}
                <MenuItem onclick={() => (takingBack = one.id)}>{say('Take it back')}</MenuItem>
              </Menu>
            </div>
            {#if takingBack === one.id}<Remark class="mt-2 flex flex-wrap items-center gap-3">
                <span class="flex-1"
                  >{say(
                    'It goes from every shelf on which nobody has begun it. What was begun stays, and what was handed in stands below.'
                  )}</span
                >
                <Button
                  size="sm"
                  onclick={async () => {
                    takingBack = '';
                    await does(`/given/${one.id}`, 'DELETE');
                  }}>{say('Take it back')}</Button
                >
                <Button size="sm" onclick={() => (takingBack = '')}>{say('Leave it')}</Button>
              </Remark>{/if}
            {#if one.kind === 'lesson'}<Button size="sm" class="mt-2" href="/class/{of.id}/lesson/{one.target}"
                >{say('What was answered')}</Button
              >{:else}<Collected {of} {one} />{/if}
          </li>
        {/each}
      </ul>
      {#if elsewhere.length}
        <h2 class="pt-6 pb-2.5 text-[19px]">{say('Handed in beside that')}</h2>
        <ul class="flex flex-col gap-1.5" data-testid="elsewhere">
          {#each elsewhere as c (c.handIn)}<li class="rounded-lg border border-rule bg-card px-3.5 py-2">
              <a class="font-semibold underline" href="/class/{of.id}/hand-in/{c.handIn}">{c.nickname}</a>
              <small class="text-soft">{c.name} · {clock.format(c.at)}</small>{#if c.note}<small class="block"
                  >“{c.note}”</small
                >{/if}
            </li>{/each}
        </ul>
      {/if}
      {#if of.links.length}
        <h2 class="pt-6 text-[19px]">{say('Links that pupils made')}</h2>
        <p class="pb-2 text-soft">{say('Whoever has one of them sees the project, and can take a copy.')}</p>
        <ul class="flex flex-col gap-1.5" data-testid="links">
          {#each of.links as link (link.projectId)}<li
              class="flex items-center gap-2 rounded-lg border border-rule bg-card px-3.5 py-2"
            >
              <span class="min-w-0 flex-1 truncate"
                ><b>{link.by}</b>
                <a class="underline" href="/project/{link.projectId}">{link.name}</a>
                <small class="text-soft">{clock.format(link.at)}</small></span
              >
              <Button
                size="sm"
                onclick={async () => {
                  const answer = await ask(`/api/projects/${link.projectId}/link`, 'DELETE');
                  problem = answer.ok ? '' : answer.problem;
                  await invalidateAll();
                }}>{say('Take the link back')}</Button
              >
            </li>{/each}
        </ul>
      {/if}
    </aside>
  </main>
</div>
<AddPupils
  bind:open={adding}
  {of}
  added={(made) => {
    [cards, unknown] = [made, []];
    void invalidateAll();
  }}
/>
<GiveOut
  bind:open={giving}
  {of}
  {groups}
  errands={data.errands}
  lessons={data.lessons}
  projects={data.projects}
  given={() => invalidateAll()}
/>
<CopyClass bind:open={copying} {of} />
<Teachers bind:open={teaching} {of} />
<MovePupil bind:pupil={moving} {of} moved={() => invalidateAll()} />
<DeleteClass bind:open={deleting} {of} />
<Predict bind:open={predicting} {of} />
<NameDialog bind:this={names} />
{#if cards}<Cards {of} {cards} {unknown} close={() => (cards = undefined)} />{/if}
