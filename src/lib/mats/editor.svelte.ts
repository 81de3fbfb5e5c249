/** What is chosen and how: the state of the mat editor. A gesture is drawn on a draft, and becomes one change of the project. */
import { line as curveLine, curveCatmullRom } from 'd3-shape';
import { svgPathProperties } from 'svg-path-properties';
import type { Mat } from '../../../core/yard/mat.ts';
import { addItem, arcPoints, lightness, same, snapTo, type Item, type Kind } from '../../../core/yard/matedit.ts';
import { later, say } from '../../../core/words.ts';
import type { Session } from '../project/session.svelte.ts';

export const TOOLS = [
  ['choose', later('Choose')],
  ['walls', later('Wall')],
  ['lines', later('Line')],
  ['arc', later('Arc')],
  ['free', later('Freehand')],
  ['areas', later('Area')],
  ['things', later('Loose thing')],
  ['hoops', later('Hoop')],
  ['marks', later('Mark')],
  ['lamps', later('Lamp')],
  ['warmth', later('Warm or cold')],
  ['damp', later('Damp soil')]
] as const;
export type Tool = (typeof TOOLS)[number][0];
type XY = [number, number];

export class MatEditor {
  tool = $state<Tool>('choose');
  chosen = $state.raw<Item[]>([]);
  draft = $state.raw<Mat>();
  /** metres; 0 for none */
  grid = $state(0.01);
  colour = $state('#4a4438');
  lineWidth = $state(0.034);
  arcDeg = $state(90);
  /** corners set so far, of a line or an area that is being drawn */
  corners = $state.raw<XY[]>([]);

  constructor(private readonly of: () => Session) {}

  get mat(): Mat {
    return this.draft ?? this.of().project.mat;
  }
  isChosen(item: Item): boolean {
    return this.chosen.some((c) => same(c, item));
  }
  choose(item: Item | undefined, more = false): void {
    if (!item) {
      if (!more) this.chosen = [];
    } else if (more)
      this.chosen = this.isChosen(item) ? this.chosen.filter((c) => !same(c, item)) : [...this.chosen, item];
    else this.chosen = [item];
  }
  /** One gesture of the history. A mat that was changed is one's own: it keeps its name. */
  change(label: string, mat: Mat): void {
    this.draft = undefined;
    const session = this.of();
    if (mat === session.project.mat) return;
    const { start, ...rest } = session.project;
    const moved = mat.start !== session.project.mat.start;
    session.change(label, { ...rest, ...(start && !moved ? { start } : {}), mat });
  }
  snap([x, y]: XY): XY {
    return [snapTo(x, this.grid), snapTo(y, this.grid)];
  }
  private add(kind: Kind, one: object, label: string): void {
    const { mat, item } = addItem(this.of().project.mat, kind, one);
    this.change(label, mat);
    this.chosen = [item];
    this.tool = 'choose';
    this.corners = [];
  }
  get isDrawing(): boolean {
    return this.tool === 'lines' || this.tool === 'areas';
  }
  /** One more corner; a click on the first closes the shape. */
  corner(p: XY): void {
    const first = this.corners[0];
    if (first && this.corners.length > 2 && Math.hypot(p[0] - first[0], p[1] - first[1]) < 0.012)
      return this.finish(true);
    this.corners = [...this.corners, p];
  }
  finish(closed = false): void {
    const points = this.corners;
    if (this.tool === 'areas' && points.length >= 3)
      this.add('areas', { points, colour: this.colour, reflectance: lightness(this.colour) }, say('draw an area'));
    else if (this.tool === 'lines' && points.length >= 2) this.addLine(points, say('draw a line'), closed);
    this.corners = [];
  }
  private addLine(points: XY[], label: string, closed = false): void {
    this.add(
      'lines',
      {
        points,
        width: this.lineWidth,
        colour: this.colour,
        reflectance: lightness(this.colour),
        ...(closed ? { closed } : {})
      },
      label
    );
  }
  arc(from: XY, to: XY): void {
    if (Math.hypot(to[0] - from[0], to[1] - from[1]) > 0.01)
      this.addLine(arcPoints(from, to, this.arcDeg), say('draw an arc'));
  }
  /** A way drawn by hand: points far enough apart, and a smooth curve (Catmull-Rom) through them. */
  free(raw: XY[]): void {
    const apart = raw.reduce<XY[]>((kept, p) => {
      const last = kept.at(-1);
      return !last || Math.hypot(p[0] - last[0], p[1] - last[1]) > 0.025 ? [...kept, p] : kept;
    }, []);
    if (apart.length < 2) return;
    const path = new svgPathProperties(curveLine<XY>().curve(curveCatmullRom.alpha(0.5))(apart)!);
    const length = path.getTotalLength();
    const count = Math.min(1500, Math.max(2, Math.ceil(length / 0.01)));
    const points = Array.from({ length: count + 1 }, (_, i): XY => {
      const { x, y } = path.getPointAtLength((length * i) / count);
      return [Math.round(x * 1e4) / 1e4, Math.round(y * 1e4) / 1e4];
    });
    this.addLine(points, say('draw by hand'));
  }
  box(from: XY, to: XY): void {
    const [width, height] = [Math.abs(to[0] - from[0]), Math.abs(to[1] - from[1])];
    if (width < 0.002 || height < 0.002) return;
    this.add(
      'walls',
      {
        x: snapTo((from[0] + to[0]) / 2, 0),
        y: snapTo((from[1] + to[1]) / 2, 0),
        width: snapTo(width, 0),
        height: snapTo(height, 0),
        colour: '#b9c9a6'
      },
      say('put up a wall')
    );
  }
  place([x, y]: XY): void {
    const at = { x, y };
    const { hoops, marks } = this.of().project.mat;
    switch (this.tool) {
      case 'things':
        return this.add(
          'things',
          { ...at, radius: 0.04, massKg: 0.15, colour: '#b8795a', name: 'pot' },
          say('put down a loose thing')
        );
      case 'hoops':
        return this.add(
          'hoops',
          { ...at, radius: 0.1, name: say('hoop {n}', { n: hoops.length + 1 }) },
          say('lay a hoop')
        );
      case 'marks':
        return this.add('marks', { ...at, text: String.fromCharCode(65 + (marks.length % 26)) }, say('write a mark'));
      case 'lamps':
        return this.add('lamps', { ...at, height: 0.3, brightness: 50 }, say('hang a lamp'));
      case 'warmth':
        return this.add('warmth', { ...at, radius: 0.15, celsius: 0 }, say('make a cold place'));
      case 'damp':
        return this.add('damp', { ...at, radius: 0.1, moisture: 80 }, say('make a damp place'));
      default:
        return undefined;
    }
  }
}
