<!-- What was handed in, as it was, with the project as it is now beside it; and giving it back to be worked on. -->
<script lang="ts">
  import { goto, invalidateAll } from '$app/navigation';
  import { onMount, untrack } from 'svelte';
  import { clockIn, say } from '../../../../../../core/words.ts';
  import { newLesson } from '../../../../../../core/lesson/lesson.ts';
  import { ask } from '$lib/class/ask.ts';
  import Me from '$lib/class/Me.svelte';
  import Program from '$lib/lesson/Program.svelte';
  import { LessonRoom, provideRoom } from '$lib/lesson/room.svelte.ts';
  import { createOnServer } from '$lib/shelf/files.ts';
  import Button from '$lib/ui/Button.svelte';
  import Lines from '$lib/ui/Lines.svelte';
  import Path from '$lib/ui/Path.svelte';
  import Remark from '$lib/ui/Remark.svelte';
  import TopBar from '$lib/ui/TopBar.svelte';
  let { data } = $props();
  const room = provideRoom(untrack(() => new LessonRoom(newLesson('handed-in', '#'))));
  const { handIn, project, now } = $derived(data);
  const path = $derived(`/api/classes/${data.id}/hand-ins/${handIn.handIn}`);
  const same = $derived(
    now && JSON.stringify([now.program, now.text]) === JSON.stringify([project.program, project.text])
  );
  const clock = $derived(new Intl.DateTimeFormat(clockIn(), { dateStyle: 'short', timeStyle: 'short' }));
  let problem = $state('');
  let text = $state('');
  let gives = $state(false);
  onMount(() => {
    if (handIn.seenAt === null) void ask(path, 'PATCH', { seen: true });
    return () => room.close();
  });
  async function back(is: boolean) {
    const answer = await ask(path, 'PATCH', { back: is, text });
    problem = answer.ok ? '' : answer.problem;
    if (!answer.ok) return;
    [text, gives] = ['', false];
    await invalidateAll();
  }
  async function copy() {
    const name = say('{name}, handed in {time}', { name: project.name.slice(0, 40), time: clock.format(handIn.at) });
    const made = await createOnServer({ ...project, name: name.slice(0, 80) });
    if (made.ok) await goto(`/project/${made.id}`);
    else problem = made.problem;
  }
  const facts = $derived([
    clock.format(handIn.at),
    ...(handIn.late ? [say('late')] : []),
    ...(handIn.result ? [say('{n} of {of} goals', { n: handIn.result.got, of: handIn.result.of })] : []),
    ...(handIn.claimed ? [say('as the browser said')] : []),
    ...(handIn.backAt ? [say('given back')] : [])
  ]);
</script>

<svelte:head><title>{say('{name} · Handed in', { name: handIn.nickname })}</title></svelte:head>
<div class="flex h-full flex-col">
  <TopBar>
    {#snippet name()}<Path
        steps={[
          { name: say('Classes'), href: '/class' },
          { name: data.class, href: `/class/${data.id}` },
          { name: `${handIn.nickname}: ${handIn.name}` }
        ]}
      />{/snippet}
    <span class="flex-1"></span>
    <Button look="ghost" href="/class/{data.id}/marks">{say('Marks')}</Button>
    <Me />
  </TopBar>
  <main class="min-h-0 flex-1 overflow-auto px-[22px] py-[18px]">
    {#if problem}<Remark class="mb-3">{problem}</Remark>{/if}
    <div class="mb-4 flex flex-wrap items-center gap-2.5">
      <p class="min-w-0 flex-1" data-testid="facts">
        <b>{handIn.nickname}</b> <span class="text-soft">{facts.join(' · ')}</span>
        {#if handIn.note}<span class="block">“{handIn.note}”</span>{/if}
      </p>
      {#if handIn.backAt}<Button onclick={() => back(false)}>{say('Do not give it back')}</Button>
      {:else}<Button look={gives ? 'plain' : 'go'} aria-expanded={gives} onclick={() => (gives = !gives)}
          >{say('Give it back')}</Button
        >{/if}
      <Button onclick={copy}>{say('Open as a copy')}</Button>
      {#if now}<Button href="/project/{handIn.projectId}">{say('Open the project')}</Button>{/if}
    </div>
    {#if gives}<form
        class="mb-4 flex max-w-[70ch] flex-col gap-2 rounded-lg border border-rule bg-card p-3.5"
        onsubmit={(e) => {
          e.preventDefault();
          void back(true);
        }}
      >
        <label class="flex flex-col gap-1 font-semibold"
          >{say('What is to be done')}<Lines class="h-20 font-normal" bind:value={text} maxlength={600} /></label
        >
        <p class="text-soft">{say('It stands above the program. The pupil works on it, and hands in again.')}</p>
        <div class="flex justify-end gap-2">
          <Button onclick={() => (gives = false)}>{say('Leave it')}</Button>
          <Button look="go" type="submit">{say('Give it back')}</Button>
        </div>
      </form>{/if}
    <div class="grid grid-cols-[repeat(auto-fit,minmax(min(420px,100%),1fr))] gap-6">
      <section data-testid="as-handed-in">
        <h2 class="mb-2 text-[19px]">{say('As it was handed in')}</h2>
        <Program {project} takes={false} />
      </section>
      <section data-testid="as-now">
        <h2 class="mb-2 text-[19px]">{say('As it is now')}</h2>
        {#if same}<p class="text-soft">{say('The program is the same.')}</p>
        {:else if now}<Program project={now} takes={false} />
        {:else}<p class="text-soft">{say('The project was taken off the shelf. What was handed in stays.')}</p>{/if}
      </section>
    </div>
  </main>
</div>
