/** A class at once: pupils who save every two seconds, and walls that show each of them live. */
import autocannon from 'autocannon';
import { get } from 'node:http';
import { projectOf, type Errand } from '../core/errand/errand.ts';
import type { Project } from '../core/project.ts';
import type { PrintedCard, WallCard } from '../src/lib/class/class.ts';
import { DEMO_TEACHER } from '../src/lib/server/demo.ts';

export type AtOnce = {
  /** ms: 95 % of all saves, and of all live updates on all walls, took no longer */
  saveMs: number;
  liveMs: number;
  saves: number;
  /** saves that were answered and are not there, or were not answered at all */
  lost: number;
};
const WALLS = 5;
const EVERY_S = 2;

const p95 = (list: number[]): number => list.sort((a, b) => a - b)[Math.floor(list.length * 0.95)] ?? NaN;
async function ask(base: string, path: string, method: string, cookie: string, body?: object): Promise<Response> {
  return fetch(base + path, {
    method,
    headers: { cookie, 'content-type': 'application/json' },
    ...(body ? { body: JSON.stringify(body) } : {})
  });
}
const cookieOf = (answer: Response): string =>
  answer.headers
    .getSetCookie()
    .map((c) => c.split(';')[0])
    .filter((c) => c.startsWith('mossbell.session'))[0];

export async function classAtOnce(base: string, errand: Errand, pupils: number, seconds: number): Promise<AtOnce> {
  const teacher = cookieOf(
    await ask(base, '/api/session', 'POST', '', { teacher: DEMO_TEACHER.nickname, passphrase: DEMO_TEACHER.passphrase })
  );
  type Works = { cookie: string; id: string; base: number; project: Project; n: number; answered: number };
  const works: Works[] = [];
  const classes: string[] = [];
  // a class has sixty at the most
  for (let from = 0; from < pupils; from += 30) {
    const made = await (await ask(base, '/api/classes', 'POST', teacher, { name: `At once ${from}` })).json();
    const { id } = made as { id: string };
    classes.push(id);
    const nicknames = Array.from({ length: Math.min(30, pupils - from) }, (_, i) => `Pupil ${i}`);
    const cards = (await (
      await ask(base, `/api/classes/${id}/pupils`, 'POST', teacher, { nicknames })
    ).json()) as PrintedCard[];
    const page = await (await ask(base, `/class/${id}`, 'GET', teacher)).text();
    const code = /data-testid="code"[^>]*>([A-Z]+)</.exec(page)![1];
    for (const { nickname, words } of cards) {
      const cookie = cookieOf(await ask(base, '/api/session', 'POST', '', { code, nickname, words }));
      const project = projectOf(errand);
      const opened = (await (await ask(base, '/api/projects', 'POST', cookie, project)).json()) as {
        id: string;
        version: number;
      };
      works.push({ cookie, id: opened.id, base: opened.version, project, n: 0, answered: 0 });
    }
  }
  // the walls: when each card of each was told last
  const answeredAt = new Map<string, number>();
  const live: number[] = [];
  const streams = Array.from({ length: WALLS }, () =>
    get(`${base}/api/classes/${classes[0]}/live`, { headers: { cookie: teacher } }, (stream) => {
      let text = '';
      stream.setEncoding('utf8').on('data', (part: string) => {
        text += part;
        const messages = text.split('\n\n');
        text = messages.pop()!;
        for (const message of messages) {
          if (!message.startsWith('data: ')) continue;
          const { cards, all } = JSON.parse(message.slice(6)) as { cards?: WallCard[]; all?: true };
          if (all || !cards) continue;
          for (const card of cards) {
            const at = card.project && answeredAt.get(card.project.id);
            if (at) live.push(performance.now() - at);
          }
        }
      });
    })
  );
  const took: number[] = [];
  let failed = 0;
  let next = 0;
  /** Two pupils, who save in turn: one request a second is the least that a connection sends. They begin when they will. */
  const pair = async (): Promise<void> => {
    await new Promise((begin) => setTimeout(begin, Math.random() * 1000));
    await new Promise<void>((over) => {
      const load = autocannon(
        {
          url: base,
          connections: 1,
          duration: seconds,
          connectionRate: 1,
          setupClient: (client) => {
            const seats = Array.from({ length: EVERY_S }, () => works[next++ % works.length]);
            let turn = 0;
            let one = seats[0];
            const request = () => {
              one = seats[turn++ % EVERY_S];
              one.n++;
              return {
                method: 'PUT' as const,
                path: `/api/projects/${one.id}?base=${one.base}`,
                headers: { cookie: one.cookie, 'content-type': 'application/json' },
                body: JSON.stringify({ ...one.project, notebook: String(one.n) })
              };
            };
            client.setRequests([
              {
                ...request(),
                setupRequest: (plain) => Object.assign(plain, request()),
                onResponse: (status, body) => {
                  if (status !== 200) return void failed++;
                  one.base = (JSON.parse(body) as { version: number }).version;
                  one.answered = one.n;
                  answeredAt.set(one.id, performance.now());
                }
              }
            ]);
          }
        },
        () => over()
      );
      load.on('response', (_client, _status, _bytes, ms) => void took.push(ms));
    });
  };
  await Promise.all(Array.from({ length: pupils / EVERY_S }, pair));
  // ending a stream is told as an error of its request
  streams.forEach((stream) => stream.on('error', () => undefined).destroy());
  // what was answered is there
  let lost = failed;
  for (const one of works) {
    const { project } = (await (await ask(base, `/api/projects/${one.id}`, 'GET', one.cookie)).json()) as {
      project: Project;
    };
    if (Number(project.notebook || 0) < one.answered) lost++;
  }
  for (const id of classes) await ask(base, `/api/classes/${id}`, 'DELETE', teacher);
  return { saveMs: p95(took), liveMs: p95(live), saves: took.length, lost };
}
