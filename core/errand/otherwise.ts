/**
 * Other situations for an errand that is made: its start, what stands on its mat, its light and its air, each a little otherwise.
 * One is worth something where the model still meets all goals, and a program that rang the bell wrongly does not.
 */
import { channelsRead } from '../language/facts.ts';
import { liveSteps, walkSteps, type Program } from '../language/program.ts';
import { stateAt } from '../trace/query.ts';
import { sameBehaviour } from '../trace/same.ts';
import { endUs } from '../trace/trace.ts';
import { say } from '../words.ts';
import { DAYLIGHT } from '../yard/surroundings.ts';
import type { Errand } from './errand.ts';
import { walkGoals } from './goals.ts';
import { triedIn } from './proof.ts';
import type { Situation } from './task.ts';
import { yardsOf, type World } from './yards.ts';

/** What is otherwise, so that it stays so whatever else becomes of the mat. */
export type Otherwise = {
  says: string;
  /** the start, from where it is and as the robot looks: m, and degrees clockwise */
  start?: { ahead: number; left: number; turnDeg: number };
  /** one of the loose things or the boxes, by its place in the list, m */
  moved?: { list: 'things' | 'walls'; at: number; dx: number; dy: number };
  daylight?: number;
  airC?: number;
  /** hoops that go with what was moved, m */
  hoops?: Readonly<Record<string, readonly [dx: number, dy: number]>>;
};
const rounded = (v: number): number => Math.round(v * 1000) / 1000;

export function situationOf({ says, start, moved, daylight, airC, hoops }: Otherwise, world: World): Situation {
  const { mat } = world;
  const from = world.start ?? mat.start;
  const out: Situation = { says };
  if (start) {
    const facing = (from.facingDeg * Math.PI) / 180;
    const { ahead, left, turnDeg } = start;
    out.start = {
      x: rounded(from.x + ahead * Math.sin(facing) - left * Math.cos(facing)),
      y: rounded(from.y + ahead * Math.cos(facing) + left * Math.sin(facing)),
      facingDeg: from.facingDeg + turnDeg
    };
  }
  if ([moved, hoops, daylight, airC].some((o) => o !== undefined)) {
    const put = <T extends { x: number; y: number }>(one: T, [dx, dy]: readonly [number, number]): T => ({
      ...one,
      x: rounded(one.x + dx),
      y: rounded(one.y + dy)
    });
    const shifted = <T extends { x: number; y: number }>(list: 'things' | 'walls', all: T[]): T[] =>
      moved?.list === list ? all.map((one, i) => (i === moved.at ? put(one, [moved.dx, moved.dy]) : one)) : all;
    out.mat = {
      ...mat,
      things: shifted('things', mat.things),
      walls: shifted('walls', mat.walls),
      hoops: mat.hoops.map((h) => (hoops?.[h.name] ? put(h, hoops[h.name]) : h)),
      ...(daylight === undefined ? {} : { daylight }),
      ...(airC === undefined ? {} : { airC })
    };
    // a mat of its own has its own start
    if (!out.start && world.start) out.start = world.start;
  }
  return out;
}

/** More than a hoop is wide: what stops in it by counting is not in it any more, m. */
const STEP = 0.15;
const FAR = 0.2;
/** Boxes longer than this are the walls of a room, m. */
const ROOM = 0.5;
const AHEAD = 0.3;
const cm = (m: number): number => Math.round(m * 100);

/** What could be otherwise in a world, before anybody has tried whether that is of use. */
export function candidates({ kit, mat, start = mat.start }: World, model: Program): Otherwise[] {
  const facing = (start.facingDeg * Math.PI) / 180;
  const [fx, fy] = [Math.sin(facing), Math.cos(facing)];
  /** those before the robot, the nearest first; only the nearest box, of which none has a name */
  const before = <T extends { x: number; y: number }>(all: readonly T[], loose: (one: T) => boolean = () => true) =>
    all
      .map((one, at) => {
        const [dx, dy] = [one.x - start.x, one.y - start.y];
        return { one, at, ahead: dx * fx + dy * fy, aside: Math.abs(dy * fx - dx * fy) };
      })
      .filter(({ one, ahead, aside }) => loose(one) && ahead > 0 && aside < AHEAD)
      .sort((a, b) => a.ahead - b.ahead)
      .slice(0, 2);
  const out: Otherwise[] = [];
  const nearer = (list: 'things' | 'walls', at: number, what: string): void => {
    for (const by of [-FAR, FAR]) {
      const { x, y } = mat[list][at];
      const [dx, dy] = [rounded(by * fx), rounded(by * fy)];
      if (x + dx < 0 || y + dy < 0 || x + dx > mat.width || y + dy > mat.height) continue;
      out.push({
        says:
          by < 0
            ? say('{what} stands {n} cm nearer', { what, n: cm(FAR) })
            : say('{what} stands {n} cm further away', { what, n: cm(FAR) }),
        moved: { list, at, dx, dy }
      });
    }
  };
  for (const { one, at } of before(mat.things)) nearer('things', at, one.name ?? say('the thing ahead'));
  for (const { at } of before(mat.walls, (w) => Math.max(w.width, w.height) <= ROOM).slice(0, 1))
    nearer('walls', at, say('the box ahead'));
  const at = (says: string, ahead: number, left: number, turnDeg = 0): void =>
    void out.push({ says, start: { ahead, left, turnDeg } });
  at(say('it starts {n} cm further back', { n: cm(STEP) }), -STEP, 0);
  at(say('it starts {n} cm further ahead', { n: cm(STEP) }), STEP, 0);
  at(say('it starts {n} cm further to the left', { n: cm(STEP) }), 0, STEP);
  at(say('it starts {n} cm further to the right', { n: cm(STEP) }), 0, -STEP);
  at(say('it starts turned by {n}°', { n: 10 }), 0, 0, 10);
  const reads = new Set([...liveSteps(model)].flatMap((s) => [...walkSteps([s])]).flatMap((s) => channelsRead(s, kit)));
  const light = mat.daylight ?? DAYLIGHT;
  if (reads.has('light'))
    for (const by of [-20, 20])
      if (light + by >= 0 && light + by <= 100)
        out.push({
          says: by < 0 ? say('it is darker') : say('it is brighter'),
          daylight: light + by
        });
  if (reads.has('temperature'))
    for (const by of [-5, 5])
      out.push({ says: by < 0 ? say('it is colder') : say('it is warmer'), airC: mat.airC + by });
  return out;
}

export type Proposal = Otherwise & {
  /** how many of the programs that ring the bell miss a goal there */ catches: number;
};
/**
 * Situations in which the model meets all goals, and some of the programs do not that meet them as yet; what catches most first.
 * Where a thing stands elsewhere, a hoop in which the model is to stop goes with the model.
 * @param open programs that meet all goals in the errand's situations
 */
export function proposals(errand: Errand, open: readonly Program[]): Proposal[] {
  const world: World = errand;
  const first = triedIn(errand, yardsOf(errand, world)[0], errand.model);
  const end = stateAt(first.trace, endUs(first.trace));
  const stops = [...walkGoals(errand.goals)].flatMap((g) => (g.kind === 'stop' ? String(g.hoop) : []));
  const out: Proposal[] = [];
  for (const one of candidates(world, errand.model)) {
    const come = (otherwise: Otherwise) => {
      const yard = yardsOf({ ...errand, situations: [situationOf(otherwise, world)] }, world)[1];
      return { otherwise, yard, ...triedIn(errand, yard, errand.model) };
    };
    let came = come(one);
    if (!came.verdict.met && one.moved) {
      const there = stateAt(came.trace, endUs(came.trace));
      const by = [rounded(there.x - end.x), rounded(there.y - end.y)] as const;
      came = come({ ...one, hoops: Object.fromEntries(stops.map((name) => [name, by])) });
    }
    if (!came.verdict.met || sameBehaviour(first.trace, came.trace).same) continue;
    const catches = open.filter((program) => !triedIn(errand, came.yard, program).verdict.met).length;
    if (catches) out.push({ ...came.otherwise, catches });
  }
  return out.sort((a, b) => b.catches - a.catches);
}
