<!-- Who teaches a class: others who teach it too, and handing it over to one of them. -->
<script lang="ts">
  import { goto, invalidateAll } from '$app/navigation';
  import { page } from '$app/state';
  import { say } from '../../../core/words.ts';
  import Button from '../ui/Button.svelte';
  import Dialog from '../ui/Dialog.svelte';
  import Named from '../ui/Named.svelte';
  import Remark from '../ui/Remark.svelte';
  import { ask } from './ask.ts';
  import type { OpenedClass, Signed, Teacher } from './class.ts';
  let { open = $bindable(), of }: { open: boolean; of: OpenedClass } = $props();
  const me = $derived((page.data.me as Signed).id);
  let name = $state('');
  let problem = $state('');
  /** to whom it is to go, until that is said a second time */
  let heir = $state('');
  const path = $derived(`/api/classes/${of.id}/teachers`);
  async function does(method: 'POST' | 'PUT' | 'DELETE', to: string, body?: object): Promise<boolean> {
    const answer = await ask(to, method, body);
    problem = answer.ok ? '' : answer.problem;
    return answer.ok;
  }
  async function add(e: SubmitEvent) {
    e.preventDefault();
    if (!(await does('POST', path, { nickname: name }))) return;
    name = '';
    await invalidateAll();
  }
  async function leave(teacher: Teacher) {
    if (!(await does('DELETE', `${path}/${teacher.id}`))) return;
    if (teacher.id === me) await goto('/class');
    else await invalidateAll();
  }
  async function handOver() {
    if (await does('PUT', path, { nickname: heir })) await goto('/class');
  }
</script>

<Dialog bind:open title={say('Teachers of this class')} size="xs">
  <p class="text-soft">
    {say('Who teaches a class too sees and does everything in it, but does not delete it or hand it over.')}
  </p>
  <ul data-testid="teachers">
    {#each of.teachers as teacher (teacher.id)}<li class="flex items-center gap-2 border-t border-rule py-1.5">
        <b class="min-w-0 flex-1 truncate">{teacher.nickname}</b>
        {#if teacher.own}<small class="text-soft">{say('whose class it is')}</small>
        {:else if teacher.id === me}<Button size="sm" onclick={() => leave(teacher)}
            >{say('I do not teach it any more')}</Button
          >
        {:else if of.own}
          <Button size="sm" onclick={() => (heir = teacher.nickname)}>{say('Hand the class over')}</Button>
          <Button size="sm" onclick={() => leave(teacher)}>{say('Take out')}</Button>
        {/if}
      </li>{/each}
  </ul>
  {#if heir}<Remark class="flex flex-wrap items-center gap-3">
      <span class="flex-1"
        >{say('The class is {name}’s then, and you do not see it any more unless {name} adds you.', {
          name: heir
        })}</span
      >
      <Button size="sm" onclick={handOver}>{say('Hand it over')}</Button>
      <Button size="sm" onclick={() => (heir = '')}>{say('Leave it')}</Button>
    </Remark>{/if}
  {#if of.own}<form class="flex items-end gap-2" onsubmit={add}>
      <div class="flex-1"><Named label={say('Name of another teacher here')} bind:value={name} maxlength={24} /></div>
      <Button type="submit" disabled={!name.trim()}>{say('Teaches it too')}</Button>
    </form>{/if}
  {#if problem}<Remark look="line">{problem}</Remark>{/if}
  <div class="flex justify-end"><Button onclick={() => (open = false)}>{say('Close')}</Button></div>
</Dialog>
