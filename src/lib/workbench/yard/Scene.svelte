<!-- The yard in three dimensions, from behind the robot or from anywhere: the same poses, read off the same trace. -->
<script lang="ts">
  import Button from '../../ui/Button.svelte';
  import { Canvas } from '@threlte/core';
  import { NoToneMapping, PCFSoftShadowMap, WebGLRenderer } from 'three';
  import { say } from '../../../../core/words.ts';
  import { useWorkbench } from '../workbench.svelte.ts';
  import MatShape from './MatShape.svelte';
  import SceneWorld from './SceneWorld.svelte';
  const w = useWorkbench();
  let host: HTMLDivElement;
  let drawing = $state<SVGSVGElement>();
  /** without a graphics processor: no shadows, fewer dots */
  let simple = $state(false);
  let beams = $state(false);
  const mat = $derived(w.mat);
  // loose things and what stands up are bodies here, not paint
  const floor = $derived({ ...mat, walls: [], things: [] });

  function createRenderer(canvas: HTMLCanvasElement): WebGLRenderer {
    const gl = canvas.getContext('webgl2', { antialias: true, preserveDrawingBuffer: true });
    const info = gl?.getExtension('WEBGL_debug_renderer_info');
    const name = gl && info ? String(gl.getParameter(info.UNMASKED_RENDERER_WEBGL)) : '';
    simple = !gl || /swiftshader|llvmpipe|software|basic render/i.test(name);
    const renderer = new WebGLRenderer({ canvas, context: gl ?? undefined, antialias: true });
    renderer.shadowMap.enabled = !simple;
    renderer.shadowMap.type = PCFSoftShadowMap;
    return renderer;
  }
  const hasWebGl = (() => {
    try {
      return !!document.createElement('canvas').getContext('webgl2');
    } catch {
      return false;
    }
  })();
  $effect(() => {
    w.grab = () => {
      const canvas = host.querySelector('canvas');
      return canvas ? createImageBitmap(canvas) : Promise.reject(new Error());
    };
    return () => (w.grab = undefined);
  });
  const view = $derived(w.runs.view);
  const pose = $derived(view ?? w.session.project.start ?? mat.start);
</script>

<div
  bind:this={host}
  class="relative h-full w-full overflow-hidden bg-[#dfe5d6] dark:bg-[#1b241f]"
  data-testid="scene"
  data-view={w.view}
  data-simple={simple}
  data-x={pose.x.toFixed(4)}
  data-y={pose.y.toFixed(4)}
>
  <svg
    bind:this={drawing}
    class="hidden"
    xmlns="http://www.w3.org/2000/svg"
    viewBox="0 0 {mat.width * 100} {mat.height * 100}"><MatShape mat={floor} /></svg
  >
  {#if !hasWebGl}
    <p class="p-4 text-soft">
      {say('This browser cannot draw in three dimensions (WebGL 2 is missing). The view from above shows the same.')}
    </p>
  {:else}
    <Canvas
      {createRenderer}
      toneMapping={NoToneMapping}
      dpr={simple ? 1 : Math.min(2, devicePixelRatio)}
      shadows={simple ? false : PCFSoftShadowMap}
    >
      <SceneWorld {drawing} {simple} {beams} />
    </Canvas>
  {/if}
  <p
    class="pointer-events-none absolute bottom-1.5 left-2 rounded-md bg-paper/90 px-2 py-0.5 text-[11.5px] text-soft tabular-nums"
  >
    {say('x {x}, y {y} cm', { x: (pose.x * 100).toFixed(1), y: (pose.y * 100).toFixed(1) })}{simple
      ? ` · ${say('simple picture: no graphics processor')}`
      : ''}
  </p>
  <Button
    look="quiet"
    class="absolute top-2 right-2 bg-card"
    aria-pressed={beams}
    title={say('Show the cone of the distance sensor and the spots of the line sensors')}
    onclick={() => (beams = !beams)}>{say('Beams')}</Button
  >
</div>
