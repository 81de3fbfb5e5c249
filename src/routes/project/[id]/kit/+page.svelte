<script lang="ts">
  import Redo from '@lucide/svelte/icons/redo-2';
  import Undo from '@lucide/svelte/icons/undo-2';
  import Table from 'flowbite-svelte/Table.svelte';
  import TableBody from 'flowbite-svelte/TableBody.svelte';
  import TableBodyCell from 'flowbite-svelte/TableBodyCell.svelte';
  import TableBodyRow from 'flowbite-svelte/TableBodyRow.svelte';
  import TableHead from 'flowbite-svelte/TableHead.svelte';
  import TableHeadCell from 'flowbite-svelte/TableHeadCell.svelte';
  import {
    changePart,
    checkWiring,
    movePart,
    partAt,
    socketsFor,
    SOCKETS,
    typeName,
    type Part
  } from '../../../../../core/kit/kit.ts';
  import { followPart } from '../../../../../core/language/edit.ts';
  import { circumference, turnsForAngle } from '../../../../../core/reckon/wheels.ts';
  import KitDrawing from '$lib/kits/KitDrawing.svelte';
  import SaveState from '$lib/project/SaveState.svelte';
  import Trouble from '$lib/project/Trouble.svelte';
  import ThemeButton from '$lib/ui/ThemeButton.svelte';
  import TopBar from '$lib/ui/TopBar.svelte';
  import { useWorkbench } from '$lib/workbench/workbench.svelte.ts';

  const bench = useWorkbench();
  const session = $derived(bench.session);
  const kit = $derived(session.project.kit);
  const sockets = [...SOCKETS.motor, ...SOCKETS.servo, ...SOCKETS.sensor];
  const wiring = $derived(checkWiring(kit));
  const remarks = $derived(bench.remarks.filter((r) => r.rule.startsWith('socket') || r.rule === 'mirrored-motor'));
  const flagged = $derived(
    new Set([
      ...wiring.map((x) => x.socket),
      ...remarks.flatMap((r) => /\b(?:in|to) ([P-RU-W]|[1-4]0)\b/.exec(r.says)?.[1] ?? [])
    ])
  );
  let diameter: HTMLInputElement;
  let track: HTMLInputElement;

  /** The part moves, and the blocks that name it follow: the program keeps its meaning. */
  function move(from: string, to: string) {
    if (from === to) return;
    const there = partAt(kit, to);
    session.kit(
      there
        ? `${partAt(kit, from)!.name} and ${there.name} change places`
        : `move the ${partAt(kit, from)!.name} to ${to}`,
      movePart(kit, from, to),
      followPart(session.project.program, from, to)
    );
  }
  const change = (label: string, socket: string, to: Partial<Part>) => session.kit(label, changePart(kit, socket, to));
  function unplug(part: Part) {
    session.kit(`unplug the ${part.name}`, { ...kit, parts: kit.parts.filter((p) => p !== part) });
  }
  /** What can be plugged into an empty socket. */
  function plug(socket: string, type: Part['type']) {
    const name = type === 'servo' ? 'servo' : type === 'motor' ? 'motor' : type === 'distance' ? 'nose' : 'line';
    const side = kit.parts.some((p) => p.type === 'line' && p.side === 'left') ? ('right' as const) : ('left' as const);
    const missing = (['left', 'right'] as const).find((s) => !kit.parts.some((p) => p.drives === s));
    const part: Part = {
      socket,
      type,
      name,
      ...(type === 'motor'
        ? { mounted: 'normal', ...(missing ? { drives: missing, name: `${missing} wheel` } : {}) }
        : {}),
      ...(type === 'servo' ? { hornDeg: 0 } : {}),
      ...(type === 'line' ? { side, name: side } : {})
    };
    session.kit(`plug in: ${typeName(type)}`, { ...kit, parts: [...kit.parts, part] });
  }
  const canPlug = (socket: string): Part['type'][] =>
    socket >= 'U' && socket <= 'W' ? ['servo'] : socket >= 'P' && socket <= 'R' ? ['motor'] : ['line', 'distance'];
  function measure(what: 'diameter' | 'track', value: number) {
    if (!Number.isFinite(value)) return;
    const [low, high] = what === 'diameter' ? [20, 200] : [40, 500];
    if (value < low || value > high) {
      trouble = `${what === 'diameter' ? 'A wheel' : 'The track'} can be from ${low} to ${high} mm; ${value} was not taken.`;
      return;
    }
    trouble = '';
    const wheels =
      what === 'diameter'
        ? { ...kit.wheels, leftDiameterMm: value, rightDiameterMm: value }
        : { ...kit.wheels, trackMm: value };
    session.kit(what === 'diameter' ? 'change the wheel diameter' : 'change the track width', { ...kit, wheels });
  }
  let trouble = $state('');
  const mounted = (p: Part) => (p.type === 'motor' ? (p.mounted ?? 'normal') : '');
</script>

<svelte:head><title>Kit sheet · {session.project.name} · Moss Bell</title></svelte:head>
<div class="flex h-full flex-col">
  <TopBar crumb="Kit sheet · {kit.name}">
    {#snippet name()}<h1 class="text-[17px]">{session.project.name}</h1>{/snippet}
    <SaveState {session} />
    <span class="flex-1"></span>
    <button
      class="btn btn-ghost !px-2"
      aria-label="Undo"
      title={session.past.at(-1)?.label ?? 'Nothing to undo'}
      disabled={!session.past.length}
      onclick={() => session.undo()}><Undo size={17} /></button
    >
    <button
      class="btn btn-ghost !px-2"
      aria-label="Redo"
      title={session.future.at(-1)?.label ?? 'Nothing to redo'}
      disabled={!session.future.length}
      onclick={() => session.redo()}><Redo size={17} /></button
    >
    <ThemeButton />
    <a class="btn btn-go" href="/project/{session.id}">Back to the workbench</a>
  </TopBar>
  <Trouble {session} />
  <main class="grid min-h-0 flex-1 grid-cols-[1fr_470px]">
    <div class="min-h-0 border-r border-rule bg-paper">
      <KitDrawing
        {kit}
        {flagged}
        ondimension={(what) => (what === 'diameter' ? diameter : track).focus()}
        onmove={move}
      />
    </div>
    <div class="flex flex-col gap-3 overflow-auto px-[18px] py-4">
      <h2 class="text-[18px]">What sits where</h2>
      <Table class="text-[13px]" divClass="overflow-visible rounded-[10px] border border-rule bg-card">
        <TableHead class="bg-paper text-[12px] normal-case text-soft">
          {#each ['Socket', 'Part', 'Called', 'Mounted'] as title (title)}<TableHeadCell
              class="px-2 py-1.5 font-semibold">{title}</TableHeadCell
            >{/each}
        </TableHead>
        <TableBody>
          {#each sockets as socket (socket)}
            {@const part = partAt(kit, socket)}
            <TableBodyRow class="border-rule bg-card {flagged.has(socket) ? '!bg-[var(--claywash)]' : ''}">
              <TableBodyCell class="px-2 py-0.5">
                {#if part}<select
                    class="rounded border border-rule bg-card px-0.5 font-bold"
                    aria-label="Socket of the {part.name}"
                    value={socket}
                    onchange={(e) => move(socket, e.currentTarget.value)}
                    >{#each socketsFor(part.type) as s (s)}<option>{s}</option>{/each}</select
                  >{:else}<b class="px-1">{socket}</b>{/if}
              </TableBodyCell>
              <TableBodyCell class="px-2 py-0.5 whitespace-nowrap">
                {#if part}{typeName(part.type)}{part.drives ? ', wheel' : ''}{:else}<select
                    class="rounded border border-rule bg-card px-0.5 text-soft"
                    aria-label="Plug something into {socket}"
                    value=""
                    onchange={(e) => {
                      const type = e.currentTarget.value as Part['type'];
                      e.currentTarget.value = '';
                      if (type) plug(socket, type);
                    }}
                    ><option value="">empty</option>{#each canPlug(socket) as type (type)}<option value={type}
                        >{typeName(type)}</option
                      >{/each}</select
                  >{/if}
              </TableBodyCell>
              <TableBodyCell class="px-2 py-0.5"
                >{#if part}<input
                    class="w-[92px] rounded border border-transparent bg-transparent px-1 py-0.5 hover:border-rule"
                    aria-label="Name of the part in {socket}"
                    value={part.name}
                    maxlength="40"
                    onchange={(e) => {
                      const name = e.currentTarget.value.trim();
                      if (name) change(`call it ${name}`, socket, { name });
                      else e.currentTarget.value = part.name;
                    }}
                  />{/if}</TableBodyCell
              >
              <TableBodyCell class="px-2 py-0.5 whitespace-nowrap">
                {#if part?.type === 'motor'}<select
                    class="rounded border border-rule bg-card px-0.5"
                    aria-label="How the {part.name} is mounted"
                    value={mounted(part)}
                    onchange={(e) =>
                      change('change the mounting', socket, { mounted: e.currentTarget.value as 'normal' })}
                    ><option>normal</option><option>mirrored</option></select
                  >
                {:else if part?.type === 'servo'}<label
                    >horn <input
                      class="w-[46px] rounded border border-rule bg-card px-1 text-right"
                      type="number"
                      aria-label="Horn of the {part.name}, degrees"
                      min="-90"
                      max="90"
                      value={part.hornDeg ?? 0}
                      onchange={(e) => {
                        const n = e.currentTarget.valueAsNumber;
                        if (n >= -90 && n <= 90) change('turn the horn', socket, { hornDeg: n });
                      }}
                    />°</label
                  >{/if}
                {#if part}<button
                    class="chip !px-1 text-[12px]"
                    title="Unplug the {part.name}"
                    aria-label="Unplug the {part.name}"
                    onclick={() => unplug(part)}>✕</button
                  >{/if}
              </TableBodyCell>
            </TableBodyRow>
          {/each}
        </TableBody>
      </Table>
      {#each wiring as x (x.text)}<p class="remark text-clay">{x.text}</p>{/each}
      {#each remarks as r, i (r.rule + r.blocks.join() + i)}
        <div class="remark">
          <b>{r.says}</b><br />{r.todo}
          <div class="mt-1.5 flex flex-wrap gap-1.5">
            {#each r.mends as m (m.label)}<button
                class="btn btn-plain !px-2.5 !py-1 text-[13px]"
                onclick={() => bench.mend(m)}>{m.label}</button
              >{/each}
          </div>
        </div>
      {/each}
      <h2 class="mt-1 text-[18px]">Measures</h2>
      {#if trouble}<p class="remark text-clay" role="alert">{trouble}</p>{/if}
      <dl
        class="grid grid-cols-[1fr_auto] items-center rounded-[10px] border border-rule bg-card text-[13px] [&>*]:border-b [&>*]:border-rule [&>*]:px-2.5 [&>*]:py-1 [&>:nth-last-child(-n+2)]:border-0"
      >
        <dt><label for="diameter">wheel diameter</label></dt>
        <dd class="text-right font-mono">
          <input
            bind:this={diameter}
            id="diameter"
            class="w-20 rounded border border-rule bg-card px-1 text-right"
            type="number"
            step="0.1"
            value={kit.wheels.leftDiameterMm}
            onchange={(e) => measure('diameter', e.currentTarget.valueAsNumber)}
          /> mm
        </dd>
        <dt>one wheel turn rolls</dt>
        <dd class="text-right font-mono">{circumference(kit.wheels.leftDiameterMm / 10).toFixed(1)} cm</dd>
        <dt><label for="track">track width</label></dt>
        <dd class="text-right font-mono">
          <input
            bind:this={track}
            id="track"
            class="w-20 rounded border border-rule bg-card px-1 text-right"
            type="number"
            step="0.1"
            value={kit.wheels.trackMm}
            onchange={(e) => measure('track', e.currentTarget.valueAsNumber)}
          /> mm
        </dd>
        <dt>wheel turns for 90° on the spot</dt>
        <dd class="text-right font-mono">
          {turnsForAngle(90, kit.wheels.trackMm / 10, kit.wheels.leftDiameterMm / 10).toFixed(3)}
        </dd>
        <dt>mass, with pan</dt>
        <dd class="text-right font-mono">{kit.body.massKg} kg</dd>
      </dl>
    </div>
  </main>
</div>
