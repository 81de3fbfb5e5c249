<!-- The errands, the easiest first: what each asks, and how far one is with it. One is begun as a project of one's own. -->
<script lang="ts">
  import { goto } from '$app/navigation';
  import BellIcon from '@lucide/svelte/icons/bell';
  import { toldIn } from '../../../core/errand/task.ts';
  import { kits } from '../../../core/kit/kit.ts';
  import { say, word } from '../../../core/words.ts';
  import { silent } from '../ui/silent.ts';
  import Button from '../ui/Button.svelte';
  import Card from '../ui/Card.svelte';
  import Fold from '../ui/Fold.svelte';
  import Menu from '../ui/Menu.svelte';
  import MenuItem from '../ui/MenuItem.svelte';
  import { toasts } from '../ui/toasts.svelte.ts';
  import { LEVEL_NAMES, type ErrandCard } from './errands.ts';
  import { download } from './files.ts';
  let {
    words,
    folded,
    version,
    problem
  }: {
    /** what is looked for */ words: string;
    /** there is work of one's own */ folded: boolean;
    /** changes when there may be others */ version: number;
    problem: (says: string) => void;
  } = $props();
  let list = $state.raw<readonly ErrandCard[]>([]);
  let linking = $state<string>();
  let unfolded = $state.raw<Record<number, boolean>>({});
  $effect(() => {
    void version;
    void load();
  });
  async function load() {
    const answer = await fetch('/api/errands').catch(() => undefined);
    if (answer?.ok) list = (await answer.json()) as ErrandCard[];
  }
  const holds = (text: string) => text.toLowerCase().includes(words.trim().toLowerCase());
  const wanted = $derived(list.filter((e) => [toldIn(e.name), toldIn(e.story), e.device].some(holds)));
  const levels = $derived(([1, 2, 3] as const).filter((level) => wanted.some((e) => e.level === level)));
  /** once there is work of one's own, what comes next is open */
  const next = $derived(list.find((e) => !e.met)?.level);
  const isOpen = (level: number) => unfolded[level] ?? (!folded || !!words.trim() || level === next);
  const done = (level: number) => list.filter((e) => e.level === level && e.met > 0).length;
  async function begin({ id }: ErrandCard) {
    const answer = await fetch(`/api/errands/${id}`, { method: 'POST' }).catch(() => undefined);
    if (answer?.ok) return goto(`/project/${((await answer.json()) as { id: string }).id}`);
    problem(answer ? ((await answer.json()) as { message: string }).message : silent());
  }
  async function save({ id }: ErrandCard) {
    const answer = await fetch(`/api/errands/${id}`).catch(() => undefined);
    if (answer?.ok) download(`${id}.mossbell-errand.json`, await answer.text());
    else problem(silent());
  }
  async function remove(errand: ErrandCard) {
    const answer = await fetch(`/api/errands/${errand.id}`, { method: 'DELETE' }).catch(() => undefined);
    if (!answer?.ok) return problem(silent());
    await load();
    toasts.tell(say('"{name}" was taken off the shelf.', { name: toldIn(errand.name) }), {
      label: say('Take back'),
      do: async () => {
        await fetch(`/api/errands/${errand.id}?back`, { method: 'POST' });
        await load();
      }
    });
  }
  const told = ({ tries, met }: ErrandCard): string =>
    met
      ? say('the bell rang; {n, plural, one {# try} other {# tries}}', { n: tries })
      : tries
        ? say('{n, plural, one {# try} other {# tries}}', { n: tries })
        : say('not tried yet');
</script>

{#each levels as level (level)}
  <Fold
    title="{word(LEVEL_NAMES[level])} · {say('{n} of {of} done', {
      n: done(level),
      of: list.filter((e) => e.level === level).length
    })}"
    open={isOpen(level)}
    onopen={(open) => (unfolded = { ...unfolded, [level]: open })}
  >
    <ul class="grid grid-cols-[repeat(auto-fill,minmax(255px,1fr))] gap-3.5">
      {#each wanted.filter((e) => e.level === level) as errand (errand.id)}
        <li data-errand={errand.id}>
          <Card class="h-full">
            <Button
              look="bare"
              class="flex h-full w-full flex-col items-stretch justify-start px-3 py-2.5 pr-9 text-left"
              onclick={() => begin(errand)}
            >
              <span class="flex items-center gap-1.5"
                ><BellIcon size={15} class={errand.met ? 'text-brass' : 'text-rule'} /><b class="truncate"
                  >{toldIn(errand.name)}</b
                ></span
              >
              <span class="mt-1 block text-[13.5px] leading-snug">{toldIn(errand.story)}</span>
              <small class="mt-1.5 block text-soft"
                >{kits[errand.device as keyof typeof kits]?.name ?? errand.device} · {told(errand)}</small
              >
            </Button>
            {#if errand.whole || errand.own}<div class="absolute top-1 right-1">
                <Menu label={say('What to do with {name}', { name: toldIn(errand.name) })}>
                  {#if errand.whole}<MenuItem onclick={() => save(errand)}>{say('Save as a file')}</MenuItem>{/if}
                  {#if errand.own}<MenuItem onclick={() => (linking = errand.id)}>{say('A link for the room')}</MenuItem
                    >{/if}
                  {#if errand.own}<MenuItem onclick={() => remove(errand)}>{say('Take off the shelf')}</MenuItem>{/if}
                </Menu>
              </div>{/if}
          </Card>
        </li>
      {/each}
    </ul>
  </Fold>
{/each}
{#if linking}{#await import('../project/LinkDialog.svelte') then { default: LinkDialog }}<LinkDialog
      bind:open={() => !!linking, (is) => is || (linking = undefined)}
      id={linking!}
      kind="errand"
    />{/await}{/if}
