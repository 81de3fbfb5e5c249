/** Each demo project runs and does what its name says. */
import { describe, expect, it } from 'vitest';
import { lookOver } from '../core/language/lookover/lookover.ts';
import type { Project } from '../core/project.ts';
import { rehearse } from '../core/run/interpreter.ts';
import { stateAt, travelled } from '../core/trace/query.ts';
import type { TimedInput, Trace } from '../core/trace/trace.ts';
import { demoProjects } from './seed.ts';

const projects = new Map(demoProjects());
const run = (
  name: string,
  inputs: TimedInput[] = [],
  limitS = 30
): { project: Project; trace: Trace; end: ReturnType<typeof stateAt> } => {
  const project = projects.get(name)!;
  const trace = rehearse({ ...project, seed: 1, inputs, limitS });
  return { project, trace, end: stateAt(trace, trace.ticks * 1000) };
};
const logs = (trace: Trace) => trace.events.flatMap((e) => (e.type === 'log' ? [e.text] : []));

describe('demo projects', () => {
  it('have nothing to remark, but for the one with three mistakes', () => {
    for (const [name, project] of projects)
      expect(
        lookOver(project).map((r) => r.rule),
        name
      ).toHaveLength(name === 'three-mistakes' ? 3 : 0);
  });
  it('There and back comes home from the hoop at 80 cm', () => {
    const { project, trace, end } = run('there-and-back');
    expect(Math.hypot(end.x - project.mat.start.x, end.y - project.mat.start.y)).toBeLessThan(0.01);
    expect(travelled(trace)).toBeCloseTo(1.6, 2);
    const hoop = project.mat.hoops[0];
    const moved = trace.events.find((e) => e.type === 'moved')!;
    expect(Math.hypot(stateAt(trace, moved.tUs).x - hoop.x)).toBeLessThan(0.01);
  });
  it('Round the fern bed closes its five sides', () => {
    const { project, trace, end } = run('round-the-fern-bed');
    expect(travelled(trace)).toBeCloseTo(2, 1);
    expect(Math.hypot(end.x - project.mat.start.x, end.y - project.mat.start.y)).toBeLessThan(0.03);
    expect(trace.events.filter((e) => e.type === 'tone')).toHaveLength(1);
  });
  it('Wake the bell strikes three times, rests, and again', () => {
    const strikes = run('wake-the-bell', [], 12).trace.events.flatMap((e) =>
      e.type === 'servo' && 'angle' in e && e.angle === 130 ? [e.tUs / 1e6] : []
    );
    const gaps = strikes.slice(1, 6).map((t, i) => t - strikes[i]);
    expect(gaps.map((g) => g > 2)).toEqual([false, false, true, false, false]);
  });
  it('The dark board stops at the board and says so', () => {
    const { trace, end } = run('the-dark-board');
    expect(logs(trace)).toHaveLength(2);
    expect(end.lamps.left.on).toBe(true);
    expect(end.y).toBeLessThan(0.7);
  });
  it('Stop short stands a hand short of the bench', () => {
    const { end, trace } = run('stop-short');
    expect(Number(logs(trace)[0])).toBeGreaterThan(12);
    expect(Number(logs(trace)[0])).toBeLessThan(16);
    expect(trace.events.some((e) => e.type === 'touch')).toBe(false);
    expect(end.lamps.right.on).toBe(true);
  });
  it('Lantern signals flashes on Dot and goes dark when Bar is held', () => {
    const inputs: TimedInput[] = [
      { tUs: 1e6, input: { press: 'Dot' } },
      { tUs: 1.1e6, input: { release: 'Dot' } },
      { tUs: 5e6, input: { press: 'Bar' } }
    ];
    const { trace, end } = run('lantern-signals', inputs, 8);
    expect(trace.events.filter((e) => e.type === 'lamp' && e.lamp === 'left' && e.tUs < 5e6).length).toBe(7);
    expect([end.lamps.left.on, end.lamps.right.on, end.picture.includes('#')]).toEqual([false, false, false]);
  });
  it('Three mistakes shows all three', () => {
    expect(
      lookOver(projects.get('three-mistakes')!)
        .map((r) => r.rule)
        .sort()
    ).toEqual(['never-stopped', 'shown-for-no-time', 'socket-empty']);
  });
});
