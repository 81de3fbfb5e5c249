<!-- A display with what it shows, drawn round the origin within a given size: its lamps or the cells of its screen. -->
<script lang="ts">
  import { rasterOf, type Display } from '../../../core/kit/display.ts';
  import { levelOf, shownOn } from '../../../core/language/pixels.ts';
  import { pixelColour } from './lamp-colours.ts';
  type Pixel = { x: number; y: number };
  let {
    display,
    picture = '',
    wide,
    high,
    lit,
    onpixel
  }: {
    display: Display;
    picture?: string;
    wide: number;
    high: number;
    /** a pixel that is pointed at elsewhere */
    lit?: Pixel;
    /** the program's own place of the lamp that is pointed at, if it has one; and whether one is pointed at */
    onpixel?: (pixel: Pixel | undefined, over: boolean) => void;
  } = $props();
  const raster = $derived(rasterOf(display));
  /** from one lamp to the next; the panel ends a little beyond them */
  const pitch = $derived(Math.min(wide / (raster.columns + 0.5), high / (raster.rows + 0.5)));
  const size = $derived(display.type === 'screen' ? pitch : pitch * 0.78);
  const edge = $derived({ w: (raster.columns + 0.5) * pitch, h: (raster.rows + 0.5) * pitch });
</script>

<rect x={-edge.w / 2} y={-edge.h / 2} width={edge.w} height={edge.h} rx={pitch * 0.6} fill="#26352c" />
{#each shownOn(display, picture) as dot, i (i)}
  <rect
    x={((i % raster.columns) - (raster.columns - 1) / 2) * pitch - size / 2}
    y={(Math.floor(i / raster.columns) - (raster.rows - 1) / 2) * pitch - size / 2}
    width={size}
    height={size}
    rx={display.type === 'screen' ? 0 : size / 4}
    fill={pixelColour(dot.sign, raster.colours)}
    stroke={lit && dot.pixel?.x === lit.x && dot.pixel.y === lit.y ? '#ffffff' : 'none'}
    stroke-width={pitch * 0.16}
    role="presentation"
    data-lit={levelOf(dot.sign) || undefined}
    onpointerenter={onpixel && (() => onpixel(dot.pixel, true))}
    onpointerleave={onpixel && (() => onpixel(undefined, false))}
  />
{/each}
