<!-- Mats and machines of one's own: a new project is begun with one. -->
<script lang="ts">
  import { goto } from '$app/navigation';
  import { newProject, type Project } from '../../../core/project.ts';
  import { say } from '../../../core/words.ts';
  import Button from '../ui/Button.svelte';
  import Card from '../ui/Card.svelte';
  import DeviceArt from '../ui/DeviceArt.svelte';
  import { silent } from '../ui/silent.ts';
  import MatShape from '../workbench/yard/MatShape.svelte';
  import { createOnServer } from './files.ts';
  import type { Made } from './made.ts';
  let { list, problem }: { list: readonly Made[]; problem: (says: string) => void } = $props();
  async function begin(made: Made) {
    const answer = await fetch(`/api/projects/${made.id}`).catch(() => undefined);
    if (!answer?.ok) return problem(silent());
    const { project } = (await answer.json()) as { project: Project };
    const name = made.kind === 'mat' ? say('On {name}', { name: made.name }) : say('For {name}', { name: made.name });
    const begun = await createOnServer(newProject(name.slice(0, 80), project.kit, project.mat));
    if (begun.ok) await goto(`/project/${begun.id}`);
    else problem(begun.problem);
  }
</script>

<ul class="grid grid-cols-[repeat(auto-fill,minmax(205px,1fr))] gap-3.5">
  {#each list as made, i (i)}
    <li data-made={made.kind}>
      <Card class="h-full">
        <Button
          look="bare"
          class="grid h-full w-full grid-cols-[72px_1fr] items-center gap-3 px-3 py-2 text-left"
          title={say('Start a project with it')}
          onclick={() => begin(made)}
        >
          {#if made.kind === 'mat'}<svg
              viewBox="0 0 {made.mat.width * 100} {made.mat.height * 100}"
              class="h-12 w-[72px]"
              aria-hidden="true"><MatShape mat={made.mat} /></svg
            >{:else}<DeviceArt kit={made.kit} />{/if}
          <span class="min-w-0 leading-snug"
            ><b class="block truncate">{made.name}</b><small class="block truncate text-soft"
              >{made.kind === 'mat'
                ? say('mat of {name}', { name: made.project })
                : say('machine of {name}', { name: made.project })}</small
            ></span
          >
        </Button>
      </Card>
    </li>
  {/each}
</ul>
