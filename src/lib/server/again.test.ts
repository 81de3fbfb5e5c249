import Papa from 'papaparse';
import { expect, it } from 'vitest';
import { runAgain } from '../../../core/class/again.ts';
import { projectOf } from '../../../core/errand/errand.ts';
import { yardsOf, situationSays } from '../../../core/errand/yards.ts';
import { fromText } from '../../../core/testing/text.ts';
import { demoErrands } from '../../../demo/seed.ts';
import { againCsv } from './again.ts';

it('the teacher’s table says of each situation whether all goals were met in it', () => {
  const errand = demoErrands().find((e) => e.id === 'stop-short')!;
  const project = projectOf(errand);
  const far = fromText('if distance.cm() > 20:\n    wheels.drive(cm=80, power=40, ending="brake")', errand.kit);
  const row = (nickname: string, program: typeof far) => {
    const came = runAgain({ ...project, program }, errand);
    if ('text' in came) throw new Error('a text');
    return { handIn: nickname, nickname, projectId: nickname, ...came };
  };
  const csv = againCsv({
    goals: ['stops', 'touches nothing', 'asks'],
    situations: yardsOf(errand, errand).map(situationSays),
    rows: [row('Finch', errand.model), row('Newt', far), { handIn: 'h', nickname: 'Wren', projectId: 'w', says: '=1' }]
  });
  const [head, finch, newt, wren] = Papa.parse<string[]>(csv.replace('\ufeff', '')).data;
  const of = (line: string[]) => Object.fromEntries(head.map((h, i) => [h.slice(0, 11), line[i]]));
  expect(of(finch)).toMatchObject({ 'situation 1': '1', 'situation 2': '1', 'situation 3': '1', 'all goals': '1' });
  expect(of(newt)).toMatchObject({ 'situation 1': '1', 'situation 2': '0', 'situation 3': '0', 'all goals': '0' });
  expect([wren.length, wren.at(-1)]).toEqual([head.length, "'=1"]);
});
