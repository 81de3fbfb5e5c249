<!-- Where the robot began and where it is now, what lies between, and the program's marks as a stopwatch. -->
<script lang="ts">
  import { eventsOf } from '../../../../core/trace/apart.ts';
  import { reading } from '../../../../core/units.ts';
  import { say } from '../../../../core/words.ts';
  import type { Pose } from '../../../../core/yard/mat.ts';
  import { useWorkbench } from '../workbench.svelte.ts';
  let { from, pose, hint }: { from: Pose; pose: Pose; hint: boolean } = $props();
  const { runs } = useWorkbench();
  const text = (p: Pose) =>
    say('x {x}, y {y} cm, {deg}°', {
      x: (p.x * 100).toFixed(1),
      y: (p.y * 100).toFixed(1),
      deg: reading('heading', p.facingDeg - from.facingDeg)
    });
  const turned = $derived(((((pose.facingDeg - from.facingDeg) % 360) + 540) % 360) - 180 || 0);
  const marks = $derived(
    runs.seen && runs.seen.version >= 0
      ? eventsOf(runs.seen.trace, 'mark').map((e) => ({ s: e.tUs / 1e6, text: e.text }))
      : []
  );
</script>

<dl
  class="pointer-events-none absolute top-11 left-2 grid grid-cols-[auto_auto] gap-x-2 rounded-md bg-paper/95 px-2 py-1 text-[12px] tabular-nums shadow"
  data-testid="measures"
>
  <dt class="text-soft">{say('start')}</dt>
  <dd>{text(from)}</dd>
  <dt class="text-soft">{say('now')}</dt>
  <dd>{text(pose)}</dd>
  <dt class="text-soft">{say('between')}</dt>
  <dd>
    {say('{cm} cm, turned {deg}°', {
      cm: (Math.hypot(pose.x - from.x, pose.y - from.y) * 100).toFixed(1),
      deg: turned.toFixed(1)
    })}
  </dd>
  {#each marks as m, i (i)}
    <dt class="text-soft">{m.text}</dt>
    <dd>{m.s.toFixed(3)} s{i ? ` (+${(m.s - marks[i - 1].s).toFixed(3)} s)` : ''}</dd>
  {/each}
  {#if hint}<dd class="col-span-2 text-soft">{say('Drag over the mat to measure.')}</dd>{/if}
</dl>
