<!-- A dial card at its true size: degrees along an arc, for a paper pointer on a servo's horn. -->
<script lang="ts">
  import Choice from '../../../../lib/ui/Choice.svelte';
  import Button from '../../../../lib/ui/Button.svelte';
  import { page } from '$app/state';
  import { say } from '../../../../../core/words.ts';
  import { useWorkbench } from '$lib/workbench/workbench.svelte.ts';
  const w = useWorkbench();
  const servos = $derived(w.session.project.kit.parts.filter((p) => p.type === 'servo'));
  let socket = $state('');
  const servo = $derived(servos.find((s) => s.socket === socket) ?? servos[0]);
  /** mm */
  const R = 55;
  const at = (deg: number, r: number) => {
    // 0 lies right, 90 up, 180 left, as seen from above
    const a = ((180 - deg) * Math.PI) / 180;
    return { x: R + 10 + r * Math.cos(a), y: R + 10 - r * Math.sin(a) };
  };
  const ticks = Array.from({ length: 181 }, (_, d) => d).filter((d) => d % 5 === 0);
</script>

<svelte:head><title>{say('Dial card')}</title></svelte:head>
<div class="no-print flex items-center gap-3 border-b border-rule bg-linen px-4 py-2">
  <Button href="/project/{page.params.id}">{say('Back to the workbench')}</Button>
  {#if servos.length > 1}<Choice
      aria-label={say('Servo')}
      value={servo?.socket}
      onchange={(e) => (socket = e.currentTarget.value)}
      >{#each servos as s, i (i)}<option value={s.socket}>{s.name}</option>{/each}</Choice
    >{/if}
  <span class="flex-1"></span>
  <Button look="go" onclick={() => window.print()}>{say('Print')}</Button>
</div>
<main class="bg-white p-[10mm] text-black" data-testid="dial">
  <h1 class="font-display text-[20px]">
    {servo ? say('Dial for the servo {name}', { name: servo.name }) : say('Dial for a servo')}
  </h1>
  <p class="mb-[3mm]">
    {say(
      'Cut out, put the hole over the shaft, glue the pointer onto the horn so that it shows 90° in the middle of its sweep.'
    )}
  </p>
  <svg
    width="{2 * R + 20}mm"
    height="{R + 32}mm"
    viewBox="0 0 {2 * R + 20} {R + 32}"
    role="img"
    aria-label={say('Degrees along an arc')}
  >
    <path
      d="M{at(0, R).x} {at(0, R).y}A{R} {R} 0 0 1 {at(180, R).x} {at(180, R).y}"
      fill="none"
      stroke="#000"
      stroke-width="0.35"
    />
    {#each ticks as d (d)}
      {@const long = d % 30 === 0 ? 7 : d % 10 === 0 ? 4.5 : 2.5}
      <line
        x1={at(d, R).x}
        y1={at(d, R).y}
        x2={at(d, R - long).x}
        y2={at(d, R - long).y}
        stroke="#000"
        stroke-width={d % 30 === 0 ? 0.5 : 0.25}
      />
      {#if d % 30 === 0}<text x={at(d, R - 11).x} y={at(d, R - 11).y + 1.4} font-size="4" text-anchor="middle">{d}</text
        >{/if}
    {/each}
    <circle cx={R + 10} cy={R + 10} r="3" fill="none" stroke="#000" stroke-width="0.3" />
    <line x1={R + 7} y1={R + 10} x2={R + 13} y2={R + 10} stroke="#000" stroke-width="0.2" />
    <line x1={R + 10} y1={R + 7} x2={R + 10} y2={R + 13} stroke="#000" stroke-width="0.2" />
    <g transform="translate(10 {R + 18})"
      ><path d="M0 4.5L46 0.8L46 8.2Z" fill="none" stroke="#000" stroke-width="0.35" /><circle
        cx="40"
        cy="4.5"
        r="1.5"
        fill="none"
        stroke="#000"
        stroke-width="0.3"
      /></g
    >
    <text x="62" y={R + 24} font-size="3.4">{say('the pointer')}</text>
  </svg>
  <p class="mt-[6mm] text-[9pt]">
    <span class="mr-[3mm] inline-block h-[2mm] w-[100mm] border-[0.3mm] border-t-0 border-black"></span>{say(
      '10 cm, if it was printed at its true size'
    )}
  </p>
</main>

<style>
  @media print {
    .no-print {
      display: none;
    }
  }
  @page {
    size: A4;
    margin: 12mm;
  }
</style>
