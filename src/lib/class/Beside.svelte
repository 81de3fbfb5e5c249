<!-- Two solutions beside one another, to be looked at by the room. -->
<script lang="ts">
  import { untrack } from 'svelte';
  import type { Project } from '../../../core/project.ts';
  import { say } from '../../../core/words.ts';
  import { drawnOf } from '../lesson/drawn.ts';
  import Choice from '../ui/Choice.svelte';
  import Remark from '../ui/Remark.svelte';
  import { ask } from './ask.ts';
  import type { ClassShows } from './class.ts';
  let { works, hidden }: { works: ClassShows['works']; hidden: boolean } = $props();
  let chosen = $state<string[]>(untrack(() => works.slice(0, 2).map((w) => w.projectId)));
  let problem = $state('');
  const open = async (id: string): Promise<Project | undefined> => {
    const answer = await ask<{ project: Project }>(`/api/projects/${id}`);
    if (!answer.ok) problem = answer.problem;
    return answer.ok ? answer.value.project : undefined;
  };
  const nameOf = (i: number) => (hidden ? say('Pupil {n}', { n: i + 1 }) : works[i].nickname);
</script>

{#if problem}<Remark look="line">{problem}</Remark>{/if}
<div class="grid grid-cols-2 gap-3.5 max-[800px]:grid-cols-1" data-testid="beside">
  {#each chosen as id, side (side)}
    <figure class="min-w-0 rounded-lg border border-rule bg-card p-3">
      <Choice
        size="sm"
        aria-label={side ? say('The solution on the right') : say('The solution on the left')}
        bind:value={chosen[side]}
        >{#each works as work, i (work.projectId)}<option value={work.projectId}>{nameOf(i)}</option>{/each}</Choice
      >
      <div class="mt-2 overflow-auto rounded-md bg-[#fbfaf5]">
        {#await open(id) then project}{#if project?.text !== undefined}<pre
              class="p-2 font-mono text-[13px]">{project.text}</pre>
          {:else if project}{#await drawnOf(project)}<p class="p-2 text-soft">
                {say('Drawing the blocks ...')}
              </p>{:then { svg, width }}<div
                class="[&>svg]:h-auto [&>svg]:max-w-full"
                style="--wide: {Math.round(width)}px"
                role="img"
                aria-label={say('The program {name}', { name: project.name })}
              >
                {@html svg}
              </div>{/await}{/if}{/await}
      </div>
    </figure>
  {/each}
</div>
