import { newProject } from './core/project.ts';
import { barrow, trowel } from './core/kit/kit.ts';
import { mats } from './core/yard/mats.ts';
import { b, program, start, wait } from './core/testing/build.ts';
const mat = (n: string) => mats.find(m => m.name===n)!;
const t = { ...newProject('Toss', trowel, mat('Frost bench')), program: program(start(b('picture.show'), wait(60))) };
const r = { ...newProject('Aisle', barrow, mat('Narrow aisle')), program: program(start(b('drive.measure',{amount:60}), b('turn.angle',{side:'left', angle:90}), b('drive.measure',{amount:40}))) };
console.log(JSON.stringify({ t, r }));
