<!-- The soft dark on the mat below a body: the fainter and wider, the higher the body is over it. Metres. -->
<script lang="ts" module>
  import { CanvasTexture } from 'three';
  let soft: CanvasTexture | undefined;
  /** drawn once: dark in the middle, nothing at the rim */
  function texture(): CanvasTexture {
    if (soft) return soft;
    const size = 64;
    const canvas = Object.assign(document.createElement('canvas'), { width: size, height: size });
    const g = canvas.getContext('2d')!;
    const fade = g.createRadialGradient(size / 2, size / 2, size * 0.24, size / 2, size / 2, size / 2);
    fade.addColorStop(0, 'rgba(30, 42, 34, 0.55)');
    fade.addColorStop(1, 'rgba(30, 42, 34, 0)');
    g.fillStyle = fade;
    g.fillRect(0, 0, size, size);
    return (soft = new CanvasTexture(canvas));
  }
</script>

<script lang="ts">
  import { T } from '@threlte/core';
  let {
    x,
    y,
    turn = 0,
    length,
    width,
    height = 0
  }: { x: number; y: number; /** radians */ turn?: number; length: number; width: number; height?: number } = $props();
  const wider = $derived(1.3 + height * 3);
</script>

<T.Mesh position={[x, 0.0015, -y]} rotation={[-Math.PI / 2, 0, turn]} scale={[length * wider, width * wider, 1]}>
  <T.PlaneGeometry args={[1, 1]} /><T.MeshBasicMaterial
    map={texture()}
    transparent
    depthWrite={false}
    opacity={1 / (1 + height * 8)}
  />
</T.Mesh>
