<!-- A lesson as a pupil reads it: step by step, and what was done is remembered. For a room: large, a step a screen, with a pointer. -->
<script lang="ts">
  import Check from '@lucide/svelte/icons/check';
  import { onMount, untrack } from 'svelte';
  import { say } from '../../../../core/words.ts';
  import { readable, untitled } from '$lib/lesson/fetched.ts';
  import Parts from '$lib/lesson/Parts.svelte';
  import { answered, LessonRoom, provideRoom } from '$lib/lesson/room.svelte.ts';
  import Button from '$lib/ui/Button.svelte';
  import LanguageChoice from '$lib/ui/LanguageChoice.svelte';
  import Path from '$lib/ui/Path.svelte';
  import Remark from '$lib/ui/Remark.svelte';
  import ThemeButton from '$lib/ui/ThemeButton.svelte';
  import { isTyping } from '$lib/ui/keys.svelte.ts';
  import TopBar from '$lib/ui/TopBar.svelte';
  let { data } = $props();
  const room = provideRoom(untrack(() => new LessonRoom(data.lesson, data.me.role === 'guest' ? '' : data.me.id)));
  const page = $derived(readable(data.lesson));
  const title = $derived(page.title || untitled());
  const at = $derived(Math.min(room.at, page.steps.length - 1));
  const step = $derived(page.steps[at]);
  const met = $derived(new Set((room.errands ?? []).filter((e) => e.met).map((e) => e.id)));
  const whole = $derived(answered(step, room.answers, met));
  const last = $derived(at === page.steps.length - 1);
  let shows = $state(false);
  let main = $state<HTMLElement>();
  let pointer = $state.raw<{ x: number; y: number }>();
  onMount(() => {
    void room.load();
    return () => room.close();
  });
  function go(to: number, through?: string) {
    if (to < 0 || to >= page.steps.length) return room.go(at, through);
    room.go(to, through);
    main?.scrollTo(0, 0);
    main?.focus({ preventScroll: true });
  }
  const next = () => go(at + 1, page.steps[at].title);
  function keys(e: KeyboardEvent) {
    if (e.key === 'Escape') shows = false;
    else if (!shows || isTyping(e.target) || (e.target as Element).closest('[role=application], [type=radio]')) return;
    else if (e.key === 'ArrowRight' || e.key === 'PageDown') next();
    else if (e.key === 'ArrowLeft' || e.key === 'PageUp') go(at - 1);
    else return;
    e.preventDefault();
  }
</script>

<svelte:head><title>{say('{title} · Lesson', { title })}</title></svelte:head>
<svelte:window
  onkeydown={keys}
  onpointermove={(e) => (pointer = { x: e.clientX, y: e.clientY })}
  onfocus={() => void room.look()}
/>

<div class="flex h-full flex-col">
  {#if !shows}<TopBar>
      {#snippet name()}<Path steps={[{ name: say('Shelf'), href: '/' }, { name: title }]} />{/snippet}
      <span class="flex-1"></span>
      <Button look="ghost" onclick={() => (shows = true)}>{say('For a room')}</Button>
      <Button look="ghost" href="/lesson/{data.lesson.id}/print">{say('Print')}</Button>
      <Button look="ghost" href="/lesson/{data.lesson.id}/write">{say('Write')}</Button>
      <LanguageChoice />
      <ThemeButton />
    </TopBar>{/if}
  <div class="flex min-h-0 flex-1">
    {#if !shows}
      <nav
        class="w-[250px] shrink-0 overflow-auto border-r border-rule bg-linen p-3 max-[900px]:w-[170px]"
        aria-label={say('Steps of the lesson')}
      >
        <ol class="flex flex-col gap-0.5">
          {#each page.steps as { title: name }, i (i)}
            <li>
              <Button
                look="bare"
                class="flex w-full items-center justify-start gap-2 px-2 py-1.5 pointer-coarse:min-h-10 hover:bg-card {i ===
                at
                  ? 'bg-card font-semibold'
                  : ''}"
                aria-current={i === at ? 'step' : undefined}
                onclick={() => go(i)}
              >
                <span
                  class="grid h-5 w-5 shrink-0 place-items-center rounded-full text-[12px] {room.done.includes(
                    page.steps[i].title
                  )
                    ? 'bg-moss text-white dark:text-[#12200c]'
                    : 'border border-rule text-soft'}"
                  >{#if room.done.includes(page.steps[i].title)}<Check size={13} /><span class="sr-only"
                      >{say('done')}</span
                    >{:else}{i + 1}{/if}</span
                >{name || say('What it is about')}</Button
              >
            </li>
          {/each}
        </ol>
      </nav>
    {/if}
    <main bind:this={main} tabindex="-1" class="min-w-0 flex-1 overflow-auto px-8 py-6 outline-none max-[900px]:px-4">
      <article
        class="mb-lesson mx-auto flex max-w-[880px] flex-col gap-4 {shows ? 'mb-shown max-w-[1200px]' : ''}"
        data-step={at}
      >
        {#if at === 0 && !shows}<h1 class="font-display text-[28px]">{title}</h1>{/if}
        {#if step.title}<h2 class="font-display text-[22px]">{step.title}</h2>{:else if shows}<h1
            class="font-display text-[28px]"
          >
            {title}
          </h1>{/if}
        {#if room.trouble}<Remark>{room.trouble}</Remark>{/if}
        {#key at}<Parts parts={step.parts} />{/key}
        <footer class="mt-2 flex flex-wrap items-center gap-3 border-t border-rule pt-3">
          {#if at > 0}<Button onclick={() => go(at - 1)}>{say('Back')}</Button>{/if}
          {#if !last}<Button look={whole ? 'go' : 'plain'} onclick={next}>{say('Next step')}</Button>
          {:else if room.done.includes(page.steps[at].title)}<b class="text-moss" role="status"
              >{say('The lesson is done.')}</b
            >{:else}<Button look={whole ? 'go' : 'plain'} onclick={next}>{say('The lesson is done')}</Button>{/if}
          <span class="text-soft"
            >{say('Step {n} of {of}', { n: at + 1, of: page.steps.length })}{whole
              ? ''
              : ` · ${say('something here is not answered yet')}`}</span
          >
          {#if shows}<span class="flex-1"></span><Button onclick={() => (shows = false)}
              >{say('Back to the lesson')} (Esc)</Button
            >{/if}
        </footer>
      </article>
    </main>
  </div>
</div>
{#if shows && pointer}<div
    class="pointer-events-none fixed z-[70] h-14 w-14 -translate-1/2 rounded-full border-[5px] border-brass bg-brass/15"
    style="left: {pointer.x}px; top: {pointer.y}px"
    aria-hidden="true"
    data-testid="pointer"
  ></div>{/if}
