<!-- Variables, lists, routines and messages of the program: renamed everywhere, taken out, and where each is used. -->
<script lang="ts">
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
    ...program.variables.map((v) => ({ id: v.id, name: v.name, what: v.list ? 'list' : 'variable' })),
    ...program.routines.map((r) => ({ id: r.id, name: r.name, what: 'routine' })),
    ...messagesOf(program).map((name) => ({ id: name, name, what: 'message' }))
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
      `rename ${one.name}`,
      one.what === 'message' ? renameMessage(program, one.name, text) : rename(program, one.id, text)
    );
    if (one.what === 'message') open = text;
    w.tell(`${one.name} is called ${text} now`);
  }
  function remove(one: (typeof all)[number]) {
    if (usesOf(program, one.id).length && asking !== one.id) {
      asking = one.id;
      return;
    }
    edit(
      `take out ${one.name}`,
      one.what === 'routine' ? removeRoutine(program, one.id) : removeVariable(program, one.id)
    );
    asking = '';
  }
</script>

<Panel title="Names of the program" {close}>
  {#each all as one (one.what + one.id)}
    {@const uses = usesOf(program, one.id)}
    <details open={open === one.id} class="rounded-[10px] border border-rule bg-paper px-2.5 py-1.5">
      <summary class="cursor-pointer">
        <b>{one.name}</b>
        <span class="text-soft">{one.what} · {uses.length === 1 ? 'used once' : `used ${uses.length} times`}</span>
      </summary>
      <div class="mt-2 flex flex-col gap-2">
        <label class="flex items-center gap-2"
          >Name <input
            class="field min-w-0 flex-1"
            value={one.name}
            maxlength="60"
            onchange={(e) => changeName(one, e.currentTarget.value)}
          /></label
        >
        {#if one.what === 'routine'}
          {@const routine = program.routines.find((r) => r.id === one.id)}
          {#each routine?.inputs ?? [] as input (input.id)}
            <div class="flex items-center gap-2">
              <input
                class="field min-w-0 flex-1"
                aria-label="Name of an input"
                value={input.name}
                maxlength="60"
                onchange={(e) =>
                  e.currentTarget.value.trim() &&
                  edit('rename an input', rename(program, input.id, e.currentTarget.value.trim()))}
              /><span class="text-soft">{input.type}</span>
              <button class="chip" onclick={() => edit('take an input out', removeInput(program, one.id, input.id))}
                >Take out</button
              >
            </div>
          {/each}
          <form
            class="flex items-center gap-2"
            onsubmit={(e) => {
              e.preventDefault();
              if (newName.trim()) edit('add an input', addInput(program, one.id, newName.trim(), newType).program);
              newName = '';
            }}
          >
            <input
              class="field min-w-0 flex-1"
              placeholder="It needs ..."
              aria-label="Name of a new input"
              bind:value={newName}
              maxlength="60"
            />
            <select class="field" aria-label="What the input is" bind:value={newType}
              >{#each INPUT_TYPES as type (type)}<option>{type}</option>{/each}</select
            >
            <button class="chip">Add</button>
          </form>
        {/if}
        {#if uses.length}<div class="flex flex-wrap gap-1">
            {#each uses as use (use)}<BlockLink id={use} />{/each}
          </div>{/if}
        {#if one.what !== 'message'}
          {#if asking === one.id}
            <p class="text-clay" role="alert">
              {uses.length === 1 ? 'A block uses' : `${uses.length} blocks use`} it, listed above. They stay, and ask for
              another {one.what}.
            </p>
          {/if}
          <button class="btn btn-plain self-start !px-2.5 !py-1 text-[13px]" onclick={() => remove(one)}
            >{asking === one.id ? 'Take it out all the same' : 'Take it out'}</button
          >
        {/if}
      </div>
    </details>
  {:else}
    <p class="text-soft">
      No names yet. Drag "Set a variable" from Remember into the program and type a new name into its list.
    </p>
  {/each}
</Panel>
