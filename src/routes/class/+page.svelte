<!-- The classes of the teacher. -->
<script lang="ts">
  import { goto } from '$app/navigation';
  import { say } from '../../../core/words.ts';
  import { ask } from '$lib/class/ask.ts';
  import Me from '$lib/class/Me.svelte';
  import Button from '$lib/ui/Button.svelte';
  import Card from '$lib/ui/Card.svelte';
  import NameDialog from '$lib/ui/NameDialog.svelte';
  import Path from '$lib/ui/Path.svelte';
  import Remark from '$lib/ui/Remark.svelte';
  import TopBar from '$lib/ui/TopBar.svelte';
  let { data } = $props();
  let names = $state<NameDialog>();
  let problem = $state('');
  async function make() {
    const name = await names?.ask(say('What is the class called?'), 'name');
    if (!name) return;
    const made = await ask<{ id: string }>('/api/classes', 'POST', { name });
    if (made.ok) await goto(`/class/${made.value.id}`);
    else problem = made.problem;
  }
</script>

<svelte:head><title>{say('Classes · Moss Bell')}</title></svelte:head>
<div class="flex h-full flex-col">
  <TopBar>
    {#snippet name()}<Path steps={[{ name: say('Shelf'), href: '/' }, { name: say('Classes') }]} />{/snippet}
    <span class="flex-1"></span>
    <Button look="ghost" href="/class/audit">{say('What was done')}</Button>
    <Me />
  </TopBar>
  <main class="flex-1 overflow-auto px-[22px] py-[18px]">
    {#if problem}<Remark class="mb-4">{problem}</Remark>{/if}
    <div class="mb-3 flex items-baseline gap-3.5">
      <h2 class="text-[19px]">{say('Your classes')}</h2>
      <span class="flex-1"></span>
      <Button look={data.classes.length ? 'plain' : 'go'} onclick={make}>{say('Make a class')}</Button>
    </div>
    {#if !data.classes.length}<p class="max-w-[60ch] text-soft">
        {say(
          'A class has a code and pupils with nicknames. Each pupil gets a printed card with three words to sign in with. Then you give out errands and lessons, and see on the wall who is stuck.'
        )}
      </p>{/if}
    <ul class="grid grid-cols-[repeat(auto-fill,minmax(260px,1fr))] gap-3.5">
      {#each data.classes as one (one.id)}
        <li>
          <Card>
            <a class="block px-4 py-3" href="/class/{one.id}"
              ><b class="block truncate font-display text-[18px]">{one.name}</b><span class="text-soft"
                >{say('{n, plural, one {# pupil} other {# pupils}}', { n: one.pupils })} · {say('code')}
                <span class="font-mono">{one.code}</span>{one.own ? '' : ` · ${say('you teach it too')}`}</span
              ></a
            >
            <div class="flex gap-1.5 px-3 pb-3">
              <Button size="sm" href="/class/{one.id}/wall">{say('The wall')}</Button>
              <Button size="sm" href="/class/{one.id}/shows">{say('What the class shows')}</Button>
            </div>
          </Card>
        </li>
      {/each}
    </ul>
  </main>
</div>
<NameDialog bind:this={names} />
