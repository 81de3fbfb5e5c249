<!-- Variables, lists, routines and messages of the program: renamed everywhere, taken out, and where each is used. -->
<script lang="ts">
  import Remark from '../../ui/Remark.svelte';
  import Field from '../../ui/Field.svelte';
  import Choice from '../../ui/Choice.svelte';
  import Button from '../../ui/Button.svelte';
  import { later, say, word } from '../../../../core/words.ts';
  import {
    addInput,
    messagesOf,
    removeInput,
    removeRoutine,
    removeVariable,
    rename,
    renameMessage,
    usesOf
  } from '../../../../core/language/edit.ts';
  import { INPUT_TYPES, type InputType, type Program } from '../../../../core/language/program.ts';
  import { useWorkbench } from '../workbench.svelte.ts';
  import BlockLink from './BlockLink.svelte';
  import Panel from './Panel.svelte';
  let { id, close }: { id: string; close: () => void } = $props();
  const w = useWorkbench();
  const program = $derived(w.session.project.program);
  const all = $derived([
    ...program.variables.map((v) => ({ id: v.id, name: v.name, what: v.list ? later('list') : later('variable') })),
    ...program.routines.map((r) => ({ id: r.id, name: r.name, what: later('routine') })),
    ...messagesOf(program).map((name) => ({ id: name, name, what: later('message') }))
  ]);
  let open = $state('');
  $effect(() => {
    open =
      all.find((a) => a.id === id)?.id ?? program.routines.find((r) => r.inputs?.some((i) => i.id === id))?.id ?? '';
  });
  let asking = $state('');
  let newName = $state('');
  let newType = $state<InputType>('number');
  const edit = (label: string, next: Program) => w.session.program(label, next);
  function changeName(one: (typeof all)[number], name: string) {
    const text = name.trim().slice(0, 60);
    if (!text || text === one.name) return;
    edit(
      say('rename {name}', { name: one.name }),
      one.what === 'message' ? renameMessage(program, one.name, text) : rename(program, one.id, text)
    );
    if (one.what === 'message') open = text;
    w.tell(say('{name} is called {text} now', { name: one.name, text }));
  }
  function remove(one: (typeof all)[number]) {
    if (usesOf(program, one.id).length && asking !== one.id) {
      asking = one.id;
      return;
    }
    edit(
      say('take out {name}', { name: one.name }),
      one.what === 'routine' ? removeRoutine(program, one.id) : removeVariable(program, one.id)
    );
    asking = '';
  }
</script>

<Panel title={say('Names of the program')} {close}>
  {#each all as one (one.what + one.id)}
    {@const uses = usesOf(program, one.id)}
    <details open={open === one.id} class="rounded-[10px] border border-rule bg-paper px-2.5 py-1.5">
      <summary class="cursor-pointer">
        <b>{one.name}</b>
        <span class="text-soft"
          >{word(one.what)} · {say('used {n, plural, one {once} other {# times}}', { n: uses.length })}</span
        >
      </summary>
      <div class="mt-2 flex flex-col gap-2">
        <label class="flex items-center gap-2"
          >{say('Name')}
          <Field
            class="min-w-0 flex-1"
            value={one.name}
            maxlength={60}
            onchange={(e) => changeName(one, e.currentTarget.value)}
          /></label
        >
        {#if one.what === 'routine'}
          {@const routine = program.routines.find((r) => r.id === one.id)}
          {#each routine?.inputs ?? [] as input (input.id)}
            <div class="flex items-center gap-2">
              <Field
                class="min-w-0 flex-1"
                aria-label={say('Name of an input')}
                value={input.name}
                maxlength={60}
                onchange={(e) =>
                  e.currentTarget.value.trim() &&
                  edit(say('rename an input'), rename(program, input.id, e.currentTarget.value.trim()))}
              /><span class="text-soft">{word(input.type)}</span>
              <Button
                look="quiet"
                onclick={() => edit(say('take an input out'), removeInput(program, one.id, input.id))}
                >{say('Take out')}</Button
              >
            </div>
          {/each}
          <form
            class="flex items-center gap-2"
            onsubmit={(e) => {
              e.preventDefault();
              if (newName.trim()) edit(say('add an input'), addInput(program, one.id, newName.trim(), newType).program);
              newName = '';
            }}
          >
            <Field
              class="min-w-0 flex-1"
              placeholder={say('It needs ...')}
              aria-label={say('Name of a new input')}
              bind:value={newName}
              maxlength={60}
            />
            <Choice aria-label={say('What the input is')} bind:value={newType}
              >{#each INPUT_TYPES as type (type)}<option value={type}>{word(type)}</option>{/each}</Choice
            >
            <Button type="submit" look="quiet">{say('Add')}</Button>
          </form>
        {/if}
        {#if uses.length}<div class="flex flex-wrap gap-1">
            {#each uses as use (use)}<BlockLink id={use} />{/each}
          </div>{/if}
        {#if one.what !== 'message'}
          {#if asking === one.id}
            <Remark look="line">
              {say(
                '{n, plural, one {A block uses} other {# blocks use}} it, listed above. They stay, and ask for another {what}.',
                { n: uses.length, what: word(one.what) }
              )}
            </Remark>
          {/if}
          <Button size="sm" class="self-start text-[13px]" onclick={() => remove(one)}
            >{asking === one.id ? say('Take it out all the same') : say('Take it out')}</Button
          >
        {/if}
      </div>
    </details>
  {:else}
    <p class="text-soft">
      {say('No names yet. Drag "Set a variable" from Remember into the program and type a new name into its list.')}
    </p>
  {/each}
</Panel>
