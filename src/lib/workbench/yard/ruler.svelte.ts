/** The yard's ruler: a line between two places of the mat. */
export type Place = { x: number; y: number };
export type Line = { from: Place; to: Place };
/** So near to a place that means something, that place is meant, m. */
const NEAR = 0.015;

export class Ruler {
  line = $state.raw<Line>();
  private drawing = false;

  /** @param places that the ruler keeps to */
  pointer(event: PointerEvent, kind: 'down' | 'move' | 'up', at: Place, places: readonly Place[]): void {
    const near = places.find((q) => Math.hypot(q.x - at.x, q.y - at.y) < NEAR);
    const p = near ? { x: near.x, y: near.y } : at;
    if (kind === 'down' && event.button === 0 && !(event.target as Element).closest('.mb-grab')) {
      (event.currentTarget as Element).setPointerCapture(event.pointerId);
      this.drawing = true;
      this.line = { from: p, to: p };
    } else if (kind === 'move' && this.drawing && this.line) this.line = { from: this.line.from, to: p };
    else if (kind === 'up') this.drawing = false;
  }
  away(): void {
    this.line = undefined;
  }
}
/** @returns how long it is, cm, and where it points, degrees clockwise from up */
export const measure = ({ from, to }: Line): { cm: number; deg: number } => ({
  cm: Math.hypot(to.x - from.x, to.y - from.y) * 100,
  deg: (90 - (Math.atan2(to.y - from.y, to.x - from.x) * 180) / Math.PI + 360) % 360
});
