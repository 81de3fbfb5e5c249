<!-- The rim of a machine, to press on anywhere: by key at its notch, or where the arrows have turned to. -->
<script lang="ts">
  import Button from '../../ui/Button.svelte';
  import { say } from '../../../../core/words.ts';
  let { press, disabled = false }: { press: (deg: number, down: boolean) => void; disabled?: boolean } = $props();
  /** degrees clockwise from the notch, which is up */
  let deg = $state(0);
  let down = $state(false);
  function touch(is: boolean) {
    if (down === is) return;
    down = is;
    press(deg, is);
  }
  function pointed(e: PointerEvent) {
    const at = e.currentTarget as HTMLElement;
    const box = at.getBoundingClientRect();
    const [x, y] = [e.clientX - box.left - box.width / 2, e.clientY - box.top - box.height / 2];
    deg = Math.round(((Math.atan2(x, -y) * 180) / Math.PI + 360) % 360);
    at.setPointerCapture(e.pointerId);
    touch(true);
  }
  function key(e: KeyboardEvent) {
    if (e.key === 'ArrowLeft' || e.key === 'ArrowRight') {
      e.preventDefault();
      deg = (deg + (e.key === 'ArrowRight' ? 15 : 345)) % 360;
    } else if ((e.key === ' ' || e.key === 'Enter') && !e.repeat) {
      e.preventDefault();
      touch(true);
    }
  }
</script>

<Button
  look="bare"
  class="grid h-10 w-10 cursor-pointer touch-none place-items-center rounded-full"
  {disabled}
  aria-label={say('Rim, pressed at {deg}° from the notch', { deg })}
  title={say('Press on the rim, where you like; by key: arrows turn, Space presses')}
  onpointerdown={pointed}
  onpointerup={() => touch(false)}
  onpointercancel={() => touch(false)}
  onkeydown={key}
  onkeyup={(e) => (e.key === ' ' || e.key === 'Enter') && touch(false)}
>
  <svg width="40" height="40" viewBox="-20 -20 40 40" aria-hidden="true">
    <circle r="15" fill="var(--card)" stroke={down ? '#b5842a' : 'var(--rule)'} stroke-width="5" />
    <path d="M-3 -18L0 -11L3 -18Z" fill="var(--ink)" />
    <circle
      r="3"
      cx={15 * Math.sin((deg * Math.PI) / 180)}
      cy={-15 * Math.cos((deg * Math.PI) / 180)}
      fill={down ? '#b5842a' : 'var(--soft)'}
    />
  </svg>
</Button>
