<!-- The inputs of a run as a table: when, what, how much. -->
<script lang="ts">
  import Table from '../../ui/Table.svelte';
  import Field from '../../ui/Field.svelte';
  import Choice from '../../ui/Choice.svelte';
  import Button from '../../ui/Button.svelte';
  import Trash from '@lucide/svelte/icons/trash-2';
  import NumberField from '../../ui/NumberField.svelte';
  import { say, word } from '../../../../core/words.ts';
  import { freshRow, OF_THE_RUN, whatOf, WHATS, type Cell, type Row } from './rows.ts';
  let { rows = $bindable(), others }: { rows: Row[]; /** names of the other devices in the yard */ others: string[] } =
    $props();
  /** so many are drawn at first; a run in which a hand leaned has thousands */
  const PAGE = 60;
  let pages = $state(1);
  const shown = $derived(rows.slice(0, PAGE * pages));
  const put = (i: number, row: Row) => (rows = rows.with(i, row));
  const cell = (i: number, key: string, value: Cell) =>
    put(i, { ...rows[i], cells: { ...rows[i].cells, [key]: value } });
  /** Below the last one, a moment later. */
  function add() {
    const last = rows.at(-1);
    rows = [...rows, freshRow(last ? last.tUs + 500_000 : 500_000, last?.what, last?.to)];
    pages = Math.ceil(rows.length / PAGE);
  }
</script>

<div class="max-h-[46vh] overflow-auto rounded-lg border border-rule" data-testid="rows">
  <Table class="text-[12.5px]">
    <thead class="sticky top-0 z-10 bg-linen text-left text-soft">
      <tr
        ><th class="px-2 py-1 font-normal">{say('at, s')}</th><th class="px-2 py-1 font-normal">{say('what')}</th><th
          class="px-2 py-1 font-normal">{say('how much')}</th
        >{#if others.length}<th class="px-2 py-1 font-normal">{say('to whom')}</th>{/if}<th class="w-8"></th></tr
      >
    </thead>
    <tbody>
      {#each shown as row, i (i)}
        <tr class="border-t border-rule align-middle">
          <td class="px-2 py-1"
            ><NumberField
              size="sm"
              class="w-20! text-right tabular-nums"
              min={0}
              max={36000}
              step={0.1}
              value={row.tUs / 1e6}
              put={(s) => put(i, { ...row, tUs: Math.round(s * 1e6) })}
              aria-label={say('Row {n}: second', { n: i + 1 })}
            /></td
          >
          <td class="px-2 py-1"
            ><Choice
              size="sm"
              value={row.what}
              aria-label={say('Row {n}: what', { n: i + 1 })}
              onchange={(e) => put(i, freshRow(row.tUs, e.currentTarget.value, row.to))}
              >{#each WHATS as { id, name } (id)}<option value={id}>{word(name)}</option>{/each}</Choice
            ></td
          >
          <td class="px-2 py-1">
            <div class="flex flex-wrap items-center gap-x-3 gap-y-1">
              {#each whatOf(row.what).fields as f (f.key)}
                {@const value = row.cells[f.key]}
                {@const label = say('Row {n}: {name}', { n: i + 1, name: word(f.name) })}
                {#if f.is === 'number'}
                  <label class="flex items-center gap-1 text-soft"
                    >{word(f.name)}<NumberField
                      size="sm"
                      class="w-16! text-right text-ink tabular-nums"
                      min={f.min}
                      max={f.max}
                      value={typeof value === 'number' ? value : Number.NaN}
                      empty={f.first === undefined ? () => cell(i, f.key, undefined) : undefined}
                      put={(n) => cell(i, f.key, n)}
                      aria-label={label}
                    />{f.unit}</label
                  >
                {:else if f.is === 'text'}
                  <label class="flex items-center gap-1 text-soft"
                    >{word(f.name)}<Field
                      size="sm"
                      class="w-28! text-ink"
                      maxlength={60}
                      value={String(value ?? '')}
                      aria-label={label}
                      onchange={(e) => cell(i, f.key, e.currentTarget.value)}
                    /></label
                  >
                {:else}
                  {@const list =
                    f.is === 'choice' ? f.of.map((o) => [o, o]) : f.words.map((w, at) => [at ? '' : '1', w])}
                  <Choice
                    size="sm"
                    value={f.is === 'flag' ? (value ? '1' : '') : value}
                    aria-label={label}
                    onchange={(e) =>
                      cell(i, f.key, f.is === 'flag' ? e.currentTarget.value === '1' : e.currentTarget.value)}
                    >{#each list as [id, name] (id)}<option value={id}>{word(name)}</option>{/each}</Choice
                  >
                {/if}
              {/each}
            </div>
          </td>
          {#if others.length}<td class="px-2 py-1"
              >{#if !OF_THE_RUN.has(row.what)}<Choice
                  size="sm"
                  class="max-w-[130px]"
                  value={row.to ?? ''}
                  aria-label={say('Row {n}: to which device', { n: i + 1 })}
                  onchange={(e) => {
                    const { to: _, ...rest } = row;
                    put(i, e.currentTarget.value ? { ...rest, to: e.currentTarget.value } : rest);
                  }}
                  ><option value="">{say('the first')}</option>{#each others as name (name)}<option>{name}</option
                    >{/each}</Choice
                >{/if}</td
            >{/if}
          <td class="pr-1"
            ><Button
              look="quiet"
              title={say('Take row {n} out', { n: i + 1 })}
              aria-label={say('Take row {n} out', { n: i + 1 })}
              onclick={() => (rows = rows.toSpliced(i, 1))}><Trash size={14} /></Button
            ></td
          >
        </tr>
      {:else}
        <tr><td class="px-2 py-3 text-soft" colspan="5">{say('Nothing is done to the device.')}</td></tr>
      {/each}
    </tbody>
  </Table>
</div>
<div class="flex items-center gap-2">
  <Button size="sm" onclick={add}>{say('Add a row')}</Button>
  {#if rows.length > shown.length}<Button look="quiet" class="underline" onclick={() => (pages *= 4)}
      >{say('{n} more rows', { n: rows.length - shown.length })}</Button
    >{/if}
</div>
