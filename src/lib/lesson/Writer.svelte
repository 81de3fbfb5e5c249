<!-- A lesson is written: its text, with the page that it makes beside it. -->
<script lang="ts">
  import { beforeNavigate, goto } from '$app/navigation';
  import { EditorState } from '@codemirror/state';
  import { EditorView } from '@codemirror/view';
  import { forceLinting } from '@codemirror/lint';
  import { onMount, untrack } from 'svelte';
  import { isPiece, pieceDef, PIECES } from '../../../core/lesson/pieces.ts';
  import { pageOf, type Known } from '../../../core/lesson/page.ts';
  import { say, word } from '../../../core/words.ts';
  import { copyLesson, saveLessonFile } from './copy.ts';
  import { Draft } from './draft.svelte.ts';
  import { untitled, type Fetched } from './fetched.ts';
  import Parts from './Parts.svelte';
  import Pick from './Pick.svelte';
  import { LessonRoom, provideRoom } from './room.svelte.ts';
  import { extensions } from './setup.ts';
  import { pages } from '../handbook/search.ts';
  import Button from '../ui/Button.svelte';
  import Choice from '../ui/Choice.svelte';
  import LanguageChoice from '../ui/LanguageChoice.svelte';
  import Path from '../ui/Path.svelte';
  import Remark from '../ui/Remark.svelte';
  import ThemeButton from '../ui/ThemeButton.svelte';
  import { toasts } from '../ui/toasts.svelte.ts';
  import TopBar from '../ui/TopBar.svelte';
  let { data }: { data: Fetched } = $props();
  const draft = untrack(() => new Draft(data));
  const room = provideRoom(untrack(() => new LessonRoom(data.lesson)));
  const paths = new Set(['/handbook', ...pages().map((p) => p.href)]);
  const known = $derived<Known>({
    programs: new Set(Object.keys(draft.lesson.programs)),
    errands: new Set((room.errands ?? []).map((e) => e.id)),
    page: (path) => paths.has(path)
  });
  const page = $derived(pageOf(draft.text, room.errands ? known : { ...known, errands: new Set() }));
  const problems = $derived(room.errands ? page.problems : []);
  const lineOf = (at: number): number => draft.text.slice(0, at).split('\n').length;
  let host: HTMLDivElement;
  let view: EditorView | undefined;
  let pick = $state<Pick>();
  let chosen = $state('');
  $effect(() => {
    room.show(draft.lesson);
  });
  // what it names may have come meanwhile
  $effect(() => {
    void known;
    if (view) forceLinting(view);
  });
  onMount(() => {
    void (async () => {
      if (data.own) await draft.recover();
      await room.look();
      view = new EditorView({
        parent: host,
        state: EditorState.create({
          doc: draft.text,
          extensions: [
            extensions((text) => pageOf(text, known).problems),
            EditorState.readOnly.of(!data.own),
            EditorView.updateListener.of((u) => {
              if (u.docChanged) draft.write(u.state.doc.toString());
            })
          ]
        })
      });
    })();
    return () => {
      view?.destroy();
      room.close();
    };
  });
  beforeNavigate(() => void draft.save());
  /** What is put in stands by itself, on lines of its own. */
  function insert(text: string) {
    if (!view) return;
    const { state } = view;
    const line = state.doc.lineAt(state.selection.main.head);
    const before = line.text.trim() ? '\n\n' : '';
    const at = line.text.trim() ? line.to : line.from;
    const made = `${before}${text}\n`;
    view.dispatch({
      changes: { from: at, insert: made },
      selection: { anchor: at + made.length },
      scrollIntoView: true
    });
    view.focus();
  }
  async function put(kind: string) {
    chosen = '';
    if (kind === 'step') return insert(`## ${say('The next step')}\n`);
    if (!isPiece(kind)) return;
    const def = pieceDef(kind);
    const names = def.names?.least ? await pick?.ask(kind) : [];
    if (!names) return;
    const first = def.first ? `${word(def.first)}\n` : '';
    insert(`\`\`\`${[kind, ...names].join(' ')}\n${first}\`\`\`\n`);
  }
  function takeOut(name: string) {
    const project = draft.takeOut(name);
    toasts.tell(say('"{name}" was taken out of the lesson.', { name: project.name }), {
      label: say('Take back'),
      do: () => draft.renew(name, project)
    });
  }
  function goTo(at: number) {
    view?.dispatch({ selection: { anchor: at }, scrollIntoView: true });
    view?.focus();
  }
  let trouble = $state('');
  async function copy() {
    const made = await copyLesson(data.lesson);
    if (made.ok) await goto(`/lesson/${made.id}/write`, { invalidateAll: true });
    else trouble = made.problem;
  }
  /** What was written here, as a lesson beside the other. */
  async function keep() {
    const made = await copyLesson(draft.lesson);
    if (!made.ok) return void (trouble = made.problem);
    await draft.forget();
    await goto(`/lesson/${made.id}/write`, { invalidateAll: true });
  }
  async function anew() {
    await draft.forget();
    location.reload();
  }
  async function file() {
    await draft.save();
    trouble = (await saveLessonFile(data.lesson.id)) ?? '';
  }
</script>

<svelte:head><title>{say('{title} · written', { title: page.title || untitled() })}</title></svelte:head>
<div class="flex h-full flex-col">
  <TopBar>
    {#snippet name()}<Path
        steps={[
          { name: say('Shelf'), href: '/' },
          { name: page.title || untitled(), href: `/lesson/${data.lesson.id}` },
          { name: say('Write') }
        ]}
      />{/snippet}
    <span class="text-[#c9d2c4]" data-testid="saved"
      >{!data.own
        ? ''
        : draft.state === 'saved'
          ? say('saved')
          : draft.trouble
            ? say('not saved yet')
            : say('saving ...')}</span
    >
    <span class="flex-1"></span>
    <Button look="ghost" href="/lesson/{data.lesson.id}">{say('Read')}</Button>
    <Button look="ghost" href="/lesson/{data.lesson.id}/print?teacher">{say('Print')}</Button>
    <Button look="ghost" onclick={file}>{say('Save as a file')}</Button>
    <LanguageChoice />
    <ThemeButton />
  </TopBar>
  {#if !data.own}<Remark look="bar" tone="calm"
      >{data.ships
        ? say('This lesson came with Moss Bell and stays as it is. A copy of it is yours to change.')
        : say('This lesson is somebody else’s and stays as it is. A copy of it is yours to change.')}
      <Button size="sm" look="go" onclick={copy}>{say('Make a copy')}</Button></Remark
    >{/if}
  {#if trouble || draft.trouble || room.trouble}<Remark look="bar"
      >{trouble || draft.trouble || room.trouble}
      {#if draft.stale}<Button size="sm" look="go" onclick={keep}>{say('Keep mine as a copy')}</Button>
        <Button size="sm" onclick={anew}>{say('Throw mine away')}</Button>{/if}</Remark
    >{/if}
  <main class="grid min-h-0 flex-1 grid-cols-2 max-[900px]:grid-cols-1 max-[900px]:grid-rows-2">
    <section class="flex min-h-0 min-w-0 flex-col border-r border-rule" aria-label={say('Text')}>
      <div class="flex flex-wrap items-center gap-2 border-b border-rule bg-linen px-3 py-1.5">
        <Choice
          size="sm"
          aria-label={say('Put in')}
          value={chosen}
          disabled={!data.own}
          onchange={(e) => void put(e.currentTarget.value)}
        >
          <option value="">{say('Put in ...')}</option>
          <option value="step">{say('a step')}</option>
          {#each Object.entries(PIECES) as [kind, { label }] (kind)}<option value={kind}>{word(label)}</option>{/each}
        </Choice>
        <span class="text-[13px] text-soft">{say('Markdown; ## begins a step, # is the name')}</span>
      </div>
      <div bind:this={host} class="min-h-0 flex-1 overflow-hidden" data-testid="text"></div>
      {#if problems.length}
        <ul
          class="max-h-[22%] overflow-auto border-t border-rule bg-[var(--claywash)] px-3 py-1.5 text-[13.5px]"
          role="status"
          data-testid="problems"
        >
          {#each problems as p, i (i)}<li>
              <Button look="quiet" class="-ml-2 underline" onclick={() => goTo(p.from)}
                >{say('line {n}', { n: lineOf(p.from) })}</Button
              >
              {p.says}
            </li>{/each}
        </ul>
      {/if}
      {#if Object.keys(draft.lesson.programs).length}
        <ul
          class="flex max-h-[18%] flex-wrap gap-1.5 overflow-auto border-t border-rule bg-linen px-3 py-1.5 text-[13px]"
          aria-label={say('Programs of this lesson')}
        >
          {#each Object.entries(draft.lesson.programs) as [name, project] (name)}
            <li class="flex items-center rounded-md border border-rule bg-card px-2">
              <span title={name}>{project.name}</span>
              {#if data.own}<Button
                  look="quiet"
                  aria-label={say('Take {name} out of the lesson', { name: project.name })}
                  title={say('Take it out')}
                  onclick={() => takeOut(name)}>×</Button
                >{/if}
            </li>
          {/each}
        </ul>
      {/if}
    </section>
    <section class="min-h-0 min-w-0 overflow-auto px-6 py-4" aria-label={say('Page')} data-testid="page">
      <div class="mx-auto flex max-w-[760px] flex-col gap-3">
        <h1 class="font-display text-[26px]">{page.title || untitled()}</h1>
        {#each page.steps as step, i (i)}
          {#if step.title}<h2 class="mt-3 border-t border-rule pt-2 font-display text-[20px]">{step.title}</h2>{/if}
          <Parts parts={step.parts} />
        {/each}
      </div>
    </section>
  </main>
</div>
<Pick bind:this={pick} {draft} errands={room.errands ?? []} />
