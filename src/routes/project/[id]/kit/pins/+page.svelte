<!-- The pins page of the kit sheet: on a board of one's own, which lead of which part hangs on which pin; to be printed. -->
<script lang="ts">
  import { LAST_PIN } from '../../../../../../core/kit/kit.ts';
  import { pinProblems, wired, type Lead } from '../../../../../../core/kit/pins.ts';
  import { pinsFile } from '../../../../../../core/link/board.ts';
  import { say } from '../../../../../../core/words.ts';
  import SaveState from '$lib/project/SaveState.svelte';
  import Trouble from '$lib/project/Trouble.svelte';
  import UndoButtons from '$lib/project/UndoButtons.svelte';
  import { download } from '$lib/shelf/files.ts';
  import Button from '$lib/ui/Button.svelte';
  import LanguageChoice from '$lib/ui/LanguageChoice.svelte';
  import NumberField from '$lib/ui/NumberField.svelte';
  import Path from '$lib/ui/Path.svelte';
  import Remark from '$lib/ui/Remark.svelte';
  import Table from '$lib/ui/Table.svelte';
  import ThemeButton from '$lib/ui/ThemeButton.svelte';
  import TopBar from '$lib/ui/TopBar.svelte';
  import { useWorkbench } from '$lib/workbench/workbench.svelte.ts';
  const w = useWorkbench();
  const session = $derived(w.session);
  const kit = $derived(session.project.kit);
  const rows = $derived(wired(kit));
  const problems = $derived(pinProblems(kit));
  const flagged = $derived(new Set(problems.map((p) => p.key)));
  const sentences = $derived([...new Set(problems.map((p) => p.says))]);
  function give(lead: Lead, pin: number | undefined) {
    const { [lead.key]: _, ...rest } = kit.pins ?? {};
    session.kit(say('change the pin of {lead}', { lead: lead.key }), {
      ...kit,
      pins: pin === undefined ? rest : { ...rest, [lead.key]: pin }
    });
  }
</script>

<svelte:head><title>{say('Pins · {name} · Moss Bell', { name: session.project.name })}</title></svelte:head>
<div class="flex h-full flex-col print:block">
  <div class="print:hidden">
    <TopBar>
      {#snippet name()}<Path
          steps={[
            { name: session.project.name, href: `/project/${session.id}` },
            { name: say('Kit sheet · {name}', { name: kit.name }), href: `/project/${session.id}/kit` },
            { name: say('Pins') }
          ]}
        />{/snippet}
      <SaveState {session} />
      <span class="flex-1"></span>
      <UndoButtons {session} />
      <LanguageChoice />
      <ThemeButton />
      <Button look="go" href="/project/{session.id}">{say('Back to the workbench')}</Button>
    </TopBar>
    <Trouble {session} />
  </div>
  <main class="min-h-0 flex-1 overflow-auto bg-paper px-6 py-5 print:overflow-visible print:bg-white print:p-0">
    <div class="mx-auto max-w-[900px]">
      <div class="mb-3 flex items-start gap-4">
        <div>
          <h1 class="text-[22px]">{say('Pins of {name}', { name: kit.name })}</h1>
          <p class="max-w-[70ch] text-soft">
            {say(
              'For a machine that you build yourself around a board with MicroPython: which lead hangs on which pin (GPIO number). Stand-ins need none of this.'
            )}
          </p>
        </div>
        <span class="flex-1"></span>
        <span class="flex gap-2 print:hidden">
          <Button onclick={() => download('mossbell_pins.py', pinsFile(kit), 'text/x-python')}
            >{say('Save as mossbell_pins.py')}</Button
          >
          <Button onclick={() => window.print()}>{say('Print')}</Button>
        </span>
      </div>
      {#if sentences.length}<Remark tone="ink" role="status" class="mb-3" data-testid="pin-problems">
          <ul>
            {#each sentences as text (text)}<li>{text}</li>{/each}
          </ul>
        </Remark>{:else}<Remark tone="moss" role="status" class="mb-3" data-testid="pin-problems"
          >{say('Every part that needs pins has them, and none is given twice.')}</Remark
        >{/if}
      <Table class="rounded-[10px] bg-card text-[14px] print:text-[12px]" data-testid="pins">
        <thead class="text-soft">
          <tr
            ><th class="w-[220px] px-3 py-1.5 font-normal">{say('What')}</th><th class="font-normal">{say('Lead')}</th
            ><th class="font-normal">{say('Pin number')}</th></tr
          >
        </thead>
        <tbody>
          {#each rows as row (row.of)}
            {#if row.cannot}<tr class="border-t border-rule"
                ><td class="px-3 py-1 font-semibold">{row.name}</td><td class="text-soft" colspan="2"
                  >{say('cannot be: {why}', { why: row.cannot })}</td
                ></tr
              >{/if}
            {#each row.leads as lead, i (lead.key)}
              <tr class={i ? '' : 'border-t border-rule'}>
                <td class="px-3 py-0.5 font-semibold">{i ? '' : row.name}</td>
                <td class="py-0.5 pr-3">{lead.says}</td>
                <td class="py-0.5 {flagged.has(lead.key) ? 'bg-[var(--claywash)]' : ''}"
                  ><NumberField
                    size="sm"
                    class="w-20! print:border-0"
                    aria-label={say('Pin of {lead}', { lead: `${row.name}, ${lead.says}` })}
                    value={kit.pins?.[lead.key] ?? NaN}
                    min={0}
                    max={LAST_PIN}
                    put={(n) => give(lead, Math.round(n))}
                    empty={() => give(lead, undefined)}
                  /></td
                >
              </tr>
            {/each}
          {/each}
        </tbody>
      </Table>
      <p class="mt-3 max-w-[80ch] text-[13px] text-soft">
        {say(
          'Motors hang on a driver with two inputs, or with power and direction. Servos take 50 pulses a second of 1.0 to 2.0 ms. Lamps are addressable. A distance sensor has trigger and echo; a board of 3.3 V needs a divider on its echo.'
        )}
      </p>
    </div>
  </main>
</div>
