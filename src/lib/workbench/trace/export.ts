/** The trace as a file: CSV, a run file, a picture. */
import { Context } from 'svgcanvas';
import { eventsCsv, traceCsv } from '../../../../core/trace/files.ts';
import { say, word } from '../../../../core/words.ts';
import { download, fileName } from '../../shelf/files.ts';
import type { Run } from '../runs.svelte.ts';
import { lineOf, sentences } from '../sentences.ts';
import type { Workbench } from '../workbench.svelte.ts';
import { draw, type Drawing } from './draw.ts';
import type { Project } from '../../../../core/project.ts';
import { endUs, type Trace } from '../../../../core/trace/trace.ts';
import { lanesOf } from './lanes.ts';
import type { Lane } from './lanes.ts';

const LABELS = 150;
const FOOT = 18;

/** The lanes with their names at the left and the time below. */
export function drawSheet(g: CanvasRenderingContext2D, d: Drawing, lanes: readonly Lane[]): void {
  const height = lanes.reduce((h, l) => h + l.height, 0);
  g.fillStyle = d.palette.card;
  g.fillRect(0, 0, LABELS + d.width, height + FOOT);
  g.save();
  g.translate(LABELS, 0);
  draw(g, d, false);
  g.restore();
  let top = 0;
  g.textAlign = 'left';
  for (const lane of lanes) {
    g.fillStyle = d.palette.ink;
    g.font = '700 12px "Atkinson Hyperlegible Next Variable", sans-serif';
    g.fillText(word(lane.title), 12, top + 13);
    g.fillStyle = d.palette.soft;
    g.font = '400 10.5px "Atkinson Hyperlegible Next Variable", sans-serif';
    if (lane.line && lane.height > 25) g.fillText(word(lane.line), 12, top + 25);
    top += lane.height;
  }
  g.fillStyle = d.palette.soft;
  for (let i = 0; i <= 4; i++) {
    const t = d.fromUs + ((d.toUs - d.fromUs) * i) / 4;
    g.textAlign = i === 4 ? 'right' : 'left';
    g.fillText(say('{n} s', { n: (t / 1e6).toFixed(2) }), LABELS + (d.width * i) / 4, height + 13);
  }
  g.textAlign = 'left';
}

/** The lanes of a run as an SVG to print: black on white, its own lanes, the whole time. */
export function sheetSvg(trace: Trace, project: Project, width: number): string {
  const lanes = lanesOf(project.kit, trace);
  const inks = {
    ink: '#111',
    soft: '#555',
    rule: '#ccc',
    card: '#fff',
    water: '#333',
    order: '#444',
    act: '#777',
    think: '#555',
    read: '#666',
    brass: '#888',
    clay: '#000'
  };
  const height = lanes.reduce((h, l) => h + l.height, 0) + FOOT;
  const g = new Context({ width: LABELS + width, height, document });
  drawSheet(
    g as unknown as CanvasRenderingContext2D,
    { trace, fromUs: 0, toUs: endUs(trace), width, lanes, program: project.program, palette: inks, live: false },
    lanes
  );
  // it scales with the paper
  return g
    .getSerializedSvg()
    .replace(/<svg([^>]*?) width="(\d+)" height="(\d+)"/, '<svg$1 viewBox="0 0 $2 $3" width="$2" height="$3"');
}

export async function exportTrace(
  what: 'csv' | 'events' | 'json' | 'png' | 'svg',
  w: Workbench,
  run: Run,
  d: Drawing,
  lanes: readonly Lane[],
  selection: readonly [number, number] | undefined
): Promise<void> {
  const name = `${fileName(w.session.project.name)}-${fileName(run.name)}`;
  const height = lanes.reduce((h, l) => h + l.height, 0) + FOOT;
  switch (what) {
    case 'csv':
      // a part says that it is one, and from when to when
      return download(
        `${name}${selection ? `-${selection.map((us) => (us / 1e6).toFixed(2)).join('-to-')}-s` : ''}.csv`,
        traceCsv(run.trace, selection ? 1 : 10, selection),
        'text/csv'
      );
    case 'events': {
      const names = sentences(run.project ?? w.session.project);
      return download(
        `${name}-events.csv`,
        eventsCsv(run.trace, (id) => names.get(id) ?? lineOf(id)),
        'text/csv'
      );
    }
    case 'json':
      return download(`${name}.mossbell-run.jsonl`, await w.runs.write(w.history.fileOf(run)), 'application/jsonl');
    case 'png': {
      const canvas = document.createElement('canvas');
      canvas.width = (LABELS + d.width) * 2;
      canvas.height = height * 2;
      const g = canvas.getContext('2d')!;
      g.scale(2, 2);
      drawSheet(g, d, lanes);
      const blob = await new Promise<Blob | null>((done) => canvas.toBlob(done, 'image/png'));
      if (blob) download(`${name}.png`, blob);
      return;
    }
    case 'svg': {
      const g = new Context({ width: LABELS + d.width, height, document });
      drawSheet(g as unknown as CanvasRenderingContext2D, d, lanes);
      return download(`${name}.svg`, g.getSerializedSvg(), 'image/svg+xml');
    }
  }
}
