<!-- The other devices in the yard, as they are at the playhead; before a run where they start, and can be put elsewhere. -->
<script lang="ts">
  import { say } from '../../../../core/words.ts';
  import type { Pose } from '../../../../core/yard/mat.ts';
  import DeviceShape from '../../ui/DeviceShape.svelte';
  import { useWorkbench } from '../workbench.svelte.ts';
  let { at, canMove }: { at: (event: PointerEvent) => { x: number; y: number }; canMove: boolean } = $props();
  const w = useWorkbench();
  const { runs, session } = w;
  const mat = $derived(w.mat);
  const H = $derived(mat.height);
  let shifted = $state.raw<{ index: number; pose: Pose }>();
  /** it was carried to another place: that was no click */
  let carried = false;
  const others = $derived(
    (session.project.others ?? []).map((o, i) => {
      const state = runs.viewOf(i);
      return { ...o, state, pose: shifted?.index === i ? shifted.pose : (state ?? o.start ?? mat.start) };
    })
  );
  /** The hand is on it: pressed, leaned and read in the panel of the hand. */
  function take(name: string) {
    w.handOn = name;
    w.handOpen = true;
  }
  function shift(event: PointerEvent, index: number, kind: 'down' | 'move' | 'up') {
    if (kind === 'down') {
      carried = false;
      if (!canMove) return;
      event.stopPropagation();
      (event.currentTarget as Element).setPointerCapture(event.pointerId);
      shifted = { index, pose: others[index].pose };
    } else if (shifted?.index !== index) return;
    else if (kind === 'move') {
      carried = true;
      const p = at(event);
      const within = (v: number, most: number) => Math.round(Math.min(most, Math.max(0, v)) * 1000) / 1000;
      shifted = { index, pose: { ...shifted.pose, x: within(p.x, mat.width), y: within(p.y, H) } };
    } else {
      const { x, y, facingDeg } = shifted.pose;
      if (!carried) {
        shifted = undefined;
        return;
      }
      const list = (session.project.others ?? []).map((o, i) =>
        i === index ? { ...o, start: { x, y, facingDeg } } : o
      );
      shifted = undefined;
      session.change(say('move {name}', { name: list[index].name }), { ...session.project, others: list });
      runs.clear();
    }
  }
</script>

{#each others as o, i (o.name)}
  <g
    transform="translate({o.pose.x * 100} {(H - o.pose.y) * 100}) rotate({o.pose.facingDeg - 90}) scale(0.1)"
    role="button"
    tabindex="0"
    aria-label={say('{name}: press, lean and read it', { name: o.name })}
    class="mb-grab {canMove ? 'cursor-grab' : 'cursor-pointer'}"
    onclick={() => carried || take(o.name)}
    onkeydown={(e) => {
      if (e.key !== 'Enter' && e.key !== ' ') return;
      e.preventDefault();
      take(o.name);
    }}
    onpointerdown={(e) => shift(e, i, 'down')}
    onpointermove={(e) => shift(e, i, 'move')}
    onpointerup={(e) => shift(e, i, 'up')}
    data-testid="other"
    data-x={o.pose.x.toFixed(4)}
    data-y={o.pose.y.toFixed(4)}
  >
    <DeviceShape kit={o.kit} lamps={o.state?.lamps} picture={o.state?.picture ?? ''} />
  </g>
  <text x={o.pose.x * 100} y={(H - o.pose.y) * 100 + 9} text-anchor="middle" font-size="2.6" fill="#4a4438"
    >{o.name}</text
  >
{/each}
