/** The checks before a run, heaviest first. */
import type { Looked, Remark, Severity } from './remark.ts';
import { afterForEver, inputElsewhere, kitLacks, noLoop, slowTrigger } from './placing.ts';
import { emptyLoop, mirroredMotor, neverStopped, notJoined, shownForNoTime, stopAtOnce, unreadable } from './rules.ts';
import { socket } from './socket.ts';

const RULES = [
  unreadable,
  noLoop,
  inputElsewhere,
  slowTrigger,
  afterForEver,
  kitLacks,
  socket,
  notJoined,
  stopAtOnce,
  neverStopped,
  shownForNoTime,
  mirroredMotor,
  emptyLoop
];
const WEIGHT: Record<Severity, number> = { 'will not work': 0, 'probably not meant': 1, consider: 2 };

export function lookOver(looked: Looked): Remark[] {
  return RULES.flatMap((rule) => rule(looked)).sort((a, b) => WEIGHT[a.severity] - WEIGHT[b.severity]);
}
/** Remarks that keep a program from starting at all. */
export const stopsStart = (remark: Remark): boolean =>
  ['not-a-number', 'not-whole', 'nameless', 'no-loop', 'input-elsewhere', 'slow-trigger'].includes(remark.rule);
