/**
 * The robot taken with the pointer: put elsewhere while it stands, or lifted, carried and set down while it runs. The keys do
 * the former too.
 */
import type { Input } from '../../../../core/trace/trace.ts';
import type { Pose } from '../../../../core/yard/mat.ts';

/** A hand that carries is told so often, and needs so long to arrive, ms. */
const EVERY_MS = 33;
const ARRIVES_MS = 250;
type Yard = {
  at(event: PointerEvent): { x: number; y: number };
  give(input: Input): void;
  place(pose: Pose): void;
  readonly pose: Pose;
  readonly size: { width: number; height: number };
  /** it stands still, and can be put elsewhere; or a hand can take it */
  readonly canMove: boolean;
  readonly canGrab: boolean;
  /** time stands still: a hand moves it in one go, and where it put it is seen at once */
  readonly paused: boolean;
  moved(pose: Pose): void;
};
const round360 = (deg: number): number => ((deg % 360) + 360) % 360;

export class Hold {
  /** while it is dragged, where the hand has it */
  held = $state.raw<Pose>();
  private grab: { kind: 'move' | 'turn'; dx: number; dy: number } | undefined;
  private told = 0;
  constructor(private readonly yard: Yard) {}

  down(event: PointerEvent, kind: 'move' | 'turn'): void {
    const { yard } = this;
    if (!yard.canGrab) return;
    event.stopPropagation();
    (event.currentTarget as Element).setPointerCapture(event.pointerId);
    if (!yard.canMove && !yard.paused) yard.give({ lift: true });
    const p = yard.at(event);
    this.grab = { kind, dx: yard.pose.x - p.x, dy: yard.pose.y - p.y };
    this.held = { ...yard.pose };
  }
  move(event: PointerEvent): void {
    const { grab, held, yard } = this;
    if (!grab || !held) return;
    const p = yard.at(event);
    if (grab.kind === 'move') {
      const { width, height } = yard.size;
      this.held = {
        ...held,
        x: Math.min(width, Math.max(0, p.x + grab.dx)),
        y: Math.min(height, Math.max(0, p.y + grab.dy))
      };
    } else {
      const deg = 90 - (Math.atan2(p.y - held.y, p.x - held.x) * 180) / Math.PI;
      this.held = { ...held, facingDeg: round360(event.shiftKey ? deg : Math.round(deg / 5) * 5) };
    }
    if (!yard.canMove && !yard.paused && performance.now() - this.told > EVERY_MS) this.carry();
  }
  private carry(): void {
    this.told = performance.now();
    const { x, y, facingDeg } = this.held!;
    const tenth = (v: number): number => Math.round(v * 10) / 10;
    this.yard.give({ carry: { x: tenth(x * 100), y: tenth(y * 100), facing: tenth(facingDeg) } });
  }
  up(): void {
    const { held, yard } = this;
    if (held && yard.paused) {
      yard.give({ lift: true });
      this.carry();
      yard.give({ lift: false });
      yard.moved(held);
    } else if (held && !yard.canMove) {
      this.carry();
      setTimeout(() => yard.give({ lift: false }), ARRIVES_MS);
    } else if (held) yard.place(held);
    this.grab = undefined;
    this.held = undefined;
  }
  keys(event: KeyboardEvent): void {
    const { yard } = this;
    if (!yard.canMove) return;
    const pose = byKey(yard.pose, event);
    if (pose) yard.place(pose);
  }
}
/** A pose moved by a key: arrows by a centimetre (with Shift a millimetre), brackets turn it by 5 degrees. */
export function byKey(pose: Pose, event: KeyboardEvent): Pose | undefined {
  const step = event.shiftKey ? 0.001 : 0.01;
  const by: Record<string, Partial<Pose>> = {
    ArrowLeft: { x: pose.x - step },
    ArrowRight: { x: pose.x + step },
    ArrowUp: { y: pose.y + step },
    ArrowDown: { y: pose.y - step },
    '[': { facingDeg: pose.facingDeg - 5 },
    ']': { facingDeg: pose.facingDeg + 5 }
  };
  if (!(event.key in by)) return undefined;
  event.preventDefault();
  return { ...pose, ...by[event.key] };
}
