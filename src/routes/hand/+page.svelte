<!-- The page on a phone or tablet: it is the hand of a workbench. With a mouse it can be leaned too. -->
<script lang="ts">
  import Remark from '../../lib/ui/Remark.svelte';
  import Field from '../../lib/ui/Field.svelte';
  import Button from '../../lib/ui/Button.svelte';
  import { onMount } from 'svelte';
  import { page } from '$app/state';
  import { trowel } from '../../../core/kit/kit.ts';
  import { say } from '../../../core/words.ts';
  import { silent } from '$lib/ui/silent.ts';
  import { LEVEL, type Lean } from '../../../core/yard/hand.ts';
  import HandBoardShape from '$lib/ui/HandBoardShape.svelte';
  import { leanOf } from '$lib/workbench/inputs/lean.ts';

  /** Told so often, and as a sign of life where nothing changes. */
  const EVERY_MS = 40;
  const ALIVE_MS = 180;
  /** m/s^2 beyond gravity that count as a shake */
  const SHAKE = 13;
  let code = $state(page.url.searchParams.get('code')?.toUpperCase() ?? '');
  let on = $state(false);
  /** the project of the workbench that it is the hand of */
  let whose = $state('');
  /** another phone is the hand; the workbench is asked */
  let asks = $state(false);
  const phone = Array.from(globalThis.crypto?.getRandomValues?.(new Uint8Array(12)) ?? [], (b) =>
    b.toString(16).padStart(2, '0')
  ).join('');
  let trouble = $state('');
  let sensors = $state<'unknown' | 'yes' | 'no'>('unknown');
  let lean = $state.raw<Lean>(LEVEL);
  let held = $state.raw<string[]>([]);
  let delayMs = $state(0);
  let zero: number | undefined;
  let shook = 0;
  let told = '';
  let toldAt = 0;
  let busy = false;
  let waiting: Record<string, unknown>[] = [];

  async function tell(message: Record<string, unknown>): Promise<void> {
    if (busy) return void waiting.push(message);
    busy = true;
    const began = performance.now();
    try {
      const response = await fetch(`/api/hand/${code}`, {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ ...message, phone, delayMs: Math.round(delayMs) })
      });
      delayMs = (performance.now() - began) / 2;
      toldAt = performance.now();
      asks = response.status === 202;
      const answer = (await response.json()) as { message?: string; name?: string };
      if (response.ok) whose = answer.name ?? whose;
      else {
        trouble = answer.message ?? '';
        on = false;
      }
    } catch {
      trouble = silent();
      on = false;
    }
    busy = false;
    const next = waiting.shift();
    if (next) void tell(next);
  }
  async function start() {
    trouble = '';
    code = code.trim().toUpperCase();
    if (!/^[A-Z]{6}$/.test(code)) {
      trouble = say('The code has six letters. It stands beside the yard, under Inputs.');
      return;
    }
    type Asks = { requestPermission?: () => Promise<string> };
    const asks = (globalThis.DeviceOrientationEvent ?? {}) as Asks;
    if (asks.requestPermission) {
      const answer = await asks.requestPermission().catch(() => 'denied');
      if (answer !== 'granted') {
        sensors = 'no';
        trouble = say(
          'This browser was told not to give away how the phone is leaned. Allow "motion" for this page in its settings, or lean with the finger.'
        );
      }
    }
    on = true;
    await tell({ lean });
  }
  onMount(() => {
    const orient = (e: DeviceOrientationEvent) => {
      if (e.beta === null || e.gamma === null) return;
      sensors = 'yes';
      zero ??= e.alpha ?? 0;
      lean = leanOf(e.alpha ?? 0, e.beta, e.gamma, zero);
    };
    const motion = (e: DeviceMotionEvent) => {
      const a = e.acceleration;
      if (!a || !on) return;
      if (Math.hypot(a.x ?? 0, a.y ?? 0, a.z ?? 0) > SHAKE && performance.now() - shook > 600) {
        shook = performance.now();
        void tell({ shake: 0.6 });
      }
    };
    window.addEventListener('deviceorientation', orient);
    window.addEventListener('devicemotion', motion);
    const timer = setInterval(() => {
      if (!on || busy) return;
      const now = JSON.stringify(lean);
      if (now === told && performance.now() - toldAt < ALIVE_MS) return;
      told = now;
      void tell({ lean });
    }, EVERY_MS);
    return () => {
      window.removeEventListener('deviceorientation', orient);
      window.removeEventListener('devicemotion', motion);
      clearInterval(timer);
    };
  });
  function bye() {
    if (on)
      navigator.sendBeacon(
        `/api/hand/${code}`,
        new Blob([JSON.stringify({ phone, bye: true })], { type: 'application/json' })
      );
  }
  let drag: { x: number; y: number; from: Lean } | undefined;
  const limit = (v: number) => Math.max(-90, Math.min(90, Math.round(v)));
  function move(e: PointerEvent) {
    if (!drag) return;
    lean = {
      ...drag.from,
      sideways: limit(drag.from.sideways + (e.clientX - drag.x) * 0.5),
      forwards: limit(drag.from.forwards - (e.clientY - drag.y) * 0.5)
    };
  }
  function touch(what: string, down: boolean) {
    held = down ? [...held, what] : held.filter((h) => h !== what);
    if (what === 'Dot' || what === 'Bar') void tell(down ? { press: what } : { release: what });
    else void tell({ edge: what === 'left edge' ? 'left' : 'right', touched: down });
  }
</script>

<svelte:head
  ><title>{say('Hand · Moss Bell')}</title><meta
    name="viewport"
    content="width=device-width, initial-scale=1"
  /></svelte:head
>
<svelte:window onpagehide={bye} />
<main class="flex h-full flex-col items-center gap-3 bg-linen p-4 text-center">
  <h1 class="font-display text-[22px] font-semibold">{say('Hand')}</h1>
  {#if trouble}<Remark class="max-w-md">{trouble}</Remark>{/if}
  {#if on && asks}<Remark tone="ink" role="status" class="max-w-md">
      {say('Another phone is the hand already. The workbench is asked whether you may be it.')}
    </Remark>{/if}
  {#if !on}
    <form
      class="flex items-center gap-2"
      onsubmit={(e) => {
        e.preventDefault();
        void start();
      }}
    >
      <Field
        class="w-40! text-center font-mono text-[22px] uppercase"
        bind:value={code}
        maxlength={6}
        aria-label={say('Code')}
        autocomplete="off"
      />
      <Button type="submit" look="go">{say('Be the hand')}</Button>
    </form>
  {:else}
    {#if whose && !asks}<p class="font-semibold" data-testid="whose-hand">
        {say('You are the hand of "{name}".', { name: whose })}
      </p>{/if}
    <p class="text-soft" data-testid="hand-state">
      {say('{code} · sideways {sideways}°, forwards {forwards}°, turned {turned}° · {n} ms', {
        code,
        sideways: Math.round(lean.sideways),
        forwards: Math.round(lean.forwards),
        turned: Math.round(lean.turned),
        n: Math.round(delayMs)
      })}
    </p>
    {#if sensors !== 'yes'}<p class="max-w-md text-[13px] text-soft">
        {isSecureContext
          ? say('No word yet from the sensors of this device. Lean it with finger or mouse.')
          : say(
              'This page was not opened over a secure address, so the browser withholds how the phone is leaned. Open the https address that stands beside the code, or lean with the finger.'
            )}
      </p>{/if}
    <!-- svelte-ignore a11y_no_static_element_interactions -->
    <div
      class="min-h-0 w-full flex-1 touch-none"
      style="perspective: 600px"
      onpointerdown={(e) => {
        if ((e.target as Element).closest('[role=button]')) return;
        drag = { x: e.clientX, y: e.clientY, from: lean };
        (e.currentTarget as Element).setPointerCapture(e.pointerId);
      }}
      onpointermove={move}
      onpointerup={() => (drag = undefined)}
      data-testid="pad"
    >
      <svg
        viewBox="-22 -50 44 100"
        class="h-full w-full"
        style={sensors === 'yes' ? '' : `transform: rotateX(${lean.forwards}deg) rotateY(${lean.sideways}deg)`}
        ><HandBoardShape kit={{ ...trowel, parts: [] }} {held} ontouch={touch} /></svg
      >
    </div>
    <div class="flex gap-2">
      <Button onclick={() => ((zero = undefined), (lean = LEVEL))}>{say('Level')}</Button>
      <Button onclick={() => tell({ shake: 0.6 })}>{say('Shake')}</Button>
    </div>
  {/if}
</main>
