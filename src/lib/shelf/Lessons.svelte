<!-- The lessons: read, written, printed, and saved as files. -->
<script lang="ts">
  import { goto } from '$app/navigation';
  import { toldIn } from '../../../core/errand/task.ts';
  import { say } from '../../../core/words.ts';
  import Button from '../ui/Button.svelte';
  import Card from '../ui/Card.svelte';
  import Menu from '../ui/Menu.svelte';
  import MenuItem from '../ui/MenuItem.svelte';
  import NameDialog from '../ui/NameDialog.svelte';
  import { silent } from '../ui/silent.ts';
  import { toasts } from '../ui/toasts.svelte.ts';
  import type { LessonCard } from './lessons.ts';
  let {
    words,
    version,
    problem
  }: {
    /** what is looked for */ words: string;
    /** changes when there may be others */ version: number;
    problem: (says: string) => void;
  } = $props();
  let list = $state.raw<readonly LessonCard[]>([]);
  let names = $state<NameDialog>();
  $effect(() => {
    void version;
    void load();
  });
  async function load() {
    const answer = await fetch('/api/lessons').catch(() => undefined);
    if (answer?.ok) list = (await answer.json()) as LessonCard[];
  }
  const holds = (text: string) => text.toLowerCase().includes(words.trim().toLowerCase());
  const wanted = $derived(list.filter((l) => [toldIn(l.name), toldIn(l.objective)].some(holds)));
  /** words of a lesson without the signs of Markdown */
  const plain = (text: string) => text.replace(/[*_`]/g, '');
  // lessons are made with what reads and writes zip files: fetched when it is needed
  async function begin() {
    const name = await names?.ask(say('What is the lesson called?'), 'name');
    if (!name) return;
    const made = await (await import('../lesson/copy.ts')).beginLesson(name);
    if (made.ok) await goto(`/lesson/${made.id}/write`);
    else problem(made.problem);
  }
  async function save({ id }: LessonCard) {
    const trouble = await (await import('../lesson/copy.ts')).saveLessonFile(id);
    if (trouble) problem(trouble);
  }
  async function remove(lesson: LessonCard) {
    const answer = await fetch(`/api/lessons/${lesson.id}`, { method: 'DELETE' }).catch(() => undefined);
    if (!answer?.ok) return problem(silent());
    await load();
    toasts.tell(say('"{name}" was taken off the shelf.', { name: toldIn(lesson.name) }), {
      label: say('Take back'),
      do: async () => {
        await fetch(`/api/lessons/${lesson.id}?back`, { method: 'POST' });
        await load();
      }
    });
  }
</script>

<ul class="grid grid-cols-[repeat(auto-fill,minmax(255px,1fr))] gap-3.5">
  {#each wanted as lesson (lesson.id)}
    <li data-lesson={lesson.id}>
      <Card class="h-full">
        <Button look="bare" class="block h-full w-full px-3 py-2.5 pr-9 text-left" href="/lesson/{lesson.id}">
          <b class="block">{toldIn(lesson.name)}</b>
          <span class="mt-1 line-clamp-3 text-[13.5px] leading-snug">{plain(toldIn(lesson.objective))}</span>
          <small class="mt-1.5 block text-soft"
            >{say('{n, plural, one {# step} other {# steps}}', { n: lesson.steps })}</small
          >
        </Button>
        <div class="absolute top-1 right-1">
          <Menu label={say('What to do with {name}', { name: toldIn(lesson.name) })}>
            <MenuItem href="/lesson/{lesson.id}">{say('Read')}</MenuItem>
            <MenuItem href="/lesson/{lesson.id}/write">{lesson.own ? say('Write') : say('Look at its text')}</MenuItem>
            <MenuItem href="/lesson/{lesson.id}/print?teacher">{say('Print')}</MenuItem>
            <MenuItem onclick={() => save(lesson)}>{say('Save as a file')}</MenuItem>
            {#if lesson.own}<MenuItem onclick={() => remove(lesson)}>{say('Take off the shelf')}</MenuItem>{/if}
          </Menu>
        </div>
      </Card>
    </li>
  {/each}
  <li>
    <Button look="plain" class="h-full min-h-16 w-full justify-center border-dashed" onclick={begin}
      >{say('Write a lesson')}</Button
    >
  </li>
</ul>
<NameDialog bind:this={names} />
