/** Whether a machine drives and stays where it is. */
import { wheelKey } from '../../../../core/kit/keys.ts';
import type { Kit } from '../../../../core/kit/kit.ts';
import { stateAt } from '../../../../core/trace/query.ts';
import type { Trace } from '../../../../core/trace/trace.ts';
import type { Pose } from '../../../../core/yard/mat.ts';

/** wheels that are driven, and a chassis that goes no further than this, for so long */
const STUCK_US = 1_500_000;
const STUCK_M = 0.004;
const STUCK_DEG = 2;
/** percent */
const DRIVEN = 5;

export class Stillness {
  private since: (Pose & { us: number }) | undefined;
  constructor(private readonly kit: Kit) {}
  /** @returns whether it is stuck at the end of what is recorded */
  look(trace: Trace, pose: Pose): boolean {
    const us = trace.ticks * 1000;
    const { values } = stateAt(trace, us);
    const driven = this.kit.wheels.some(({ id }) => Math.abs(values[wheelKey('power', id)] ?? 0) > DRIVEN);
    const was = this.since;
    if (
      !driven ||
      !was ||
      Math.abs(pose.x - was.x) + Math.abs(pose.y - was.y) > STUCK_M ||
      Math.abs(pose.facingDeg - was.facingDeg) > STUCK_DEG
    )
      this.since = { ...pose, us };
    return us - this.since!.us > STUCK_US;
  }
}
