/** rolled-on after a stop of wheels that were simply run: power was kept on until the mark. */
import { say } from '../../words.ts';
import { blocksOf, isMoving, one, powers, rolledOn, speeds, type Found, type Rule } from './finding.ts';

export const stops: Rule = ({ trace }) => {
  return trace.events.flatMap((e): Found[] => {
    if (e.type !== 'wheels' || e.how === 'power' || !isMoving(trace, e.tUs)) return [];
    const on = rolledOn(trace, e.tUs);
    // a brake needs its way too: what is told is more than that
    const [cm, deg] = e.how === 'coast' ? [1, 2] : [2.5, 4];
    if (on.cm <= cm && Math.abs(on.deg) <= deg) return [];
    return [
      {
        rule: 'rolled-on',
        weight: 64,
        says: says(on.cm, Math.abs(on.deg)),
        todo:
          e.how === 'coast'
            ? say('Stop with brake, stop a little earlier, or use a block that drives a distance.')
            : say('Stop a little earlier or drive slower before it, or use a block that drives a distance.'),
        blocks: blocksOf(e),
        fromUs: e.tUs,
        toUs: on.untilUs,
        lanes: [...speeds(trace), ...powers(trace)]
      }
    ];
  });
};
const says = (cm: number, deg: number): string => {
  const by = { cm: one(cm), deg: one(deg) };
  // what nobody would see is not told
  if (deg < 1) return say('After the stop it went on by {cm} cm: its momentum carried it.', by);
  if (cm < 0.5) return say('After the stop it turned on by {deg} °: its momentum carried it.', by);
  return say('After the stop it went on by {cm} cm and turned by {deg} °: its momentum carried it.', by);
};
