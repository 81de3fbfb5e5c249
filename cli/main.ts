/** ./mossbell rehearse | check | python | blocks | send | device | try | errand: the core without a browser. Shapes of the JSON: docs/formats/cli.md. */
import '../core/run/exact-math.ts';
import { readFileSync, writeFileSync } from 'node:fs';
import { basename } from 'node:path';
import { parseArgs } from 'node:util';
import * as z from 'zod';
import { kits, partName, type Kit } from '../core/kit/kit.ts';
import { quirksOf } from '../core/kit/quirks.ts';
import { STAND_INS, standIn, type Unit } from '../core/kit/units.ts';
import { LinkClosed, LinkProblem } from '../core/link/port.ts';
import { definition, sentence } from '../core/language/catalogue.ts';
import { lookOver } from '../core/language/lookover/lookover.ts';
import { stopsStart } from '../core/language/lookover/remark.ts';
import { lookOverText } from '../core/language/lookover/text.ts';
import type { Remark } from '../core/language/lookover/remark.ts';
import { programOf, allSteps } from '../core/language/program.ts';
import { placed } from '../core/language/edit.ts';
import { printPython } from '../core/language/python/print.ts';
import { deviceOf, fitted } from '../core/language/python/fit.ts';
import { readPython } from '../core/language/python/read.ts';
import { syntaxProblem } from '../core/language/python/syntax.ts';
import { newProject, readProject, writeProject, type Project } from '../core/project.ts';
import { rehearse } from '../core/run/interpreter.ts';
import { eventsCsv, traceCsv } from '../core/trace/files.ts';
import { findings, type Finding } from '../core/trace/findings/findings.ts';
import { parseInputs } from '../core/trace/inputs.ts';
import { askedAndGot, stateAt, travelled } from '../core/trace/query.ts';
import type { TimedInput, Trace } from '../core/trace/trace.ts';
import { headingAt } from '../core/units.ts';
import { matSchema, type Mat } from '../core/yard/mat.ts';
import { longAisle, mats } from '../core/yard/mats.ts';

class BadInput extends Error {}
const USAGE = `Usage:
  ./mossbell rehearse FILE [--mat FILE or NAME] [--seed N] [--inputs FILE] [--until S] [--unit SERIAL]
                           [--trace OUT.csv or OUT.json] [--events OUT.csv] [--on standin] [--json]
  ./mossbell check FILE ... [--json]
  ./mossbell python FILE [--json]
  ./mossbell blocks FILE.py [--json]
  ./mossbell send FILE --to STAND-IN [--fault NAME] [--cut-at N] [--json]
  ./mossbell device STAND-IN list | read N | delete N | demo | micropython [--json]
  ./mossbell try ERRAND FILE ... [--json]
  ./mossbell errand check ERRAND ... [--json]
FILE is a project (.mossbell.json) or a text (.py); ERRAND a file (.mossbell-errand.json) or the name of one that ships.`;

function read(file: string): string {
  try {
    return readFileSync(file, 'utf8');
  } catch {
    throw new BadInput(`${file}: there is no such file, or it cannot be read.`);
  }
}
/** A project file, or a text as a text project for the device that it speaks of, on the Long aisle. */
function project(file: string): Project {
  if (file.endsWith('.py')) {
    const text = read(file);
    const wrong = syntaxProblem(text);
    if (wrong) throw new BadInput(`${file}, line ${wrong.line + 1}, column ${wrong.column + 1}: ${wrong.message}`);
    return { ...newProject(basename(file, '.py').slice(0, 80), deviceOf(text), longAisle), text };
  }
  const found = readProject(read(file), basename(file));
  if (!found.ok) throw new BadInput(found.problem);
  return found.project;
}
function matOf(name: string): Mat {
  const known = mats.find((m) => m.name.toLowerCase() === name.toLowerCase());
  if (known) return known;
  let value: unknown;
  try {
    value = JSON.parse(read(name));
  } catch (error) {
    throw error instanceof BadInput
      ? new BadInput(`There is no mat "${name}". The mats are ${mats.map((m) => m.name).join(', ')}; or give a file.`)
      : new BadInput(`${name} is not JSON.`);
  }
  const parsed = matSchema.safeParse(value);
  if (!parsed.success) throw new BadInput(`${name} is not a mat: ${z.prettifyError(parsed.error).split('\n')[0]}`);
  return parsed.data;
}
const number = (text: string | undefined, name: string): number | undefined => {
  if (text === undefined) return undefined;
  const n = Number(text);
  if (!Number.isFinite(n)) throw new BadInput(`--${name} takes a number, not "${text}".`);
  return n;
};

/** Of a text the parts that it names are looked over, and if blocks can say it, those blocks. */
function looked(p: Project): Remark[] {
  if (p.text === undefined) return lookOver(p);
  const found = readPython(p.text, p.kit);
  const blocks = found.ok ? lookOver({ ...p, program: found.program }) : [];
  // what is in which socket is told of the text's own lines
  return [...lookOverText(p.text, p.kit), ...blocks.filter((r) => !/^socket-|^part-/.test(r.rule))];
}
/** What `rehearse --json` prints. */
function summary(trace: Trace, kit: Kit, p: Project) {
  const end = stateAt(trace, trace.ticks * 1000);
  const names = new Map(
    [...allSteps(p.program)].map((s) => [s.id, sentence(s, p.program, (socket) => partName(kit, socket))])
  );
  const told = (f: Finding): object => ({
    ...f,
    at: f.blocks.map((b) => names.get(b) ?? b),
    ...(f.more ? { more: f.more.map(told) } : {})
  });
  return {
    name: p.name,
    runner: trace.header.runner,
    seed: trace.header.run.seed,
    ended: trace.ended,
    seconds: trace.ticks / 1000,
    pose: { xCm: round(end.x * 100), yCm: round(end.y * 100), facingDeg: headingAt(end.facingDeg, 2) },
    travelledCm: round(travelled(trace) * 100),
    moves: askedAndGot(trace).map((m) => ({
      block: m.block,
      what: m.what,
      asked: round(m.asked),
      got: round(m.got),
      rest: round(m.rest),
      unit: m.unit,
      ended: m.ended
    })),
    contacts: trace.events
      .filter((e) => e.type === 'touch')
      .map((e) => ({ seconds: e.tUs / 1e6, what: e.what, speedCmS: round(e.speedCmS), nose: e.nose })),
    log: trace.events.filter((e) => e.type === 'log').map((e) => ({ seconds: e.tUs / 1e6, text: e.text })),
    face: { lamps: end.lamps, picture: end.picture ? end.picture.split(' ') : [] },
    findings: findings(trace, p.kit, programOf(p)).map(told),
    error: trace.events.find((e) => e.type === 'error') ?? null
  };
}
const round = (v: number): number => Math.round(v * 100) / 100;

const NAMES = STAND_INS.map((s) => `${s.serial} (${s.name})`).join(', ');
function unitCalled(name: string | undefined, unitOf: (name: string) => Unit | undefined): Unit {
  const unit = name === undefined ? undefined : unitOf(name);
  if (!unit) throw new BadInput(`There is no stand-in "${name ?? ''}". The stand-ins are ${NAMES}.`);
  return unit;
}
type Says = (text: string) => void;
/** @returns 0 when the program is on the device, 1 when it is not, with what was said */
async function sendFile(
  file: string,
  values: { to?: string; fault?: string; 'cut-at'?: string; json?: boolean },
  say: Says
): Promise<number> {
  const { CABLES, isCable, sendTo, unitOf } = await import('./device.ts');
  const p = project(file);
  const unit = unitCalled(values.to, unitOf);
  const cable = values.fault;
  if (cable !== undefined && !isCable(cable))
    throw new BadInput(`There is no fault "${cable}". The faults are ${Object.keys(CABLES).join(', ')}.`);
  const cutAt = number(values['cut-at'], 'cut-at');
  if (cutAt !== undefined && (cutAt < 0 || !Number.isInteger(cutAt)))
    throw new BadInput('--cut-at takes how many bytes go over the cable before it is pulled.');
  let before = '';
  const told = (line: string): void => {
    if (!values.json && line !== before) process.stderr.write(`${line}\n`);
    before = line;
  };
  try {
    const sent = await sendTo(unit, p, { cable, cutAt }, told);
    if (values.json) say(JSON.stringify({ to: unit.serial, number: sent.number, again: sent.again, problem: null }));
    else
      say(
        `"${p.name}" is on ${unit.name} as program ${sent.number}${sent.again ? `; ${sent.again} pieces were lost on the way and said again` : ''}.`
      );
    return 0;
  } catch (error) {
    if (!(error instanceof LinkClosed || error instanceof LinkProblem)) throw error;
    if (values.json) say(JSON.stringify({ to: unit.serial, number: null, again: null, problem: error.message }));
    else process.stderr.write(`${error.message}\n`);
    return 1;
  }
}
async function device([name, what = 'list', which]: string[], json: boolean, say: Says): Promise<number> {
  const { found, setFirmware, takeOff, textOn, unitOf } = await import('./device.ts');
  const unit = unitCalled(name, unitOf);
  if (what === 'demo' || what === 'micropython') {
    await setFirmware(unit, what === 'demo' ? 'factory' : what);
    say(
      json
        ? JSON.stringify({ standIn: unit.serial, firmware: what })
        : `${unit.name} has ${what === 'demo' ? 'its factory demo again' : 'MicroPython'}.`
    );
    return 0;
  }
  const n = Number(which);
  if (!['list', 'read', 'delete'].includes(what) || (what !== 'list' && !Number.isInteger(n)))
    throw new BadInput(USAGE);
  try {
    if (what === 'read') {
      const text = await textOn(unit, n);
      say(json ? JSON.stringify({ standIn: unit.serial, number: n, text }) : text.trimEnd());
      return 0;
    }
    const told = what === 'delete' ? await takeOff(unit, n) : await found(unit);
    if (json) say(JSON.stringify({ standIn: unit.serial, ...told }));
    else {
      say(
        `${unit.name}, ${unit.serial}: MicroPython ${told.micropython}, board library ${told.library || 'missing'}, ${(told.freeBytes / 1000).toFixed(0)} kB free`
      );
      for (const p of told.programs)
        say(
          `  ${p.number}${p.starts ? ' *' : ''} ${p.called?.name ?? ''} ${(p.bytes / 1000).toFixed(1)} kB${p.whole ? '' : ', cut short'}`
        );
      if (!told.programs.length) say('  no programs');
    }
    return 0;
  } catch (error) {
    if (!(error instanceof LinkProblem)) throw error;
    process.stderr.write(`${error.message}\n`);
    return 1;
  }
}
/** @returns 0 when all of them meet all goals */
async function tryFiles([name, ...files]: string[], json: boolean, say: Says): Promise<number> {
  const { errandOf, failed, tryIn, triedSays } = await import('./errand.ts');
  if (!files.length) throw new BadInput(USAGE);
  const errand = orBad(() => errandOf(name));
  const tries = [];
  // one that cannot be read does not keep the others from being marked
  for (const file of files) {
    try {
      tries.push(await tryIn(errand, file, project(file)));
    } catch (error) {
      if (!(error instanceof BadInput)) throw error;
      tries.push(failed(file, '', error.message));
    }
    if (!json) triedSays(tries[tries.length - 1]).forEach(say);
  }
  if (json) say(JSON.stringify({ errand: errand.id, tries }));
  else if (files.length > 1) say(`${tries.filter((t) => t.met).length} of ${tries.length} met all goals`);
  return tries.every((t) => t.met) ? 0 : 1;
}
/** @returns 0 when all of them are sound */
async function errands([what, ...names]: string[], json: boolean, say: Says): Promise<number> {
  if (what !== 'check' || !names.length) throw new BadInput(USAGE);
  const { allShipped, checked } = await import('./errand.ts');
  const shipped = allShipped();
  const all = names.map((name) => orBad(() => checked(name, shipped)));
  if (json) say(JSON.stringify({ errands: all }));
  else
    for (const { file, name, goals, problems, changed: c } of all) {
      say(
        `${file} (${name}): ${problems.length ? `${problems.length} unsound` : `sound, ${goals.length} goals`}; of ${c.changed} small changes that show, ${c.missed} miss a goal, ${c.listed} are said to be right too`
      );
      for (const problem of problems) say(`  ${problem}`);
    }
  return all.some((e) => e.problems.length) ? 1 : 0;
}
function orBad<T>(does: () => T): T {
  try {
    return does();
  } catch (error) {
    throw new BadInput((error as Error).message);
  }
}

async function main(): Promise<number> {
  const [verb, ...rest] = process.argv.slice(2);
  const options = {
    json: { type: 'boolean' },
    mat: { type: 'string' },
    kit: { type: 'string' },
    seed: { type: 'string' },
    inputs: { type: 'string' },
    until: { type: 'string' },
    unit: { type: 'string' },
    trace: { type: 'string' },
    events: { type: 'string' },
    on: { type: 'string' },
    to: { type: 'string' },
    fault: { type: 'string' },
    'cut-at': { type: 'string' }
  } as const;
  let parsed;
  try {
    parsed = parseArgs({ args: rest, options, allowPositionals: true });
  } catch (error) {
    throw new BadInput(`${(error as Error).message}\n${USAGE}`);
  }
  const { values, positionals } = parsed;
  if (
    !['rehearse', 'check', 'python', 'blocks', 'send', 'device', 'try', 'errand'].includes(verb) ||
    positionals.length === 0
  )
    throw new BadInput(USAGE);
  const say = (text: string): void => void process.stdout.write(`${text}\n`);

  if (verb === 'blocks') {
    const { text = '', ...rest } = project(positionals[0]);
    const found = readPython(text, rest.kit);
    if (!found.ok)
      throw new BadInput(
        [
          `${positionals[0]} cannot become blocks.`,
          ...found.problems.map((p) => `line ${p.line + 1}: ${p.message}`)
        ].join('\n')
      );
    const { kit, lost } = fitted(text, rest.kit);
    const all = [...found.lost, ...lost];
    for (const l of all) process.stderr.write(`line ${l.line + 1}: ${l.message}\n`);
    const made = { ...rest, kit, program: placed(found.program) };
    say(
      values.json ? JSON.stringify({ file: positionals[0], project: made, lost: all }) : writeProject(made).trimEnd()
    );
    return 0;
  }
  if (verb === 'send') return sendFile(positionals[0], values, say);
  if (verb === 'device') return device(positionals, values.json ?? false, say);
  if (verb === 'try') return tryFiles(positionals, values.json ?? false, say);
  if (verb === 'errand') return errands(positionals, values.json ?? false, say);
  if (verb === 'python') {
    const p = project(positionals[0]);
    const printed = p.text === undefined ? printPython(p.program, p.kit) : { text: p.text, blocks: [] };
    say(
      values.json
        ? JSON.stringify({ file: positionals[0], text: printed.text, blocks: printed.blocks })
        : printed.text.trimEnd()
    );
    return 0;
  }
  if (verb === 'check') {
    const results = positionals.map((file) => {
      const p = project(file);
      const names = new Map(
        [...allSteps(p.program)].map((s) => [s.id, sentence(s, p.program, (socket) => partName(p.kit, socket))])
      );
      return {
        file,
        name: p.name,
        remarks: looked(p).map((r) => ({
          rule: r.rule,
          severity: r.severity,
          blocks: r.blocks,
          at: r.blocks.map((b) => names.get(b) ?? b),
          says: r.says,
          todo: r.todo,
          mends: r.mends.map((m) => m.label)
        }))
      };
    });
    if (values.json) say(JSON.stringify({ files: results }));
    else
      for (const r of results) {
        // counted as the page counts them: what is only to be considered is listed beside
        const consider = r.remarks.filter((m) => m.severity === 'consider').length;
        const counted = [
          ...(r.remarks.length > consider ? [`${r.remarks.length - consider} to check`] : []),
          ...(consider ? [`${consider} to consider`] : [])
        ];
        say(`${r.file}: ${counted.join(', ') || 'nothing to remark'}`);
        for (const m of r.remarks)
          say(
            `  ${m.severity} · ${m.rule}${m.blocks.length ? ` · ${m.blocks.map((b, i) => `${b} (${m.at[i]})`).join(', ')}` : ''}\n    ${m.says} ${m.todo}`
          );
      }
    return results.some((r) => r.remarks.some((m) => m.severity === 'will not work')) ? 1 : 0;
  }

  const p = project(positionals[0]);
  if (values.kit && !(values.kit in kits))
    throw new BadInput(`There is no kit "${values.kit}". The kits are ${Object.keys(kits).join(', ')}.`);
  const kit = values.kit ? kits[values.kit as keyof typeof kits] : p.kit;
  const mat = values.mat ? matOf(values.mat) : p.mat;
  let inputs: TimedInput[] = [];
  if (values.inputs) {
    const got = parseInputs(read(values.inputs));
    if (!got.ok) throw new BadInput(`${values.inputs}: ${got.problem}`);
    inputs = got.inputs;
  }
  if (values.on && values.on !== 'standin') throw new BadInput(`--on takes "standin", not "${values.on}".`);
  const blocking = p.text === undefined ? lookOver({ program: p.program, kit }).filter(stopsStart) : [];
  if (blocking.length)
    throw new BadInput(
      `${positionals[0]} cannot start: ${blocking.map((r) => `block ${r.blocks.join(', ')}: ${r.says}`).join(' ')}`
    );
  const until = number(values.until, 'until');
  if (until !== undefined && (until <= 0 || until > 3600))
    throw new BadInput('--until takes seconds from 0.001 to 3600.');
  const unit = values.unit === undefined ? undefined : standIn(values.unit);
  if (values.unit !== undefined && !unit)
    throw new BadInput(`There is no stand-in "${values.unit}". The stand-ins are ${NAMES}.`);
  if (unit && unit.device !== kit.device)
    throw new BadInput(`${unit.serial} (${unit.name}) is no ${kit.name}, and the program is for one.`);
  // waiting for the word to set off counts to no limit: it is ended there by hand
  const waits = p.program.stacks.some(({ steps: [first] }) => {
    const def = first && definition(first.kind);
    return def?.shape === 'starter' && def.trigger(first) === 'before';
  });
  if (until !== undefined && waits) inputs = [...inputs, { tUs: Math.round(until * 1e6), input: { stop: true } }];
  const run = {
    program: p.program,
    kit,
    mat,
    seed: number(values.seed, 'seed') ?? 1,
    inputs,
    start: values.mat ? undefined : p.start,
    limitS: until,
    name: p.name,
    others: p.others,
    quirks: unit && quirksOf(unit.serial, kit),
    device: unit?.serial ?? 'Rehearsal'
  };
  const trace =
    values.on || p.text !== undefined ? await (await import('./standin.ts')).runOnStandIn(run, p.text) : rehearse(run);
  if (values.trace)
    writeFileSync(
      values.trace,
      values.trace.endsWith('.json')
        ? JSON.stringify({ ...summary(trace, kit, p), events: trace.events }, null, 1)
        : traceCsv(trace)
    );
  if (values.events) {
    const blocks = new Map(
      [...allSteps(p.program)].map((s) => [s.id, sentence(s, p.program, (x) => partName(kit, x))])
    );
    writeFileSync(
      values.events,
      eventsCsv(trace, (id) => blocks.get(id) ?? id)
    );
  }
  const result = summary(trace, kit, p);
  if (values.json) say(JSON.stringify(result));
  else {
    say(`${result.name} · ${result.runner}, seed ${result.seed}`);
    say(`ended: ${result.ended} after ${result.seconds.toFixed(2)} s`);
    say(
      `stands at x ${result.pose.xCm} cm, y ${result.pose.yCm} cm, facing ${result.pose.facingDeg}°; ${result.travelledCm} cm driven`
    );
    for (const m of result.moves)
      say(
        `  ${m.what}: asked ${m.asked} ${m.unit}, got ${m.got} ${m.unit}${m.rest === m.got ? '' : `, at rest ${m.rest} ${m.unit}`}${m.ended === 'done' ? '' : ` (${m.ended})`}`
      );
    for (const c of result.contacts) say(`  touched ${c.what} at ${c.seconds.toFixed(2)} s with ${c.speedCmS} cm/s`);
    for (const l of result.log) say(`  log ${l.seconds.toFixed(3)} s: ${l.text}`);
    for (const f of result.findings) say(`  finding: ${(f as Finding).says}`);
    if (result.face.picture.length) say(`face: ${result.face.picture.join('  ')}`);
  }
  return trace.ended === 'error' ? 1 : 0;
}

// paths are those of whoever calls
if (process.env.MOSSBELL_FROM) process.chdir(process.env.MOSSBELL_FROM);
main().then(
  (code) => process.exit(code),
  (error) => {
    process.stderr.write(`${error instanceof BadInput ? error.message : (error as Error).stack}\n`);
    process.exit(error instanceof BadInput ? 2 : 1);
  }
);
