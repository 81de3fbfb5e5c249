<script lang="ts">
  import { goto } from '$app/navigation';
  import Modal from 'flowbite-svelte/Modal.svelte';
  import { barrow } from '../../../core/kit/kit.ts';
  import { newProject } from '../../../core/project.ts';
  import { mats } from '../../../core/yard/mats.ts';
  import { createOnServer } from './files.ts';

  let { open = $bindable(false) }: { open: boolean } = $props();
  let name = $state('');
  let mat = $state(mats[1].name);
  let problem = $state('');
  let busy = $state(false);

  async function create(event: SubmitEvent) {
    event.preventDefault();
    problem = '';
    if (!name.trim()) {
      problem = 'Give the project a name, so that you find it again.';
      return;
    }
    busy = true;
    const made = await createOnServer(
      newProject(
        name.trim(),
        barrow,
        mats.find((m) => m.name === mat)!
      )
    );
    busy = false;
    if (made.ok) await goto(`/project/${made.id}`);
    else problem = made.problem;
  }
</script>

<Modal
  bind:open
  title="A project for Barrow"
  size="sm"
  class="bg-card text-ink"
  classes={{ header: 'text-ink', body: 'text-ink' }}
>
  <form class="flex flex-col gap-3" onsubmit={create}>
    <label class="flex flex-col gap-1 font-semibold">
      What shall it be called?
      <!-- svelte-ignore a11y_autofocus -->
      <input class="field font-normal" bind:value={name} maxlength="80" autofocus placeholder="Pots to the bench" />
    </label>
    <fieldset class="flex flex-col gap-1">
      <legend class="mb-1 font-semibold">Which mat lies in the yard?</legend>
      {#each mats as m (m.name)}
        <label class="flex items-center gap-2 rounded-lg border border-rule px-3 py-2">
          <input type="radio" name="mat" value={m.name} bind:group={mat} class="accent-brass" />
          <span
            ><b>{m.name}</b>
            <span class="text-soft"
              >{m.name === 'Fern bed'
                ? 'a five-sided path round it, 40 cm a side'
                : 'straight, with a hoop at 80 cm and marks each 10 cm'}</span
            ></span
          >
        </label>
      {/each}
    </fieldset>
    {#if problem}<p class="remark text-clay" role="alert">{problem}</p>{/if}
    <div class="flex justify-end"><button class="btn btn-go" disabled={busy}>Start the project</button></div>
  </form>
</Modal>
