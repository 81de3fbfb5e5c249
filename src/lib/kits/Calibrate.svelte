<!-- One device measured: two drives with the yard's ruler, what follows from them, and the program before and after. -->
<script lang="ts">
  import Table from '../ui/Table.svelte';
  import Choice from '../ui/Choice.svelte';
  import Button from '../ui/Button.svelte';
  import { later, say, word } from '../../../core/words.ts';
  import { reckoned, trackMm, type Kit } from '../../../core/kit/kit.ts';
  import { calibrated, STRAIGHT_CM, TURNS, type Calibration } from '../../../core/kit/calibration.ts';
  import { useWorkbench } from '../workbench/workbench.svelte.ts';
  const bench = useWorkbench();
  const session = $derived(bench.session);
  const kit = $derived(session.project.kit);
  let name = $state('');
  const units = $derived(bench.devices.fitting.map((d) => d.unit));
  const unit = $derived(units.find((u) => u.name === name) ?? units[0]);
  let found = $state.raw<{ name: string; c: Calibration; before: End; after: End }>();
  let busy = $state(false);
  type End = { xCm: number; yCm: number; headingDeg: number };

  /** What moves reckon with: each wheel's diameter, and how far the wheels stand apart, or how wide their ring is. */
  const measuresOf = (kit: Kit): [string, number][] => {
    const real = reckoned(kit);
    const [{ at }] = real.wheels;
    const track = trackMm(real);
    return [
      ...real.wheels.map((w): [string, number] => [word(w.name), w.diameterMm]),
      track ? [say('track'), track] : [say('ring of the wheels'), Math.round(Math.hypot(at.xMm, at.yMm) * 200) / 100]
    ];
  };
  async function measure() {
    busy = true;
    const { name, serial } = unit;
    const { measured: _, ...sheet } = session.project.kit;
    const c = await bench.runs.calibrate(sheet, serial);
    const project = session.project;
    const [before, after] = await Promise.all([
      bench.runs.endOn({ ...project, kit: sheet }, serial),
      bench.runs.endOn({ ...project, kit: calibrated(sheet, name, c) }, serial)
    ]);
    found = { name, c, before, after };
    busy = false;
  }
  function write() {
    if (!found) return;
    session.kit(say('calibrate for {name}', { name: found.name }), calibrated(kit, found.name, found.c));
  }
  function forget() {
    const { measured: _, ...rest } = kit;
    session.kit(say('back to the measures of the kit sheet'), rest);
  }
  const where = (e: End) =>
    say('x {x}, y {y} cm, {deg}°', {
      x: e.xCm.toFixed(1),
      y: e.yCm.toFixed(1),
      deg: e.headingDeg.toFixed(1)
    });
</script>

<section class="rounded-[10px] border border-rule bg-card px-3 py-2 text-[13px]" aria-label={say('Calibrate')}>
  <div class="flex items-center gap-2">
    <h2 class="text-[16px]">{say('Calibrate')}</h2>
    <span class="flex-1"></span>
    <Choice
      size="sm"
      aria-label={say('Device to measure')}
      value={unit.name}
      onchange={(e) => (name = e.currentTarget.value)}
      >{#each units as u (u.serial)}<option>{u.name}</option>{/each}</Choice
    >
    <Button size="sm" disabled={busy} onclick={measure}>{busy ? say('Measuring') : say('Measure it')}</Button>
  </div>
  <p class="text-soft">
    {say('It drives {cm} cm straight and turns {turns} times on the spot, with the ruler of the yard beside it.', {
      cm: STRAIGHT_CM,
      turns: TURNS
    })}
  </p>
  {#if kit.measured}
    <p data-testid="measured">
      {say('This sheet holds what was measured of {device}: {measures}.', {
        device: kit.measured.device,
        measures: measuresOf(kit)
          .map(([name, mm]) => say('{name} {mm} mm', { name, mm }))
          .join(', ')
      })}
      <Button look="quiet" class="underline" onclick={forget}>{say('Forget it')}</Button>
    </p>
  {/if}
  {#if found}
    <Table class="mt-1" data-testid="found">
      <tbody>
        <tr
          ><td class="text-soft">{say('driven')}</td><td class="text-right"
            >{say(
              found.c.bentDeg < 0
                ? later('{cm} cm, bent {deg}° to the left')
                : later('{cm} cm, bent {deg}° to the right'),
              {
                cm: found.c.drivenCm.toFixed(2),
                deg: Math.abs(found.c.bentDeg).toFixed(2)
              }
            )}</td
          ></tr
        >
        <tr
          ><td class="text-soft">{say('turned')}</td><td class="text-right"
            >{say('{deg}° of {asked}°', { deg: found.c.turnedDeg.toFixed(1), asked: 360 * TURNS })}</td
          ></tr
        >
        {#each measuresOf(calibrated(kit, found.name, found.c)) as [name, mm], i (name)}
          <tr class={i ? '' : 'border-t border-rule'}
            ><td class="text-soft">{name}</td><td class="text-right">{say('{n} mm', { n: mm })}</td></tr
          >
        {/each}
        <tr class="border-t border-rule"
          ><td class="text-soft">{say('this program ended before at')}</td><td class="text-right"
            >{where(found.before)}</td
          ></tr
        >
        <tr><td class="text-soft">{say('and ends now at')}</td><td class="text-right">{where(found.after)}</td></tr>
      </tbody>
    </Table>
    <Button look="go" size="sm" class="mt-1.5" onclick={write}>{say('Write it onto the kit sheet')}</Button>
  {/if}
</section>
