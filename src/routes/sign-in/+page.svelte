<!-- Signing in: a pupil with what stands on the card (or its QR code, which opens this page with all of it), a teacher with a passphrase. -->
<script lang="ts">
  import { goto, invalidateAll } from '$app/navigation';
  import { page } from '$app/state';
  import { onMount } from 'svelte';
  import { say } from '../../../core/words.ts';
  import { ask } from '$lib/class/ask.ts';
  import Button from '$lib/ui/Button.svelte';
  import Named from '$lib/ui/Named.svelte';
  import LanguageChoice from '$lib/ui/LanguageChoice.svelte';
  import Path from '$lib/ui/Path.svelte';
  import Remark from '$lib/ui/Remark.svelte';
  import ThemeButton from '$lib/ui/ThemeButton.svelte';
  import TopBar from '$lib/ui/TopBar.svelte';
  let { data } = $props();
  let code = $state('');
  let nickname = $state('');
  let words = $state('');
  let teacher = $state('');
  let passphrase = $state('');
  let problem = $state('');
  let busy = $state(false);
  /** who comes from a page of the teacher's wants to sign in as one */
  const to = $derived(page.url.searchParams.get('to') ?? '');
  const safe = $derived(/^\/(?![/\\])/.test(to) ? to : undefined);
  let asTeacher = $state(false);
  const CODE = 'mossbell.class';
  onMount(() => {
    asTeacher = to.startsWith('/class') || !data.hasTeacher;
    code = page.url.searchParams.get('code') ?? localStorage.getItem(CODE) ?? '';
    // the card's QR code: what is secret stands behind the #, which no server is told
    const [name, secret] = decodeURIComponent(location.hash.slice(1)).split('/');
    if (!name || !secret) return;
    [nickname, words] = [name, secret.replaceAll('-', ' ')];
    history.replaceState(history.state, '', location.pathname + location.search);
    void signIn();
  });
  async function come(path: string, body: object, then: string) {
    busy = true;
    problem = '';
    const answer = await ask(path, 'POST', body);
    busy = false;
    if (!answer.ok) return void (problem = answer.problem);
    await invalidateAll();
    await goto(safe ?? then);
  }
  async function signIn() {
    localStorage.setItem(CODE, code.trim().toUpperCase());
    await come('/api/session', { code, nickname, words }, '/');
  }
  const teach = () =>
    data.hasTeacher
      ? come('/api/session', { teacher, passphrase }, '/class')
      : come('/api/teachers', { nickname: teacher, passphrase, words }, '/class');
  const send = (how: () => Promise<unknown>) => (e: SubmitEvent) => {
    e.preventDefault();
    void how();
  };
</script>

<svelte:head><title>{say('Sign in · Moss Bell')}</title></svelte:head>
<div class="flex h-full flex-col">
  <TopBar>
    {#snippet name()}<Path steps={[{ name: say('Shelf'), href: '/' }, { name: say('Sign in') }]} />{/snippet}
    <span class="flex-1"></span>
    <LanguageChoice />
    <ThemeButton />
  </TopBar>
  <main class="flex-1 overflow-auto px-6 py-10">
    <div class="mx-auto max-w-[440px]">
      {#if problem}<Remark class="mb-4">{problem}</Remark>{/if}
      {#if asTeacher}
        <h2 class="text-[22px]">{data.hasTeacher ? say('Sign in as a teacher') : say('The first teacher')}</h2>
        {#if !data.hasTeacher}<p class="mt-1 text-soft">
            {say(
              'Nobody teaches on this computer yet. Choose a name and a passphrase: several words that you remember and nobody guesses. What was made here before belongs to you then.'
            )}
          </p>{/if}
        {#if data.demo}<Remark tone="calm" role={null} class="mt-3" data-testid="demo-teacher"
            >{say('This is the demo: the teacher is called {name}, the passphrase is "{words}".', {
              name: data.demo.name,
              words: data.demo.passphrase
            })}</Remark
          >{/if}
        <form class="mt-4 flex flex-col gap-3.5" onsubmit={send(teach)}>
          <Named label={say('Name')} bind:value={teacher} maxlength={24} autocomplete="username" />
          <Named
            label={say('Passphrase')}
            bind:value={passphrase}
            type="password"
            maxlength={200}
            autocomplete={data.hasTeacher ? 'current-password' : 'new-password'}
          />
          {#if !data.hasTeacher && !data.isHere}<Named
              label={say('The words that the terminal of the school computer printed')}
              bind:value={words}
              maxlength={80}
              autocomplete="off"
              autocapitalize="none"
              spellcheck={false}
            />{/if}
          <Button look="go" type="submit" disabled={busy || !teacher.trim() || !passphrase}
            >{data.hasTeacher ? say('Sign in') : say('Begin to teach')}</Button
          >
        </form>
        {#if data.hasTeacher}<p class="mt-5 text-[13px] text-soft">
            {say('Forgotten? On the school computer, ./mossbell teacher NAME gives another passphrase.')}
          </p>
          <p class="mt-2">
            <Button look="quiet" class="underline" onclick={() => (asTeacher = false)}
              >{say('I have a card of a class')}</Button
            >
          </p>{/if}
      {:else}
        <h2 class="text-[22px]">{say('Sign in with your card')}</h2>
        <p class="mt-1 text-soft">{say('All of it stands on the card that the teacher gave you.')}</p>
        {#if data.demo?.pupil}<Remark tone="calm" role={null} class="mt-3" data-testid="demo-pupil"
            >{say(
              'This is the demo: come in as {name}, class code {code}, with the words "{words}".',
              data.demo.pupil
            )}</Remark
          >{/if}
        <form class="mt-4 flex flex-col gap-3.5" onsubmit={send(signIn)}>
          <Named
            label={say('Class code')}
            bind:value={code}
            maxlength={8}
            autocomplete="off"
            autocapitalize="characters"
            class="font-mono text-[18px] tracking-[0.15em] uppercase"
          />
          <Named label={say('Nickname')} bind:value={nickname} maxlength={24} autocomplete="off" />
          <Named
            label={say('The three words')}
            bind:value={words}
            maxlength={80}
            autocomplete="off"
            autocapitalize="none"
            spellcheck={false}
          />
          <Button look="go" type="submit" disabled={busy || !code.trim() || !nickname.trim() || !words.trim()}
            >{say('Sign in')}</Button
          >
        </form>
        <p class="mt-5 flex flex-wrap gap-x-2">
          <Button look="quiet" class="underline" onclick={() => (asTeacher = true)}>{say('I am a teacher')}</Button>
          <Button look="quiet" class="underline" href="/">{say('Go on without signing in')}</Button>
        </p>
      {/if}
      <p class="mt-6 text-[13px] text-soft">
        {say('A nickname and what is made here: nothing else is kept of anybody.')}
        <a class="underline" href="/kept">{say('What is kept')}</a>
      </p>
    </div>
  </main>
</div>
