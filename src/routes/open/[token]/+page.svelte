<!-- A project behind a link: looked at, tried here, and taken as a copy. -->
<script lang="ts">
  import { goto } from '$app/navigation';
  import { onMount, untrack } from 'svelte';
  import { say } from '../../../../core/words.ts';
  import { ask } from '$lib/class/ask.ts';
  import Me from '$lib/class/Me.svelte';
  import Program from '$lib/lesson/Program.svelte';
  import { LessonRoom, provideRoom } from '$lib/lesson/room.svelte.ts';
  import Button from '$lib/ui/Button.svelte';
  import LanguageChoice from '$lib/ui/LanguageChoice.svelte';
  import Path from '$lib/ui/Path.svelte';
  import Remark from '$lib/ui/Remark.svelte';
  import ThemeButton from '$lib/ui/ThemeButton.svelte';
  import TopBar from '$lib/ui/TopBar.svelte';
  let { data } = $props();
  const project = $derived(data.linked.project);
  const room = provideRoom(untrack(() => new LessonRoom(undefined as never)));
  onMount(() => () => room.close());
  let problem = $state('');
  async function take() {
    const made = await ask<{ id: string }>(`/api/open/${data.token}`, 'POST');
    if (made.ok) await goto(`/project/${made.value.id}`);
    else problem = made.problem;
  }
</script>

<svelte:head><title>{say('{name} · Moss Bell', { name: project.name })}</title></svelte:head>
<div class="flex h-full flex-col">
  <TopBar>
    {#snippet name()}<Path steps={[{ name: say('Shelf'), href: '/' }, { name: project.name }]} />{/snippet}
    <span class="flex-1"></span>
    <Me />
    <LanguageChoice />
    <ThemeButton />
  </TopBar>
  <main class="flex-1 overflow-auto px-6 py-8">
    <div class="mx-auto flex max-w-[880px] flex-col gap-4">
      <div class="flex flex-wrap items-center gap-4">
        <p class="flex-1">
          {data.linked.by
            ? say('{by} shows you this program. You can look at it and try it; to change it, take a copy.', {
                by: data.linked.by
              })
            : say('You can look at this program and try it; to change it, take a copy.')}
        </p>
        <Button look="go" onclick={take}>{say('Copy it to my shelf')}</Button>
      </div>
      {#if problem}<Remark>{problem}</Remark>{/if}
      <Program {project} takes={false} />
    </div>
  </main>
</div>
