<script lang="ts">
  import Remark from '../../../../lib/ui/Remark.svelte';
  import Field from '../../../../lib/ui/Field.svelte';
  import Choice from '../../../../lib/ui/Choice.svelte';
  import Button from '../../../../lib/ui/Button.svelte';
  import NumberField from '$lib/ui/NumberField.svelte';
  import { later, say, word } from '../../../../../core/words.ts';
  import Table from 'flowbite-svelte/Table.svelte';
  import TableBody from 'flowbite-svelte/TableBody.svelte';
  import TableBodyCell from 'flowbite-svelte/TableBodyCell.svelte';
  import TableBodyRow from 'flowbite-svelte/TableBodyRow.svelte';
  import TableHead from 'flowbite-svelte/TableHead.svelte';
  import TableHeadCell from 'flowbite-svelte/TableHeadCell.svelte';
  import {
    changePart,
    movePart,
    partAt,
    plugged,
    socketsFor,
    hasWheels,
    socketsOf,
    resized,
    trackMm,
    type Part
  } from '../../../../../core/kit/kit.ts';
  import { checkWiring } from '../../../../../core/kit/wiring.ts';
  import { formOf } from '../../../../../core/kit/forms.ts';
  import { PART_TYPES, typeName } from '../../../../../core/kit/parts/parts.ts';
  import { followPart } from '../../../../../core/language/edit.ts';
  import { circumference, turnsForAngle } from '../../../../../core/reckon/wheels.ts';
  import BoardDrawing from '$lib/kits/BoardDrawing.svelte';
  import PartAsk from '$lib/kits/PartAsk.svelte';
  import DisplayRows from '$lib/kits/DisplayRows.svelte';
  import Calibrate from '$lib/kits/Calibrate.svelte';
  import KitDrawing from '$lib/kits/KitDrawing.svelte';
  import SaveState from '$lib/project/SaveState.svelte';
  import UndoButtons from '$lib/project/UndoButtons.svelte';
  import Trouble from '$lib/project/Trouble.svelte';
  import ThemeButton from '$lib/ui/ThemeButton.svelte';
  import LanguageChoice from '$lib/ui/LanguageChoice.svelte';
  import Path from '$lib/ui/Path.svelte';
  import TopBar from '$lib/ui/TopBar.svelte';
  import { useWorkbench } from '$lib/workbench/workbench.svelte.ts';

  const bench = useWorkbench();
  const session = $derived(bench.session);
  const kit = $derived(session.project.kit);
  const wheelMm = $derived(kit.wheels[0]?.diameterMm ?? 0);
  const line = $derived(kit.parts.find((p) => p.type === 'line'));
  const sockets = $derived(socketsOf(kit));
  const wiring = $derived(checkWiring(kit));
  const remarks = $derived(bench.remarks.filter((r) => r.rule.startsWith('socket') || r.rule === 'mirrored-motor'));
  const flagged = $derived(
    new Set([...wiring.map((x) => x.socket), ...remarks.flatMap((r) => /\b(J\d+)\b/.exec(r.says)?.[1] ?? [])])
  );
  let diameter = $state<HTMLInputElement>();
  let track = $state<HTMLInputElement>();

  /** The part moves, and the blocks that name it follow: the program keeps its meaning. */
  function move(from: string, to: string) {
    if (from === to) return;
    const there = partAt(kit, to);
    session.kit(
      there
        ? say('{name} and {name2} change places', { name: partAt(kit, from)!.name, name2: there.name })
        : say('move the {name} to {to}', { name: partAt(kit, from)!.name, to }),
      movePart(kit, from, to),
      followPart(session.project.program, from, to)
    );
  }
  const change = (label: string, socket: string, to: Partial<Part>) => session.kit(label, changePart(kit, socket, to));
  function unplug(part: Part) {
    session.kit(say('unplug the {name}', { name: part.name }), { ...kit, parts: kit.parts.filter((p) => p !== part) });
  }
  /** What can be plugged into an empty socket. */
  function plug(socket: string, type: Part['type']) {
    session.kit(say('plug in: {typeName}', { typeName: typeName(type) }), {
      ...kit,
      parts: [...kit.parts, plugged(kit, socket, type)]
    });
  }
  const canPlug = (socket: string): Part['type'][] =>
    PART_TYPES.filter((type) => socketsFor(kit, type).includes(socket));
  function measure(what: 'diameter' | 'track', value: number) {
    if (!Number.isFinite(value)) return;
    const [low, high] = what === 'diameter' ? [20, 200] : [40, 500];
    if (value < low || value > high) {
      trouble = say(
        what === 'diameter'
          ? later('A wheel can be from {low} to {high} mm; {value} was not taken.')
          : later('The track can be from {low} to {high} mm; {value} was not taken.'),
        { low, high, value }
      );
      return;
    }
    trouble = '';
    // what was measured of a device does not hold for other wheels
    const { measured: _, ...sheet } = kit;
    session.kit(
      what === 'diameter' ? say('change the wheel diameter') : say('change the track width'),
      resized(sheet, what === 'diameter' ? { left: value, right: value } : { trackMm: value })
    );
  }
  /** what line sensors read on light and on dark floor: live values tell */
  let light = $state(88);
  let dark = $state(12);
  function threshold(value: number) {
    if (!(value >= 0 && value <= 100)) {
      trouble = say('A threshold goes from 0 to 100; {value} was not taken.', { value });
      return;
    }
    trouble = '';
    session.kit(say('set the line threshold'), {
      ...kit,
      parts: kit.parts.map((p) => (p.type === 'line' ? { ...p, threshold: value } : p))
    });
  }
  let trouble = $state('');
</script>

<svelte:head><title>{say('Kit sheet · {name} · Moss Bell', { name: session.project.name })}</title></svelte:head>
<div class="flex h-full flex-col">
  <TopBar>
    {#snippet name()}<Path
        steps={[
          { name: session.project.name, href: `/project/${session.id}` },
          { name: say('Kit sheet · {name}', { name: kit.name }) }
        ]}
      />{/snippet}
    <SaveState {session} />
    <span class="flex-1"></span>
    <UndoButtons {session} />
    <LanguageChoice />
    <ThemeButton />
    <Button look="ghost" href="/project/{session.id}/kit/pins">{say('Pins')}</Button>
    <Button look="go" href="/project/{session.id}">{say('Back to the workbench')}</Button>
  </TopBar>
  <Trouble {session} />
  <main class="grid min-h-0 flex-1 grid-cols-[1fr_470px]">
    <div class="min-h-0 border-r border-rule bg-paper">
      {#if hasWheels(kit)}
        <KitDrawing
          {kit}
          {flagged}
          ondimension={(what) => (what === 'diameter' ? diameter : track)?.focus()}
          onmove={move}
        />
      {:else}<BoardDrawing {kit} />{/if}
    </div>
    <div class="flex flex-col gap-3 overflow-auto px-[18px] py-4">
      <h2 class="text-[18px]">{say('What sits where')}</h2>
      <p class="text-[13px] text-soft">
        {say(
          'A part is a motor, a servo, a sensor or lamps; a socket is where its cable goes. Blocks call it by its name.'
        )}
      </p>
      <Table class="text-[13px]" divClass="overflow-visible rounded-[10px] border border-rule bg-card">
        <TableHead class="bg-paper text-[12px] normal-case text-soft">
          {#each [later('Socket'), later('Part'), later('Called'), later('Mounted')] as title (title)}<TableHeadCell
              class="px-2 py-1.5 font-semibold">{word(title)}</TableHeadCell
            >{/each}
        </TableHead>
        <TableBody>
          {#each sockets as socket (socket)}
            {@const part = partAt(kit, socket)}
            <TableBodyRow class="border-rule bg-card {flagged.has(socket) ? '!bg-[var(--claywash)]' : ''}">
              <TableBodyCell class="px-2 py-0.5">
                {#if part}<Choice
                    size="sm"
                    class="font-bold"
                    aria-label={say('Socket of the {name}', { name: part.name })}
                    value={socket}
                    onchange={(e) => move(socket, e.currentTarget.value)}
                    >{#each socketsFor(kit, part.type) as s (s)}<option>{s}</option>{/each}</Choice
                  >{:else}<b class="px-1">{socket}</b>{/if}
              </TableBodyCell>
              <TableBodyCell class="px-2 py-0.5 whitespace-nowrap">
                {#if part}{typeName(part.type)}{part.type === 'motor' && part.drives
                    ? say(', wheel')
                    : ''}{:else}<Choice
                    size="sm"
                    class="text-soft"
                    aria-label={say('Plug something into {socket}', { socket })}
                    value=""
                    onchange={(e) => {
                      const type = e.currentTarget.value as Part['type'];
                      e.currentTarget.value = '';
                      if (type) plug(socket, type);
                    }}
                    ><option value="">{say('empty')}</option>{#each canPlug(socket) as type (type)}<option value={type}
                        >{typeName(type)}</option
                      >{/each}</Choice
                  >{/if}
              </TableBodyCell>
              <TableBodyCell class="px-2 py-0.5"
                >{#if part}<Field
                    look="line"
                    class="w-[92px]! px-1 py-0.5"
                    aria-label={say('Name of the part in {socket}', { socket })}
                    value={part.name}
                    maxlength={40}
                    onchange={(e) => {
                      const name = e.currentTarget.value.trim();
                      if (name) change(say('call it {name}', { name }), socket, { name });
                      else e.currentTarget.value = part.name;
                    }}
                  />{/if}</TableBodyCell
              >
              <TableBodyCell class="px-2 py-0.5 whitespace-nowrap">
                {#if part}
                  {@const { mounted } = formOf(part)}
                  {#if mounted}<span class="inline-flex items-center gap-1"
                      >{mounted.label ? word(mounted.label) : ''}<PartAsk
                        {part}
                        ask={mounted.ask}
                        {change}
                      />{mounted.unit ?? ''}</span
                    >{/if}
                {/if}
                {#if part}<Button
                    look="quiet"
                    class="px-1 text-[12px]"
                    title={say('Unplug the {name}', { name: part.name })}
                    aria-label={say('Unplug the {name}', { name: part.name })}
                    onclick={() => unplug(part)}>✕</Button
                  >{/if}
              </TableBodyCell>
            </TableBodyRow>
          {/each}
        </TableBody>
      </Table>
      {#each wiring as x (x.text)}<Remark role={null}>{x.text}</Remark>{/each}
      {#each remarks as r, i (r.rule + r.blocks.join() + i)}
        <Remark tone="ink" role={null}>
          <b>{r.says}</b><br />{r.todo}
          <div class="mt-1.5 flex flex-wrap gap-1.5">
            {#each r.mends as m (m.label)}<Button size="sm" class="text-[13px]" onclick={() => bench.mend(m)}
                >{m.label}</Button
              >{/each}
          </div>
        </Remark>
      {/each}
      <h2 class="mt-1 text-[18px]">{say('Measures')}</h2>
      {#if trouble}<Remark>{trouble}</Remark>{/if}
      <dl
        class="grid grid-cols-[1fr_auto] rounded-[10px] border border-rule bg-card text-[13px] [&>*]:flex [&>*]:min-h-8 [&>*]:items-center [&>dd]:justify-end [&>dd]:gap-1.5 [&>*]:border-b [&>*]:border-rule [&>*]:px-2.5 [&>*]:py-1 [&>:nth-last-child(-n+2)]:border-0"
      >
        {#if hasWheels(kit)}
          <dt><label for="diameter">{say('wheel diameter')}</label></dt>
          <dd class="text-right font-mono">
            <NumberField
              bind:element={diameter}
              id="diameter"
              size="sm"
              class="w-20! text-right"
              step={0.1}
              value={wheelMm}
              put={(mm) => measure('diameter', mm)}
            />
            {say('mm')}
          </dd>
          <dt>{say('one wheel turn rolls')}</dt>
          <dd class="text-right font-mono">
            {say('{n} cm', { n: circumference(wheelMm / 10).toFixed(1) })}
          </dd>
          {#if trackMm(kit)}
            <dt><label for="track">{say('track width')}</label></dt>
            <dd class="text-right font-mono">
              <NumberField
                bind:element={track}
                id="track"
                size="sm"
                class="w-20! text-right"
                step={0.1}
                value={trackMm(kit)}
                put={(mm) => measure('track', mm)}
              />
              {say('mm')}
            </dd>
            <dt>{say('wheel turns for 90° on the spot')}</dt>
            <dd class="text-right font-mono">
              {turnsForAngle(90, trackMm(kit) / 10, wheelMm / 10).toFixed(3)}
            </dd>
          {/if}
          {#if line}
            <dt><label for="threshold">{say('line sensors: dark below')}</label></dt>
            <dd class="text-right font-mono">
              <NumberField id="threshold" size="sm" class="w-20! text-right" value={line.threshold} put={threshold} />
            </dd>
            <dt>{say('half way between what they read on light and on dark')}</dt>
            <dd class="text-right font-mono whitespace-nowrap">
              <NumberField
                size="sm"
                class="w-14! text-right"
                min={0}
                max={100}
                aria-label={say('reads on light')}
                bind:value={light}
              />
              <NumberField
                size="sm"
                class="w-14! text-right"
                min={0}
                max={100}
                aria-label={say('reads on dark')}
                bind:value={dark}
              />
              <Button look="quiet" class="underline" onclick={() => threshold(Math.round((light + dark) * 5) / 10)}
                >{say('Set it')}</Button
              >
            </dd>
          {/if}
        {:else}
          <dt><label for="sleep">{say('sleeps after')}</label></dt>
          <dd class="text-right font-mono">
            <Choice
              id="sleep"
              size="sm"
              value={kit.sleepMin ?? 0}
              onchange={(e) =>
                session.kit(say('change when it sleeps'), { ...kit, sleepMin: Number(e.currentTarget.value) })}
              >{#each [0, 1, 2, 5, 10, 30] as min (min)}<option value={min}
                  >{min ? say('{min} min', { min }) : say('never')}</option
                >{/each}</Choice
            >
          </dd>
        {/if}
        <DisplayRows {kit} change={(what, display) => session.kit(what, { ...kit, display })} />
        {#each kit.parts as part, at (at)}
          {#each formOf(part).rows?.(part) ?? [] as row, i (i)}
            {@const told = row.told?.(part)}
            <dt>{row.label(part)}</dt>
            <dd class="text-right font-mono">
              {#each row.asks as ask, k (k)}<PartAsk {part} {ask} {change} />{/each}{row.unit ?? ''}
              {#if told}<span class={told.isTooMuch ? 'font-bold text-clay' : ''} data-testid="told">{told.text}</span
                >{/if}
            </dd>
          {/each}
        {/each}
        <dt>{say('mass')}</dt>
        <dd class="text-right font-mono">{say('{massKg} kg', { massKg: kit.chassis.massKg })}</dd>
      </dl>
      {#if hasWheels(kit)}<Calibrate />{/if}
    </div>
  </main>
</div>
