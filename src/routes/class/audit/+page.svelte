<!-- What was done with rights in the teacher's classes: sign-ins, cards, deletions. -->
<script lang="ts">
  import { clockIn, say, word } from '../../../../core/words.ts';
  import { AUDIT_WORDS } from '$lib/class/audit.ts';
  import { invalidateAll } from '$app/navigation';
  import { ask } from '$lib/class/ask.ts';
  import Me from '$lib/class/Me.svelte';
  import Staff from '$lib/class/Staff.svelte';
  import Button from '$lib/ui/Button.svelte';
  import Named from '$lib/ui/Named.svelte';
  import Path from '$lib/ui/Path.svelte';
  import Remark from '$lib/ui/Remark.svelte';
  import Table from '$lib/ui/Table.svelte';
  import TopBar from '$lib/ui/TopBar.svelte';
  let { data } = $props();
  const clock = $derived(new Intl.DateTimeFormat(clockIn(), { dateStyle: 'short', timeStyle: 'medium' }));
  let old = $state('');
  let passphrase = $state('');
  let problem = $state('');
  async function change(e: SubmitEvent) {
    e.preventDefault();
    const answer = await ask('/api/me', 'PATCH', { old, passphrase });
    if (answer.ok) location.assign('/sign-in?to=/class');
    else problem = answer.problem;
  }
  let name = $state('');
  let words = $state('');
  let told = $state('');
  async function another(e: SubmitEvent) {
    e.preventDefault();
    const answer = await ask('/api/teachers', 'POST', { nickname: name, passphrase: words });
    problem = answer.ok ? '' : answer.problem;
    told = answer.ok ? say('{name} can sign in as a teacher now.', { name }) : '';
    if (answer.ok) [name, words] = ['', ''];
    await invalidateAll();
  }
</script>

<svelte:head><title>{say('What was done · Moss Bell')}</title></svelte:head>
<div class="flex h-full flex-col">
  <TopBar>
    {#snippet name()}<Path
        steps={[
          { name: say('Shelf'), href: '/' },
          { name: say('Classes'), href: '/class' },
          { name: say('What was done') }
        ]}
      />{/snippet}
    <span class="flex-1"></span>
    <Me />
  </TopBar>
  <main
    class="grid min-h-0 flex-1 grid-cols-[minmax(0,1fr)_340px] gap-8 overflow-auto px-[22px] py-[18px] max-[900px]:block"
  >
    <section>
      <h2 class="mb-1 text-[19px]">{say('What was done')}</h2>
      <p class="mb-3 text-soft">
        {say('The newest first. No addresses are kept, and no line of a class that was deleted.')}
      </p>
      <Table data-testid="audit">
        <thead class="text-left text-[12.5px] text-soft"
          ><tr
            ><th class="py-1 font-semibold">{say('When')}</th><th class="font-semibold">{say('Who')}</th><th
              class="font-semibold">{say('What')}</th
            ><th class="font-semibold">{say('Class')}</th></tr
          ></thead
        >
        <tbody
          >{#each data.lines as line (line.id)}<tr class="border-t border-rule"
              ><td class="py-1 whitespace-nowrap">{clock.format(line.at)}</td><td>{line.whom}</td><td
                >{word(AUDIT_WORDS[line.what])}</td
              ><td>{line.class}</td></tr
            >{/each}</tbody
        >
      </Table>
    </section>
    <aside class="flex flex-col gap-6">
      {#if problem}<Remark>{problem}</Remark>{/if}
      <section><Staff teachers={data.teachers} /></section>
      <form class="flex flex-col gap-2" onsubmit={change}>
        <h2 class="text-[17px]">{say('Another passphrase')}</h2>
        <p class="text-soft">{say('You are signed out everywhere, and sign in with the new one.')}</p>
        <Named label={say('The old one')} bind:value={old} type="password" autocomplete="current-password" />
        <Named
          label={say('The new one, 10 letters or more')}
          bind:value={passphrase}
          type="password"
          autocomplete="new-password"
        />
        <Button type="submit" disabled={!old || passphrase.trim().length < 10}>{say('Change it')}</Button>
      </form>
      <form class="flex flex-col gap-2" onsubmit={another}>
        <h2 class="text-[17px]">{say('Another teacher')}</h2>
        <p class="text-soft">{say('With classes of their own; yours are not seen.')}</p>
        <Named label={say('Name')} bind:value={name} maxlength={24} />
        <Named label={say('Passphrase')} bind:value={words} type="password" autocomplete="new-password" />
        <Button type="submit" disabled={!name.trim() || words.trim().length < 10}>{say('Add a teacher')}</Button>
        {#if told}<p class="text-moss" role="status">{told}</p>{/if}
      </form>
    </aside>
  </main>
</div>
