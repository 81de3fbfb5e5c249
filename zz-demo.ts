import { readFileSync, writeFileSync } from 'node:fs';
import { newProject, writeProject, type Project } from './core/project.ts';
import { barrow, trowel } from './core/kit/kit.ts';
import { mats } from './core/yard/mats.ts';
import { newStep } from './core/language/catalogue.ts';
import { emptyProgram, type Program, type Slot, type Step } from './core/language/program.ts';
let n = 0;
const b = (kind: string, slots: Record<string, Slot> = {}, bodies?: Record<string, Step[]>, note?: string): Step => {
  const step = newStep(kind, `b${++n}`);
  Object.assign(step.slots, slots);
  return { ...step, ...(bodies ? { bodies } : {}), ...(note ? { note } : {}) };
};
const program = (...stacks: Step[][]): Program => {
  let y = 24;
  return { ...emptyProgram(), stacks: stacks.map((steps, i) => { const s = { id: `s${i}`, x: 24, y, steps }; y += 60 + steps.length * 44 + JSON.stringify(steps).length / 18; return s; }) };
};
const mat = (name: string) => mats.find((m) => m.name === name)!;
const start = () => b('begin.start');
const wait = (time: number, unit = 's') => b('wait.time', { time, unit });
const log = (value: Slot) => b('log.line', { value });
const save = (file: string, p: Project) => writeFileSync(`demo/projects/${file}.mossbell.json`, writeProject(p));
const make = (file: string, name: string, kit: typeof barrow, on: string, p: Program, notebook: string, more: Partial<Project> = {}) => { save(file, { ...newProject(name, kit, mat(on)), program: p, notebook, ...more }); };

// 1. the gravel path with a wait that is too long
const path = JSON.parse(readFileSync('demo/projects/path-by-table.mossbell.json', 'utf8')) as Project;
const blind = structuredClone(path);
blind.name = 'Blind on the path';
(blind.program.stacks[0].steps[1].bodies!.do[1] as Step).slots = { time: 1200, unit: 'ms' };
blind.notebook = '[ ] the same program as Along the path by table, but it waits 1.2 s in its loop\n[ ] where does it leave the path, and why?\n[ ] make the wait short again';
save('blind-on-the-path', blind);

// 2. four keys, left and right swapped
const key = (name: string, left: number, right: number) => [
  [b('begin.key', { key: name, event: 'pressed' }), b('wheels.run', { left, right })],
  [b('begin.key', { key: name, event: 'released' }), b('wheels.stop', { ending: 'brake' })]
];
make('four-keys', 'Four keys', barrow, 'Potting floor', program(...key('W', 40, 40), ...key('S', -30, -30), ...key('A', 25, -25), ...key('D', -25, 25)),
  '[ ] W ahead, S back, A to the left, D to the right\n[ ] click into the yard, then drive to A, B and C\n[ ] something is swapped: which two stacks?');

// 3. toss
make('catch-the-trowel', 'Catch the trowel', trowel, 'Frost bench', program(
  [start(), b('picture.show', { picture: { picture: '...#... ..###.. .#####. ..###.. ...#...' } }, undefined, 'ready in the hand')],
  [b('begin.moved', { how: 'let go' }), b('log.mark', { words: 'let go' }), log('in the air')],
  [b('begin.jolt', { amount: 2.2 }), b('log.mark', { words: 'caught' }), log('caught'), b('picture.show', { picture: { picture: '#.....# .#...#. ..#.#.. .#...#. #.....#' } }), b('sound.tone', { pitch: 784, time: 0.2 })]),
  '[ ] toss it 60 cm high: h = g t² / 8\n[ ] how long is it in the air? the marks tell\n[ ] what does the accelerometer show up there, and at the catch?');

// 4. lean moves a picture
const steps = (way: string) => b('calc.function', { fn: 'round', x: b('calc.sum', { a: b('sense.lean', { way }), sign: '÷', b: 15 }) });
make('rolling-drop', 'The rolling drop', trowel, 'Frost bench', program(
  [start(), b('repeat.ever', {}, { do: [
    b('picture.at', { picture: { picture: '....... ...#... ..###.. ...#... .......' }, x: b('calc.keep', { value: steps('sideways'), low: -3, high: 3 }), y: b('calc.keep', { value: b('calc.negative', { a: steps('forwards') }), low: -2, high: 2 }) }),
    wait(50, 'ms')] })]),
  '[ ] lean it: the drop rolls to the low edge\n[ ] with a phone: Inputs, Phone or tablet, pair it');

// 5. narrow aisle
make('narrow-aisle', 'Through the narrow aisle', barrow, 'Narrow aisle', program(
  [start(),
    b('drive.measure', { amount: 87, power: 40 }, undefined, 'over the moss to the bend'),
    b('turn.angle', { side: 'left', angle: 90, power: 30 }),
    b('drive.measure', { amount: 80, power: 40 }),
    b('turn.angle', { side: 'left', angle: 90, power: 30 }),
    b('drive.measure', { amount: 82, power: 40 })]),
  '[ ] one block more, test, one block more, test\n[ ] look from above, then from behind\n[ ] touch nothing: the wheels slip on wet moss');

// 6. past the hoop
make('past-the-hoop', 'Past the hoop', barrow, 'Long aisle', program(
  [start(), b('drive.measure', { amount: 80, power: 90, ending: 'coast' }), b('log.mark', { words: 'motors off' }), wait(1)]),
  '[ ] it is meant to stop in the hoop at 80 cm\n[ ] how far does it roll on after the motors are off?\n[ ] mend it in one word');

// 7. eighty centimetres with Barrow 5
make('eighty-centimetres', 'Eighty centimetres', barrow, 'Long aisle', program(
  [start(), b('drive.measure', { amount: 80, power: 45 }), b('log.line', { value: b('sense.driven') })]),
  '[ ] rehearse: it stops at 80 cm\n[ ] send it to Barrow 5: where does that one stop?\n[ ] kit sheet, Calibrate, Barrow 5: measure it, write it down, send again');

// 8. signal post
const runner = program([b('begin.message', { name: 'come' }), b('drive.measure', { amount: 30 }), b('message.send', { name: 'here', whom: 'my stacks and devices nearby' })]);
make('signal-post', 'Signal post', trowel, 'Potting floor', program(
  [b('begin.button', { button: 'Dot', event: 'pressed' }), b('message.send', { name: 'come', whom: 'my stacks and devices nearby' }), b('picture.show', { picture: { picture: '...#... ....#.. ####### ....#.. ...#...' } })],
  [b('begin.message', { name: 'here' }), b('picture.show', { picture: { picture: '......# .....#. #...#.. .#.#... ..#....' } }), b('sound.tone', { pitch: 523, time: 0.3 })]),
  '[ ] press Dot on the trowel: Barrow comes\n[ ] what does Barrow send back, and when?',
  { start: { x: 0.3, y: 0.3, facingDeg: 0 }, others: [{ name: 'Barrow at the gate', kit: barrow, program: runner, start: { x: 0.6, y: 0.4, facingDeg: 0 } }] });

// 9. frost alarm
const cmp = (a: Slot, sign: string, c: Slot) => b('calc.compare', { a, sign, b: c });
make('frost-alarm', 'Frost alarm', trowel, 'Frost bench', program(
  [b('begin.when', { condition: cmp(b('sense.temperature'), '<', 2) }), b('picture.show', { picture: { picture: '#..#..# .#.#.#. ..###.. .#.#.#. #..#..#' } }), b('sound.tone', { pitch: 659, time: 0.4 }), log(b('sense.temperature'))],
  [b('begin.when', { condition: cmp(b('sense.temperature'), '>', 5) }), b('display.dark')],
  [b('begin.button', { button: 'Bar', event: 'pressed' }), b('display.write', { what: b('sense.moisture'), how: 'still' })]),
  '[ ] carry it to the cold frame: the alarm goes\n[ ] stick it into the seed tray and press Bar: how damp is it?',
  { start: { x: 0.5, y: 0.3, facingDeg: 0 } });
