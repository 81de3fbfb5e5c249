<!-- What stands in the yard, in metres: x to the right, y up, z towards the viewer; the mat's y is -z. -->
<script lang="ts">
  import { T, useThrelte } from '@threlte/core';
  import {
    BufferGeometry,
    CanvasTexture,
    Color,
    Float32BufferAttribute,
    MeshStandardMaterial,
    SRGBColorSpace,
    Vector3,
    type PerspectiveCamera
  } from 'three';
  import { OrbitControls } from 'three/examples/jsm/controls/OrbitControls.js';
  import { stateAt } from '../../../../core/trace/query.ts';
  import { useWorkbench } from '../workbench.svelte.ts';
  import GroundShadow from './GroundShadow.svelte';
  import SceneDevice from './SceneDevice.svelte';
  import { trailPoints } from './trail.ts';
  let { drawing, simple, beams }: { drawing: SVGSVGElement | undefined; simple: boolean; beams: boolean } = $props();
  const w = useWorkbench();
  const { runs } = w;
  const { renderer, invalidate } = useThrelte();
  const mat = $derived(w.mat);
  const kit = $derived(w.session.project.kit);
  const view = $derived(runs.view);
  const pose = $derived(view ?? w.session.project.start ?? mat.start);
  const WALL = 0.09;

  /** the floor wears the drawing of the mat from above */
  const floor = new MeshStandardMaterial({ color: '#ffffff', roughness: 1 });
  $effect(() => {
    void mat;
    if (!drawing) return;
    const svg = drawing;
    const scale = Math.min(simple ? 8 : 16, 4000 / (Math.max(mat.width, mat.height) * 100));
    const canvas = document.createElement('canvas');
    canvas.width = mat.width * 100 * scale;
    canvas.height = mat.height * 100 * scale;
    const copy = svg.cloneNode(true) as SVGSVGElement;
    copy.removeAttribute('class');
    copy.setAttribute('width', String(canvas.width));
    copy.setAttribute('height', String(canvas.height));
    const image = new Image();
    image.onerror = () => console.error('the floor could not be drawn');
    image.onload = () => {
      canvas.getContext('2d')!.drawImage(image, 0, 0, canvas.width, canvas.height);
      const texture = new CanvasTexture(canvas);
      texture.colorSpace = SRGBColorSpace;
      texture.anisotropy = simple ? 1 : 8;
      floor.map?.dispose();
      floor.map = texture;
      floor.needsUpdate = true;
      invalidate();
    };
    image.src = `data:image/svg+xml;charset=utf-8,${encodeURIComponent(new XMLSerializer().serializeToString(copy))}`;
  });

  const things = $derived(
    mat.things.map((t, i) => ({ ...t, x: view?.values[`thing${i}x`] ?? t.x, y: view?.values[`thing${i}y`] ?? t.y }))
  );
  const others = $derived(
    (w.session.project.others ?? []).map((o, i) => {
      const run = runs.others[i];
      const state = run && run.version >= 0 ? stateAt(run.trace, runs.playheadUs) : undefined;
      return { ...o, state, pose: state ?? o.start ?? mat.start };
    })
  );
  const trail = $derived.by(() => {
    const geometry = new BufferGeometry();
    const run = runs.seen;
    const points = run && run.version >= 0 ? trailPoints(run.trace, runs.seenUs) : [];
    geometry.setAttribute(
      'position',
      new Float32BufferAttribute(
        points.flatMap(([x, y]) => [x, 0.003, -y]),
        3
      )
    );
    return geometry;
  });

  let camera = $state.raw<PerspectiveCamera>();
  $effect(() => {
    if (w.view !== 'free' || !camera) return;
    const far = Math.max(mat.width / Math.min(1, camera.aspect), mat.height);
    camera.position.set(mat.width / 2, far * 0.62, far * 0.36);
    const orbit = new OrbitControls(camera, renderer.domElement);
    orbit.target.set(mat.width / 2, 0, -mat.height / 2);
    orbit.maxPolarAngle = Math.PI / 2 - 0.05;
    orbit.minDistance = 0.15;
    orbit.maxDistance = 12;
    orbit.addEventListener('change', invalidate);
    orbit.update();
    invalidate();
    return () => orbit.dispose();
  });
  const aim = new Vector3();
  function follow() {
    if (w.view !== 'behind' || !camera) return;
    const a = ((90 - pose.facingDeg) * Math.PI) / 180;
    const [dx, dz] = [Math.cos(a), -Math.sin(a)];
    camera.position.set(pose.x - dx * 0.42, 0.27, -pose.y - dz * 0.42);
    camera.lookAt(aim.set(pose.x + dx * 0.3, 0.02, -pose.y + dz * 0.3));
    invalidate();
  }
  $effect(follow);
</script>

<T.PerspectiveCamera makeDefault bind:ref={camera} fov={50} near={0.01} far={40} oncreate={follow} />
<T.AmbientLight intensity={0.9} />
<T.HemisphereLight args={['#ffffff', '#b9c9a6', 0.9]} />
<T.DirectionalLight
  position={[mat.width * 0.2, 2.4, 0.6]}
  target.position={[mat.width / 2, 0, -mat.height / 2]}
  intensity={1.5}
  castShadow={!simple}
  shadow.mapSize={[1024, 1024]}
  shadow.camera.left={-2}
  shadow.camera.right={2}
  shadow.camera.top={2}
  shadow.camera.bottom={-2}
/>
<T.Mesh position={[mat.width / 2, -0.012, -mat.height / 2]}>
  <T.BoxGeometry args={[mat.width + 0.04, 0.02, mat.height + 0.04]} /><T.MeshStandardMaterial color="#9aa892" />
</T.Mesh>
<T.Mesh rotation={[-Math.PI / 2, 0, 0]} position={[mat.width / 2, 0, -mat.height / 2]} receiveShadow>
  <T.PlaneGeometry args={[mat.width, mat.height]} />
  <T is={floor} />
</T.Mesh>
{#each mat.walls as wall, i (i)}
  <T.Mesh
    position={[wall.x, WALL / 2, -wall.y]}
    rotation={[0, ((wall.turnDeg ?? 0) * Math.PI) / 180, 0]}
    castShadow
    receiveShadow
  >
    <T.BoxGeometry args={[wall.width, WALL, wall.height]} /><T.MeshStandardMaterial
      color={wall.colour}
      roughness={0.9}
    />
  </T.Mesh>
{/each}
{#each things as thing, i (i)}
  <GroundShadow x={thing.x} y={thing.y} length={thing.radius * 2} width={thing.radius * 2} />
  <T.Mesh position={[thing.x, thing.radius, -thing.y]} castShadow>
    <T.CylinderGeometry args={[thing.radius, thing.radius * 0.8, thing.radius * 2, 20]} /><T.MeshStandardMaterial
      color={thing.colour}
      roughness={0.8}
    />
  </T.Mesh>
{/each}
{#each mat.hoops as hoop, i (i)}
  <T.Mesh position={[hoop.x, 0.006, -hoop.y]} rotation={[-Math.PI / 2, 0, 0]} castShadow>
    <T.TorusGeometry args={[hoop.radius, 0.005, 8, 40]} /><T.MeshStandardMaterial color="#b5842a" />
  </T.Mesh>
{/each}
{#each mat.lamps ?? [] as lamp, i (i)}
  <T.Mesh position={[lamp.x, lamp.height, -lamp.y]}>
    <T.SphereGeometry args={[0.02, 12, 8]} /><T.MeshStandardMaterial
      color="#ffd25e"
      emissive={new Color('#ffd25e')}
      emissiveIntensity={0.8}
    />
  </T.Mesh>
{/each}
<T.Line geometry={trail}><T.LineBasicMaterial color="#3c6a26" /></T.Line>
<SceneDevice {kit} {pose} state={view} {beams} {simple} />
{#each others as o (o.name)}<SceneDevice kit={o.kit} pose={o.pose} state={o.state} beams={false} {simple} />{/each}
