/** What a run did, as the page of a lesson tells it: in a line, with the pictures that it showed and what there is to know. */
import { programOf } from '../language/program.ts';
import type { Project } from '../project.ts';
import { eventsOf } from '../trace/apart.ts';
import { findings } from '../trace/findings/findings.ts';
import { headingOf, stateAt, travelled } from '../trace/query.ts';
import { stretches, type Stretch } from '../trace/stretches.ts';
import { channel, endUs, type Trace } from '../trace/trace.ts';
import { headingAt } from '../units.ts';
import { say } from '../words.ts';

export type Happened = {
  /** in a line */
  says: string;
  /** pictures in turn, with when each was there */
  pictures: Stretch<string>[];
  findings: string[];
  logs: string[];
};
/** So many of each are told. */
const MOST = 6;
const FINDINGS = 2;

export function happened(trace: Trace, project: Pick<Project, 'program' | 'text' | 'kit'>): Happened {
  const toUs = endUs(trace);
  const parts = [say('{s} s', { s: (toUs / 1e6).toFixed(2) })];
  const drove = travelled(trace) * 100;
  if (channel(trace, 'x') && drove > 0.05) {
    const { x, y } = stateAt(trace, toUs);
    const { start } = trace.header.run;
    const [dx, dy] = [x - start.x, y - start.y];
    parts.push(
      say('{cm} cm driven', { cm: drove.toFixed(1) }),
      say('{cm} cm from the start', { cm: (Math.sqrt(dx * dx + dy * dy) * 100).toFixed(1) }),
      say('heading {deg}°', { deg: headingAt(headingOf(trace, toUs), 0) })
    );
  }
  const tones = eventsOf(trace, 'tone').filter((e) => e.hertz > 0).length;
  if (tones) parts.push(say('{n, plural, one {# tone} other {# tones}}', { n: tones }));
  const changes = eventsOf(trace, 'display').map(({ tUs, picture }) => ({ tUs, what: picture }));
  return {
    says: parts.join(' · '),
    pictures: stretches(changes, '', { fromUs: 0, toUs: toUs + 1 })
      .filter(({ what }) => what)
      .slice(0, MOST),
    findings: findings(trace, project.kit, programOf(project))
      .slice(0, FINDINGS)
      .map((f) => f.says),
    logs: eventsOf(trace, 'log')
      .slice(0, MOST)
      .map((e) => e.text)
  };
}
