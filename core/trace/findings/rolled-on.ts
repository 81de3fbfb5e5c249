/** rolled-on: a move that was let go at its mark and went on, by its own account: where it came to rest. */
import { retell, say, word } from '../../words.ts';
import type { Asked } from '../query.ts';
import {
  askedOf,
  onAfter,
  endsInBrake,
  isMoving,
  momentOf,
  movesSpan,
  one,
  peakOf,
  seconds,
  type Rule
} from './finding.ts';
import { wentOtherWay } from './other-way.ts';

/** So much is told, degrees and cm. */
export const rolledFurther = (m: Asked): boolean =>
  m.ended === 'done' && !wentOtherWay(m) && Math.abs(m.peak - m.got) > (m.unit === '°' ? 1 : 0.5) && m.unit !== 'turns';

export const rolledOnAfter: Rule = ({ trace, program, moves }) =>
  moves.filter(rolledFurther).map((m) => {
    const next = moves[moves.indexOf(m) + 1];
    const still = next && isMoving(trace, next.fromUs) && next.fromUs - m.toUs < 500_000;
    const words = {
      what: retell(m.what),
      asked: one(m.asked),
      unit: word(m.unit),
      more: one(Math.abs((m.unit === '°' ? m.rest : m.peak) - m.got)),
      all: one(m.rest),
      peak: one(m.peak),
      s: seconds(next?.fromUs ?? m.restUs)
    };
    const turns = m.unit === '°';
    const swings = Math.abs(m.peak - m.rest) > 1;
    return {
      rule: 'rolled-on',
      weight: still ? 76 : 68,
      says: turns
        ? still
          ? swings
            ? say(
                '{what}: asked {asked} °, swung to {peak} ° and came to rest at {all} °: it was still turning when the next move began, at {s} s.',
                words
              )
            : say(
                '{what}: asked {asked} °, turned {all} °: it was still turning when the next move began, at {s} s.',
                words
              )
          : swings
            ? say('{what}: asked {asked} °, swung to {peak} ° and came to rest at {all} °.', words)
            : say(
                '{what}: asked {asked} °, turned {all} °: it turned on by {more} ° after the motors were let go.',
                words
              )
        : still
          ? say(
              '{what}: asked {asked} {unit}, rolled {all} {unit}: it was still rolling when the next move began, at {s} s.',
              words
            )
          : say('After {what} it rolled on by {more} cm.', words),
      todo: endsInBrake(program, m.block)
        ? say('Wait until it stands before the next move.')
        : say('Let the move end in brake, or wait until it stands.'),
      figures: [
        askedOf(m),
        onAfter(trace, m, true),
        onAfter(trace, m, false),
        turns
          ? peakOf(trace, m)
          : { value: Math.abs(m.peak - m.got), sum: [{ take: 'furthest cm', fromUs: m.toUs, toUs: m.restUs }] },
        ...(next ? [momentOf(next.fromUs)] : [])
      ],
      ...movesSpan(trace, m),
      // where it was let go, and not where the move began
      fromUs: m.toUs,
      toUs: m.restUs
    };
  });
