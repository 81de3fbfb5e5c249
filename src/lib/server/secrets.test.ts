/** Words, passphrases, sessions: with the real hash, in the real pool of workers. */
import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { argon2id } from 'hash-wasm';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { barrow } from '../../../core/kit/kit.ts';
import { newProject } from '../../../core/project.ts';
import { hall } from '../../../core/testing/build.ts';
import { addPupils, makeClass, newCard, openClass } from './classes.ts';
import { openDatabase, type Store } from './database.ts';
import {
  beginSession,
  guestOf,
  changePassphrase,
  isSecretOf,
  madeBefore,
  makeTeacher,
  pupilCalled,
  takeAlong,
  teacherCalled,
  whoHas
} from './people.ts';
import { createProject, deleteProject, listProjects } from './projects.ts';
import { sessions } from './schema.ts';
import { CARD_WORDS, drawWords, hashSecret, isSecret, plainSecret } from './secrets.ts';
import type { PrintedCard } from '../class/class.ts';

const folder = mkdtempSync(join(tmpdir(), 'mossbell-secrets-'));
let store: Store;
beforeAll(() => {
  execFileSync('./mossbell', ['build-cli'], { stdio: 'ignore' });
  store = openDatabase(folder);
}, 300_000);
afterAll(() => rmSync(folder, { recursive: true }));

describe('words of cards', () => {
  it.each(Object.entries(CARD_WORDS))('%s: 1,024 of them, each once, short, in plain letters', (_, words) => {
    expect(words).toHaveLength(1024);
    expect(new Set(words).size).toBe(1024);
    expect(words.filter((word) => !/^[a-z]{2,10}$/.test(word))).toEqual([]);
    // as they are typed they stay apart
    expect(new Set(words.map(plainSecret)).size).toBe(1024);
  });
  it('are drawn from all of the list, in the language of the class', () => {
    const drawn = Array.from({ length: 4000 }, () => drawWords('de').split(' '));
    expect(drawn.every((three) => three.length === 3)).toBe(true);
    const seen = new Set(drawn.flat());
    // 12,000 draws of 1,024: the chance that one is missing is 1,024 x (1023/1024)^12000, below one in a hundred
    expect(seen.size).toBeGreaterThanOrEqual(1022);
    expect([...seen].every((word) => CARD_WORDS.de.includes(word))).toBe(true);
  });
  it('are taken however they are typed', () => {
    for (const typed of ['fern moss bell', ' Fern  MOSS-bell ', 'fern, moss, bell', 'fern\tmoss\nbell'])
      expect(plainSecret(typed)).toBe('fern moss bell');
    expect(plainSecret('Käse Büsche Straße')).toBe('kaese buesche strasse');
  });
});

describe('what is kept of a secret', () => {
  it('is Argon2id with at least 19 MiB and two passes (OWASP Password Storage Cheat Sheet), salted', async () => {
    const [one, other] = await Promise.all([hashSecret('fern moss bell'), hashSecret('fern moss bell')]);
    const [, m, t, p] = /^\$argon2id\$v=19\$m=(\d+),t=(\d+),p=(\d+)\$/.exec(one)!.map(Number);
    expect([m >= 19_456, t >= 2, p]).toEqual([true, true, 1]);
    expect(one).not.toBe(other);
    expect(await isSecret('Fern Moss Bell', one)).toBe(true);
    expect(await isSecret('fern moss belt', one)).toBe(false);
    expect(await isSecret('', one)).toBe(false);
  });
  it('comes from an implementation that gives the published hash (test.c of the Argon2 reference program; value from memory)', async () => {
    const hash = await argon2id({
      password: 'password',
      salt: Buffer.from('somesalt'),
      iterations: 2,
      parallelism: 1,
      memorySize: 65_536,
      hashLength: 32,
      outputType: 'hex'
    });
    expect(hash).toBe('09316115d5cf24ed5a15a31a3ba326e5cf32edc24702987c02b6566f61913cf7');
  });
});

describe('signing in', () => {
  let cards: PrintedCard[];
  let classId: string;
  let code: string;
  beforeAll(async () => {
    const ash = await makeTeacher(store, 'Ash', 'a long passphrase');
    classId = makeClass(store, (ash as { id: string }).id, 'A', 'en');
    cards = (await addPupils(store, classId, ['Wren', 'Newt'])) as PrintedCard[];
    code = openClass(store, classId)!.code;
  });
  it('needs the class, the nickname and the three words, in whatever capitals', async () => {
    const [wren, newt] = cards;
    const found = pupilCalled(store, code.toLowerCase(), ' wREN ')!.person;
    expect(await isSecretOf(wren.words.toUpperCase(), found)).toBe(true);
    expect(await isSecretOf(newt.words, found)).toBe(false);
    expect(pupilCalled(store, 'XXXXX', 'Wren')).toBeUndefined();
    expect(await isSecretOf(wren.words, undefined)).toBe(false);
  });
  it('a new card ends the old one and whoever is signed in with it', async () => {
    const { person } = pupilCalled(store, code, 'Newt')!;
    const { token } = beginSession(store, person.id);
    const renewed = () => {};
    expect(whoHas(store, token, renewed)).toMatchObject({ nickname: 'Newt', role: 'pupil', classId });
    const card = await newCard(store, classId, person.id);
    expect(whoHas(store, token, renewed)).toBeUndefined();
    const now = pupilCalled(store, code, 'Newt')!.person;
    expect(await isSecretOf(card.words, now)).toBe(true);
    expect(await isSecretOf(cards[1].words, now)).toBe(false);
  });
  it('is kept as a hash of the token, ends after a day in school, and is made longer by using it', () => {
    const HOUR = 3_600_000;
    const { person } = pupilCalled(store, code, 'Wren')!;
    const { token, endsAt } = beginSession(store, person.id, 0);
    expect(endsAt).toBe(12 * HOUR);
    expect(JSON.stringify(store.select().from(sessions).all())).not.toContain(token);
    let longer = 0;
    const at = (now: number) => whoHas(store, token, (ends) => (longer = ends), now)?.nickname;
    expect([at(0.5 * HOUR), longer]).toEqual(['Wren', 0]);
    expect([at(2 * HOUR), longer]).toEqual(['Wren', 14 * HOUR]);
    expect(at(13 * HOUR)).toBe('Wren');
    expect(at(26 * HOUR)).toBeUndefined();
    // nobody guesses: a token that is none, and one cut short
    for (const guess of ['', 'x', token.slice(0, -1), `${token}x`])
      expect(whoHas(store, guess, () => {}, HOUR)).toBeUndefined();
  });
  it('a clock that is set back makes no session last longer than one that begins then', () => {
    const { person } = pupilCalled(store, code, 'Wren')!;
    const { token } = beginSession(store, person.id, 1e12);
    let longer = 0;
    expect(whoHas(store, token, (ends) => (longer = ends), 1e12 - 5 * 86_400_000)?.nickname).toBe('Wren');
    expect(longer).toBe(1e12 - 5 * 86_400_000 + 12 * 3_600_000);
  });
  it('takes along what was made in the browser in the last hours, and nothing of anybody else', () => {
    const HOUR = 3_600_000;
    const made = (id: string, owner: string, at: number) =>
      createProject(store, newProject(id, barrow, hall), { id, owner, at });
    made('old', guestOf('here').id, 0);
    made('new', guestOf('here').id, 5 * HOUR);
    made('off', guestOf('here').id, 5 * HOUR);
    deleteProject(store, 'off', 5 * HOUR);
    made('elsewhere', guestOf('there').id, 5 * HOUR);
    expect(madeBefore(store, 'here', 6 * HOUR)).toEqual(['new']);
    const { person } = pupilCalled(store, code, 'Wren')!;
    const who = { id: person.id, role: 'pupil', nickname: 'Wren' } as const;
    expect([takeAlong(store, 'here', who, 6 * HOUR), takeAlong(store, 'here', who, 6 * HOUR)]).toEqual([1, 0]);
    expect(listProjects(store, { owner: who.id }).map((p) => p.name)).toEqual(['new']);
    expect(listProjects(store, { owner: guestOf('there').id }).map((p) => p.name)).toEqual(['elsewhere']);
  });
  it('another passphrase signs a teacher out everywhere', async () => {
    const ash = teacherCalled(store, 'ash')!;
    const { token } = beginSession(store, ash.id);
    await changePassphrase(store, ash.id, 'a longer passphrase');
    expect(whoHas(store, token, () => {})).toBeUndefined();
    expect(await isSecretOf('A longer  passphrase', teacherCalled(store, 'Ash'))).toBe(true);
    expect(await isSecretOf('a long passphrase', teacherCalled(store, 'Ash'))).toBe(false);
  });
});
