import { describe, expect, it } from 'vitest';
import { barrow } from '../../../core/kit/kit.ts';
import { newProject, type Project } from '../../../core/project.ts';
import { hall } from '../../../core/testing/build.ts';
import type { Session } from '../project/session.svelte.ts';
import { MatEditor } from './editor.svelte.ts';

/** An editor on a project, and the labels of its gestures. */
function edited() {
  const labels: string[] = [];
  const session = {
    project: newProject('Mat', barrow, hall),
    change(label: string, project: Project) {
      labels.push(label);
      session.project = project;
    }
  };
  return { session, labels, editor: new MatEditor(() => session as unknown as Session) };
}

describe('the mat editor', () => {
  it('makes one gesture of each thing that is put down, chooses it, and goes back to choosing', () => {
    const { session, labels, editor } = edited();
    for (const tool of ['things', 'hoops', 'marks', 'lamps', 'warmth', 'damp'] as const) {
      editor.tool = tool;
      editor.place([1, 2]);
      expect(editor.tool).toBe('choose');
      expect(editor.chosen).toEqual([{ kind: tool, index: 0 }]);
    }
    expect(labels).toHaveLength(6);
    const { mat } = session.project;
    expect([mat.things[0], mat.hoops[0], mat.lamps![0], mat.damp![0]].every((o) => o.x === 1 && o.y === 2)).toBe(true);
  });
  it('closes an area with a click on its first corner, and needs three corners for it', () => {
    const { session, editor } = edited();
    editor.tool = 'areas';
    for (const p of [
      [0, 0],
      [1, 0]
    ] as const)
      editor.corner([p[0], p[1]]);
    editor.finish();
    expect(session.project.mat.areas).toHaveLength(0);
    editor.tool = 'areas';
    for (const p of [
      [0, 0],
      [1, 0],
      [1, 1],
      [0.005, 0.005]
    ] as const)
      editor.corner([p[0], p[1]]);
    expect(session.project.mat.areas[0].points).toEqual([
      [0, 0],
      [1, 0],
      [1, 1]
    ]);
  });
  it('smooths a way drawn by hand: through its points, without corners', () => {
    const { session, editor } = edited();
    // a zigzag of right angles
    editor.free(Array.from({ length: 9 }, (_, i) => [i * 0.1, (i % 2) * 0.1]));
    const { points } = session.project.mat.lines[0];
    expect(points[0]).toEqual([0, 0]);
    expect(points.at(-1)![0]).toBeCloseTo(0.8, 3);
    const turn = points.slice(1, -1).map(([x, y], i) => {
      const [a, b] = [points[i], points[i + 2]];
      const by = Math.atan2(b[1] - y, b[0] - x) - Math.atan2(y - a[1], x - a[0]);
      return Math.abs(((by + Math.PI * 3) % (Math.PI * 2)) - Math.PI);
    });
    // never more than half of the zigzag's right angle at once
    expect(Math.max(...turn)).toBeLessThan(Math.PI / 4);
  });
  it('does not make a wall without a size', () => {
    const { session, labels, editor } = edited();
    editor.tool = 'walls';
    editor.box([1, 1], [1.001, 1.5]);
    expect(session.project.mat.walls).toHaveLength(0);
    editor.box([1, 1], [0.5, 1.5]);
    expect(session.project.mat.walls[0]).toMatchObject({ x: 0.75, y: 1.25, width: 0.5, height: 0.5 });
    expect(labels).toHaveLength(1);
  });
  it('forgets where the robot was put when the start of the mat moves', () => {
    const { session, editor } = edited();
    session.project = { ...session.project, start: { x: 1, y: 1, facingDeg: 0 } };
    editor.change('x', { ...hall, airC: 5 });
    expect(session.project.start).toBeDefined();
    editor.change('y', { ...hall, start: { x: 0.5, y: 0.5, facingDeg: 0 } });
    expect(session.project.start).toBeUndefined();
  });
});
