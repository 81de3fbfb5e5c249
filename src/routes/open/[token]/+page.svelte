<!-- A project or an errand behind a link: looked at, tried here, and taken as a copy. -->
<script lang="ts">
  import { goto } from '$app/navigation';
  import { onMount, untrack } from 'svelte';
  import { goalWords } from '../../../../core/errand/goals.ts';
  import { toldIn } from '../../../../core/errand/task.ts';
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
  const { linked } = $derived(data);
  const title = $derived('project' in linked ? linked.project.name : toldIn(linked.errand.name));
  const room = provideRoom(untrack(() => new LessonRoom(undefined as never)));
  onMount(() => () => room.close());
  let problem = $state('');
  async function take() {
    const made = await ask<{ id: string; kind: 'project' | 'errand' }>(`/api/open/${data.token}`, 'POST');
    if (made.ok) await goto(made.value.kind === 'project' ? `/project/${made.value.id}` : '/');
    else problem = made.problem;
  }
</script>

<svelte:head><title>{say('{name} · Moss Bell', { name: title })}</title></svelte:head>
<div class="flex h-full flex-col">
  <TopBar>
    {#snippet name()}<Path steps={[{ name: say('Shelf'), href: '/' }, { name: title }]} />{/snippet}
    <span class="flex-1"></span>
    <Me />
    <LanguageChoice />
    <ThemeButton />
  </TopBar>
  <main class="flex-1 overflow-auto px-6 py-8">
    <div class="mx-auto flex max-w-[880px] flex-col gap-4">
      <div class="flex flex-wrap items-center gap-4">
        <p class="flex-1">
          {'errand' in linked
            ? linked.by
              ? say('{by} made this errand. Put it on your shelf to do it.', { by: linked.by })
              : say('Put this errand on your shelf to do it.')
            : data.linked.by
              ? say('{by} shows you this program. You can look at it and try it; to change it, take a copy.', {
                  by: data.linked.by
                })
              : say('You can look at this program and try it; to change it, take a copy.')}
        </p>
        <Button look="go" onclick={take}>{say('Copy it to my shelf')}</Button>
      </div>
      {#if problem}<Remark>{problem}</Remark>{/if}
      {#if 'project' in linked}<Program project={linked.project} takes={false} />{:else}
        <section data-testid="errand">
          <h2 class="font-display text-[22px]">{toldIn(linked.errand.name)}</h2>
          <p class="mt-1">{toldIn(linked.errand.story)}</p>
          <ul class="mt-2 list-inside list-disc">
            {#each linked.errand.goals as goal, i (i)}<li>{goalWords(goal)}</li>{/each}
          </ul>
        </section>{/if}
    </div>
  </main>
</div>
