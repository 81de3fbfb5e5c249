<!-- Another device for the yard: the program and kit of another project, which stays what it is. -->
<script lang="ts">
  import Remark from '../../ui/Remark.svelte';
  import Button from '../../ui/Button.svelte';
  import Dialog from '../../ui/Dialog.svelte';
  import { say } from '../../../../core/words.ts';
  import { silent } from '../../ui/silent.ts';
  import { kits } from '../../../../core/kit/kit.ts';
  import type { Project } from '../../../../core/project.ts';
  import { useWorkbench } from '../workbench.svelte.ts';
  let { open = $bindable(false) }: { open: boolean } = $props();
  const w = useWorkbench();
  type Card = { id: string; name: string; device: string };
  let cards = $state.raw<Card[]>();
  let problem = $state('');
  $effect(() => {
    if (!open) return;
    problem = '';
    Promise.all(['/api/projects', '/api/projects?demo'].map((path) => fetch(path).then((r) => r.json())))
      .then((lists: Card[][]) => lists.flat())
      .then((list) => (cards = list.filter((c) => c.id !== w.session.id)))
      .catch(() => (problem = silent()));
  });
  async function take(card: Card) {
    const answer = (await (await fetch(`/api/projects/${card.id}`)).json()) as { project: Project };
    const { project } = w.session;
    const others = project.others ?? [];
    if (answer.project.text !== undefined) {
      problem = say('"{name}" is a text project. Beside another device only programs of blocks run.', {
        name: card.name
      });
      return;
    }
    if (others.length >= 3) {
      problem = say('There is room for three more devices in a yard. Take one out first.');
      return;
    }
    let name = card.name;
    for (let n = 2; others.some((o) => o.name === name); n++) name = `${card.name} ${n}`;
    const at = project.start ?? project.mat.start;
    const beside = at.x + 0.25 < project.mat.width - 0.1 ? at.x + 0.25 * (others.length + 1) : at.x - 0.25;
    const start = { x: Math.min(project.mat.width - 0.1, beside), y: at.y, facingDeg: at.facingDeg };
    w.session.change(say('put {name} into the yard', { name }), {
      ...project,
      others: [...others, { name, program: answer.project.program, kit: answer.project.kit, start }]
    });
    w.runs.clear();
    open = false;
  }
</script>

<Dialog bind:open title={say('Another device in the yard')}>
  <p class="text-soft">
    {say('Its program and kit sheet come from another project. Messages to devices nearby go from one to the other.')}
  </p>
  {#if problem}<Remark>{problem}</Remark>{/if}
  <ul class="flex max-h-72 flex-col gap-1 overflow-auto">
    {#each cards ?? [] as card (card.id)}
      <li>
        <Button
          look="bare"
          class="w-full rounded-lg border border-rule px-3 py-1.5 text-left hover:bg-linen"
          onclick={() => take(card)}
          ><b>{card.name}</b>
          <span class="text-soft">{kits[card.device as keyof typeof kits]?.name ?? card.device}</span></Button
        >
      </li>
    {/each}
  </ul>
  <div class="flex justify-end">
    <Button onclick={() => (open = false)}>{say('Leave it')}</Button>
  </div>
</Dialog>
