<!-- An errand is made by example: what the model did becomes goals, and beside it stands which programs meet them. -->
<script lang="ts">
  import { onMount, untrack } from 'svelte';
  import { goto } from '$app/navigation';
  import { goalDef, GOALS, goalWords, type Goal } from '../../../../../core/errand/goals.ts';
  import { writeErrand } from '../../../../../core/errand/errand.ts';
  import { placeGoal } from '../../../../../core/errand/suggest.ts';
  import { hasWheels, lampsOf } from '../../../../../core/kit/kit.ts';
  import type { Project } from '../../../../../core/project.ts';
  import { stateAt } from '../../../../../core/trace/query.ts';
  import { endUs } from '../../../../../core/trace/trace.ts';
  import { retell, say, word } from '../../../../../core/words.ts';
  import GoalFields from '$lib/errand/GoalFields.svelte';
  import { measuredOf, sensorsOf } from '$lib/errand/sensors.ts';
  import { Maker } from '$lib/errand/maker.svelte.ts';
  import MakerMat from '$lib/errand/MakerMat.svelte';
  import { allProjects, type Named } from '$lib/shelf/all.ts';
  import { LEVEL_NAMES } from '$lib/shelf/errands.ts';
  import { download } from '$lib/shelf/files.ts';
  import Button from '$lib/ui/Button.svelte';
  import Choice from '$lib/ui/Choice.svelte';
  import Dots from '$lib/ui/Dots.svelte';
  import Field from '$lib/ui/Field.svelte';
  import LanguageChoice from '$lib/ui/LanguageChoice.svelte';
  import Lines from '$lib/ui/Lines.svelte';
  import Path from '$lib/ui/Path.svelte';
  import Remark from '$lib/ui/Remark.svelte';
  import Slide from '$lib/ui/Slide.svelte';
  import ThemeButton from '$lib/ui/ThemeButton.svelte';
  import Tick from '$lib/ui/Tick.svelte';
  import { toasts } from '$lib/ui/toasts.svelte.ts';
  import TopBar from '$lib/ui/TopBar.svelte';
  import { useWorkbench } from '$lib/workbench/workbench.svelte.ts';
  const w = useWorkbench();
  const maker = untrack(() => new Maker(w));
  const project = $derived(w.session.project);
  const making = $derived(maker.making);
  const trace = $derived(maker.traces[0]);
  const end = $derived(trace ? endUs(trace) : 0);
  let slid = $state<number>();
  const nowUs = $derived(Math.min(slid ?? end, end));
  const now = $derived(trace ? stateAt(trace, nowUs) : undefined);
  const names = $derived([say('the model'), ...making.wrong.map((p) => p.name)]);
  let shelf = $state.raw<Named[]>([]);
  let problem = $state('');
  onMount(() => {
    void maker.load();
    void allProjects().then((list) => (shelf = list));
    return () => maker.close();
  });
  const proof = $derived(maker.proof);
  /** without what `errand check` puts in brackets for a file */
  const bare = (says: string): string => says.replace(/ \[[^\]]*\]$/, '');
  const others = $derived(shelf.filter((p) => p.device === project.kit.device && p.id !== w.session.id));
  async function addWrong(id: string) {
    const answer = await fetch(`/api/projects/${id}`).catch(() => undefined);
    if (!answer?.ok) return;
    const { project: p } = (await answer.json()) as { project: Project };
    if (p.text === undefined) maker.addWrong({ shows: '', program: p.program, name: p.name });
    else problem = say('{name} is a text: turn it into blocks first.', { name: p.name });
  }
  /** A goal of a kind, with what stands in its fields at first. */
  function fresh(kind: string): Goal | undefined {
    const servo = project.kit.parts.find((p) => p.type === 'servo' || p.type === 'spin')?.socket;
    const [sensor] = sensorsOf(project.kit);
    const measured = measuredOf(project.kit)[0]?.key;
    const there = { hoop: making.mat.hoops[0]?.name, lamp: lampsOf(project.kit)[0], servo, sensor, channel: measured };
    const fields = Object.entries(goalDef(kind)!.fields).map(([key, f]) => [
      key,
      'first' in f ? f.first : there[f.type]
    ]);
    return fields.every(([, v]) => v !== undefined) ? ({ kind, ...Object.fromEntries(fields) } as Goal) : undefined;
  }
  const offered = $derived(GOALS.flatMap((g) => (fresh(g.kind) ? [g] : [])));
  const meets = $derived(maker.verdicts[0]?.met ?? false);
  const useless = $derived(making.wrong.flatMap((p, i) => (maker.verdicts[i + 1]?.met ? [p.name] : [])));
  const why = $derived(
    !making.rows.length
      ? say('It has no goal yet: take up something that the model did.')
      : !trace
        ? ''
        : !meets
          ? say('The model does not meet all goals itself.')
          : useless.length
            ? say('{name} meets all goals: it is not wrong. Take it out, or ask for more.', { name: useless[0] })
            : ''
  );
  async function ship() {
    const made = await maker.ship();
    problem = made.ok ? '' : made.problem;
    if (!made.ok) return;
    toasts.tell(say('"{name}" is among the errands now.', { name: making.name }));
    await goto('/');
  }
  function file() {
    const made = maker.errand();
    problem = made.ok ? '' : made.problem;
    if (made.ok) download(`${made.errand.id}.mossbell-errand.json`, writeErrand(made.errand));
  }
  const SIGNS = { met: '✓', holds: '✓', open: '·', missed: '✗' } as const;
  const COLOURS = { met: 'text-moss', holds: 'text-moss', open: 'text-soft', missed: 'text-clay' } as const;
</script>

<svelte:head><title>{say('Errand · {name} · Moss Bell', { name: project.name })}</title></svelte:head>
<!-- a thing with what its maker says of it -->
{#snippet said(
  name: string,
  text: string,
  { label, hint = '' }: { label: string; hint?: string },
  put: (text: string) => void,
  takeOut: string,
  drop: () => void
)}
  <div class="flex items-center gap-2">
    {#if name}<b class="w-2/5 shrink-0 truncate font-semibold" title={name}>{name}</b>{/if}
    <Field
      class="min-w-0 flex-1"
      placeholder={hint}
      aria-label={label}
      value={text}
      maxlength={name ? 400 : 200}
      oninput={(e) => put(e.currentTarget.value)}
    />
    <Button look="quiet" aria-label={takeOut} onclick={drop}>×</Button>
  </div>
{/snippet}

<div class="flex h-full flex-col">
  <TopBar>
    {#snippet name()}<Path
        steps={[{ name: project.name, href: `/project/${w.session.id}` }, { name: say('Make an errand') }]}
      />{/snippet}
    <span class="flex-1"></span>
    <Button look="ghost" disabled={!!why} onclick={file}>{say('Save as a file')}</Button>
    <Button look="go" disabled={!!why} onclick={ship}>{say('Put it on the shelf')}</Button>
    <LanguageChoice />
    <ThemeButton />
  </TopBar>
  {#if problem}<Remark look="bar">{problem}</Remark>{/if}
  <main
    class="grid min-h-0 flex-1 grid-cols-[minmax(0,46%)_minmax(0,1fr)] max-[900px]:grid-cols-1 max-[900px]:overflow-auto"
  >
    <section
      class="flex min-h-0 flex-col gap-2 overflow-auto border-r border-rule bg-linen p-3"
      aria-label={say('What the model did')}
    >
      {#if hasWheels(project.kit)}<div class="min-h-[180px] shrink-0"><MakerMat {maker} {project} {nowUs} /></div>{/if}
      <div class="flex items-center gap-2">
        {#if project.kit.display}<svg class="shrink-0" width="70" height="48" viewBox="-35 -24 70 48" aria-hidden="true"
            ><Dots display={project.kit.display} picture={now?.picture ?? ''} wide={70} high={48} /></svg
          >{/if}
        <Slide
          class="flex-1"
          aria-label={say('The moment')}
          min={0}
          max={Math.max(1, end)}
          step={10000}
          value={nowUs}
          oninput={(e) => (slid = Number(e.currentTarget.value))}
        />
        <span class="w-16 shrink-0 text-right font-mono" data-testid="moment">{(nowUs / 1e6).toFixed(2)} s</span>
        {#if trace && hasWheels(project.kit)}<Button
            size="sm"
            onclick={() => maker.take(placeGoal(trace, making.mat, nowUs))}>{say('This place')}</Button
          >{/if}
      </div>
      <h2 class="text-[16px]">{say('What the model did')}</h2>
      {#if !trace}<p class="text-soft">{say('Making the run ...')}</p>{/if}
      <ul class="flex flex-col gap-0.5" data-testid="suggestions">
        {#each maker.suggestions as s, i (i)}
          <li class="flex items-center gap-2">
            <Button
              size="sm"
              class="shrink-0"
              aria-label={say('Make it a goal: {goal}', { goal: s.says || goalWords(s.goal) })}
              onclick={() => maker.take(s)}>+</Button
            >
            <Button
              look="bare"
              class="min-w-0 flex-1 truncate"
              title={goalWords(s.goal)}
              onclick={() => s.atUs !== undefined && (slid = s.atUs)}
              >{s.says || goalWords(s.goal)}{#if s.atUs !== undefined}<span class="ml-2 text-soft"
                  >{(s.atUs / 1e6).toFixed(2)} s</span
                >{/if}</Button
            >
          </li>
        {/each}
      </ul>
    </section>
    <section class="flex min-h-0 flex-col gap-3 overflow-auto p-4" aria-label={say('The errand')}>
      <div class="grid grid-cols-[1fr_auto] gap-2">
        <label class="flex flex-col"
          ><span class="text-soft">{say('Name')}</span><Field
            class="w-full!"
            value={making.name}
            maxlength={80}
            oninput={(e) => maker.change({ name: e.currentTarget.value })}
          /></label
        >
        <label class="flex flex-col"
          ><span class="text-soft">{say('How hard it is')}</span><Choice
            value={String(making.level)}
            onchange={(e) => maker.change({ level: Number(e.currentTarget.value) as 1 | 2 | 3 })}
            >{#each [1, 2, 3] as const as level (level)}<option value={String(level)}>{word(LEVEL_NAMES[level])}</option
              >{/each}</Choice
          ></label
        >
      </div>
      <label class="flex flex-col"
        ><span class="text-soft">{say('Story: what is to be done, in a sentence')}</span><Field
          class="w-full!"
          value={making.story}
          maxlength={400}
          oninput={(e) => maker.change({ story: e.currentTarget.value })}
        /></label
      >
      <h2 class="text-[16px]">{say('Goals')}</h2>
      {#if making.rows.length}
        <ol class="flex flex-col gap-2" data-testid="goals">
          {#each making.rows as row, i (i)}
            <li class="rounded-lg border border-rule bg-card px-3 py-2" data-goal={row.goal.kind}>
              <div class="flex items-start gap-2">
                <b class="min-w-0 flex-1"
                  >{i + 1}. {goalWords(row.how === 'never' ? { kind: 'never', goal: row.goal } : row.goal)}</b
                >
                <Choice
                  size="sm"
                  aria-label={say('How it counts')}
                  value={row.how}
                  onchange={(e) => maker.row(i, { how: e.currentTarget.value as typeof row.how })}
                  ><option value="by itself">{say('by itself')}</option><option value="in order"
                    >{say('in this order')}</option
                  ><option value="never">{say('never')}</option></Choice
                >
                <Button look="quiet" aria-label={say('Take this goal out')} onclick={() => maker.drop(i)}>×</Button>
              </div>
              <div class="mt-1 flex flex-wrap items-center gap-x-4 gap-y-1 text-[13.5px]">
                <GoalFields goal={row.goal} kit={project.kit} mat={making.mat} put={(goal) => maker.row(i, { goal })} />
              </div>
              <ul class="mt-1 flex flex-col text-[13px]">
                {#each maker.verdicts as verdict, p (p)}
                  {@const result = maker.resultOf(verdict, i)}
                  {#if result}<li data-of={p} data-state={result.state}>
                      <span class={COLOURS[result.state]} aria-hidden="true">{SIGNS[result.state]}</span>
                      <span class="sr-only"
                        >{result.state === 'met' || result.state === 'holds' ? say('met') : say('missed')}</span
                      >
                      {names[p]}{result.says ? `: ${retell(result.says)}` : ''}
                    </li>{/if}
                {/each}
              </ul>
            </li>
          {/each}
        </ol>
      {/if}
      <div class="flex flex-wrap items-center gap-2">
        <Choice
          aria-label={say('Another goal')}
          value=""
          onchange={(e) => {
            const goal = fresh(e.currentTarget.value);
            if (goal) maker.take({ goal });
            e.currentTarget.value = '';
          }}
          ><option value="">{say('another goal ...')}</option>{#each offered as g (g.kind)}<option value={g.kind}
              >{word(g.label)}</option
            >{/each}</Choice
        >
        {#if why}<span class="text-clay" role="status" data-testid="why">{why}</span>{:else if meets}<span
            class="text-moss"
            role="status">{say('The model meets all goals.')}</span
          >{/if}
      </div>
      <h2 class="text-[16px]">{say('Wrong programs')}</h2>
      <p class="text-soft">{say('Which mistakes are to be caught? Each of these should miss a goal.')}</p>
      {#each making.wrong as wrong, i (i)}
        {@render said(
          wrong.name,
          wrong.shows,
          { hint: say('what its maker believed'), label: say('What {name} shows', { name: wrong.name }) },
          (shows) => maker.change({ wrong: making.wrong.map((x, k) => (k === i ? { ...x, shows } : x)) }),
          say('Take {name} out', { name: wrong.name }),
          () => maker.dropWrong(i)
        )}
      {/each}
      {#if maker.canAddWrong}<Choice
          class="self-start"
          aria-label={say('A wrong program')}
          value=""
          onchange={(e) => {
            void addWrong(e.currentTarget.value);
            e.currentTarget.value = '';
          }}
          ><option value="">{say('one from the shelf ...')}</option>{#each others as p (p.id)}<option value={p.id}
              >{p.name}</option
            >{/each}</Choice
        >{/if}
      <h2 class="text-[16px]">{say('Situations')}</h2>
      <p class="text-soft">
        {say('A try runs in the yard as it is, and in each of these: the bell waits for all.')}
      </p>
      {#each making.situations as one, i (i)}
        {@render said(
          '',
          one.says,
          { label: say('What is otherwise in situation {n}', { n: i + 2 }) },
          (says) => maker.change({ situations: making.situations.map((x, k) => (k === i ? { ...x, says } : x)) }),
          say('Take this situation out'),
          () => maker.change({ situations: making.situations.filter((_, k) => k !== i) })
        )}
      {/each}
      {#each proof?.proposals ?? [] as { catches, ...one }, i (i)}
        <div class="flex items-center gap-2">
          <Button
            size="sm"
            class="shrink-0"
            aria-label={say('Add the situation: {says}', { says: one.says })}
            onclick={() => maker.change({ situations: [...making.situations, one] })}>+</Button
          ><span
            >{one.says}<span class="ml-2 text-soft"
              >{say(
                '{n, plural, one {one of those below misses a goal there} other {# of those below miss a goal there}}',
                {
                  n: catches
                }
              )}</span
            ></span
          >
        </div>
      {/each}
      <h2 class="text-[16px]">{say('What else rings the bell')}</h2>
      <div class="flex flex-col gap-1" data-testid="proof">
        {#if !making.rows.length || !meets}<p class="text-soft">
            {say('Once the model meets its goals, each small change of it is tried: it should miss one.')}
          </p>
        {:else if proof?.problems?.length}{#each proof.problems as says, i (i)}<p class="text-clay">{says}</p>{/each}
        {:else if !maker.holes}<p class="text-soft" role="status">
            {say('Small changes of the model are being tried ...')}
          </p>
        {:else}
          {@const { changed, missed, listed, open } = maker.holes}
          <p role="status" class={open.length ? '' : 'text-moss'}>
            {say(
              '{missed} of {changed} small changes that do otherwise miss a goal; {listed, plural, one {# is} other {# are}} right too. {open, plural, =0 {Nothing else rings the bell.} one {One other program rings the bell:} other {# other programs ring the bell:}}',
              { missed, changed, listed, open: open.length }
            )}
          </p>
          <ul class="flex flex-col gap-1">
            {#each open as { says, change }, i (i)}
              <li class="flex items-start gap-2">
                <span class="min-w-0 flex-1">{bare(says)}</span>
                {#if change}<Button
                    size="sm"
                    class="shrink-0"
                    aria-label={say('It is right too: {says}', { says })}
                    onclick={() => maker.change({ alsoRight: [...making.alsoRight, { says, why: '', change }] })}
                    >{say('It is right too')}</Button
                  >{/if}
              </li>
            {/each}
          </ul>
        {/if}
        {#each making.alsoRight as one, i (i)}
          {@render said(
            bare(one.says),
            one.why,
            { hint: say('why it is right too'), label: say('Why {says} is right too', { says: one.says }) },
            (why) => maker.change({ alsoRight: making.alsoRight.map((x, k) => (k === i ? { ...x, why } : x)) }),
            say('{says} is not right', { says: one.says }),
            () => maker.change({ alsoRight: making.alsoRight.filter((_, k) => k !== i) })
          )}
        {/each}
      </div>
      <h2 class="text-[16px]">{say('For the pupil')}</h2>
      <label class="flex flex-col"
        ><span class="text-soft">{say('Hints, one on each line; they are opened one at a time')}</span><Lines
          class="h-20"
          value={making.hints.join('\n')}
          oninput={(e) => maker.change({ hints: e.currentTarget.value.split('\n').slice(0, 10) })}
        /></label
      >
      <div class="grid grid-cols-2 gap-2">
        <label class="flex flex-col"
          ><span class="text-soft">{say('Begins with')}</span><Choice
            value={String(making.given)}
            onchange={(e) => {
              const v = e.currentTarget.value;
              maker.change({ given: v === 'nothing' || v === 'model' ? v : Number(v) });
            }}
            ><option value="nothing">{say('the starters alone')}</option><option value="model"
              >{say('the model')}</option
            >{#each making.wrong as p, i (i)}<option value={String(i)}>{p.name}</option>{/each}</Choice
          ></label
        >
        <label class="flex flex-col"
          ><span class="text-soft">{say('What may be changed')}</span><Choice
            value={making.may}
            onchange={(e) => maker.change({ may: e.currentTarget.value as typeof making.may })}
            ><option value="all">{say('everything')}</option><option value="numbers">{say('numbers alone')}</option
            ></Choice
          ></label
        >
      </div>
      <label class="flex items-center gap-2"
        ><Tick checked={making.offersModel} onchange={(e) => maker.change({ offersModel: e.currentTarget.checked })} />
        {say('the tray has only the kinds of blocks that the model uses')}</label
      >
      <label class="flex items-center gap-2"
        ><Tick
          checked={making.predictFirst}
          onchange={(e) => maker.change({ predictFirst: e.currentTarget.checked })}
        />
        {say('where it will stop is said before each try')}</label
      >
    </section>
  </main>
</div>
