<script lang="ts">
  import { say, word } from '../../../../core/words.ts';
  import { circumference, rollForAngle, turnsForAngle, turnsForDistance } from '../../../../core/reckon/wheels.ts';
  import { catalogue, definition } from '../../../../core/language/catalogue.ts';
  import { setSlot, changeStep } from '../../../../core/language/edit.ts';
  import { allSteps } from '../../../../core/language/program.ts';
  import { useWorkbench } from '../workbench.svelte.ts';
  let { close }: { close: () => void } = $props();
  const w = useWorkbench();
  const wheels = $derived(w.session.project.kit.wheels);
  let page = $state<'distance' | 'angle'>('distance');
  let diameter = $state<number>();
  let track = $state<number>();
  let distance = $state(80);
  let angle = $state(90);
  const d = $derived(diameter ?? wheels.leftDiameterMm / 10);
  const t = $derived(track ?? wheels.trackMm / 10);
  const good = (n: number | null | undefined): n is number => typeof n === 'number' && Number.isFinite(n) && n > 0;
  const turns = $derived(page === 'distance' ? turnsForDistance(distance, d) : turnsForAngle(angle, t, d));
  const show = (n: number, places: number) => (Number.isFinite(n) ? n.toFixed(places) : '...');

  const step = $derived(
    w.selected ? [...allSteps(w.session.project.program)].find((s) => s.id === w.selected) : undefined
  );
  /** where the number can go: the amount of a measured block, in turns, or its first number */
  const target = $derived.by(() => {
    if (!step || !catalogue.has(step.kind)) return undefined;
    const { slots, label } = definition(step.kind);
    if ('unit' in slots && slots.unit.type === 'choice') {
      const unit = slots.unit.options.find((o) => o === 'wheel turns' || o === 'turns');
      if (unit) return { slot: 'amount', unit, name: label[0] };
    }
    const first = Object.entries(slots).find(([, s]) => s.type === 'number');
    return first ? { slot: first[0], unit: undefined, name: label[0] } : undefined;
  });
  function put() {
    if (!step || !target) return;
    const value = Math.round(turns * 1000) / 1000;
    let program = setSlot(w.session.project.program, step.id, target.slot, value);
    if (target.unit)
      program = changeStep(program, step.id, (s) => ({ ...s, slots: { ...s.slots, unit: target.unit! } }));
    w.session.program(say('put a reckoned number into a block'), program);
  }
</script>

<div
  class="absolute bottom-2 left-2 z-30 w-[340px] max-w-[calc(100%-1rem)] rounded-xl border border-rule bg-card shadow-lg"
  role="region"
  aria-label={say('Reckoner')}
>
  <div class="flex items-center justify-between border-b border-rule px-3 py-2">
    <h3 class="text-[16px]">{say('Reckoner')}</h3>
    <button class="chip" onclick={close}>{say('Close')}</button>
  </div>
  <div class="flex flex-col gap-2.5 p-3">
    <div class="flex gap-1">
      <button class="chip" aria-pressed={page === 'distance'} onclick={() => (page = 'distance')}
        >{say('Turns for a distance')}</button
      ><button class="chip" aria-pressed={page === 'angle'} onclick={() => (page = 'angle')}
        >{say('Turns for an angle')}</button
      >
    </div>
    <label class="flex items-center justify-between gap-2"
      >{say('Wheel diameter')}
      <span
        ><input
          class="field w-24 text-right font-mono"
          type="number"
          step="0.1"
          min="0.1"
          value={d}
          oninput={(e) => (diameter = e.currentTarget.valueAsNumber)}
        />
        {say('cm')}</span
      ></label
    >
    {#if page === 'distance'}
      <label class="flex items-center justify-between gap-2"
        >{say('Distance')}
        <span
          ><input class="field w-24 text-right font-mono" type="number" step="1" bind:value={distance} />
          {say('cm')}</span
        ></label
      >
    {:else}
      <label class="flex items-center justify-between gap-2"
        >{say('Track width')}
        <span
          ><input
            class="field w-24 text-right font-mono"
            type="number"
            step="0.1"
            min="0.1"
            value={t}
            oninput={(e) => (track = e.currentTarget.valueAsNumber)}
          />
          {say('cm')}</span
        ></label
      >
      <label class="flex items-center justify-between gap-2"
        >{say('Angle, on the spot')}
        <span
          ><input class="field w-24 text-right font-mono" type="number" step="1" bind:value={angle} /> &nbsp;°&nbsp;</span
        ></label
      >
    {/if}
    <dl
      class="grid grid-cols-[1fr_auto] gap-x-3 gap-y-1 rounded-lg bg-linen p-2.5 font-mono text-[13px]"
      aria-live="polite"
    >
      <dt>{say('one turn rolls')}</dt>
      <dd class="text-right">{say('{x} cm', { x: show(circumference(d), 1) })}</dd>
      {#if page === 'angle'}<dt>{say('each wheel rolls')}</dt>
        <dd class="text-right">{say('{x} cm', { x: show(rollForAngle(angle, t), 2) })}</dd>{/if}
      <dt class="font-bold">{say('wheel turns')}</dt>
      <dd class="text-right font-bold" data-testid="turns">{show(turns, page === 'distance' ? 2 : 3)}</dd>
    </dl>
    <button class="btn btn-plain justify-center" disabled={!target || !good(turns)} onclick={put}
      >{target
        ? say('Put into the block: {name}', { name: word(target.name) })
        : say('Choose a block with a number first')}</button
    >
  </div>
</div>
