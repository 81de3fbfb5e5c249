import { barrow } from '../../../kit/kit.ts';
import { cases } from '../../../testing/cases.ts';

cases('plug-wrong', {
  kit: { ...barrow, parts: barrow.parts.map((p) => (p.name === 'striker' ? { ...p, plug: 'wrong' as const } : p)) },
  fires: { 'the program drives it': 'striker.angle(90)\nwait(1)\nstriker.angle(20)\nwait(1)' },
  silent: { 'the other servo': 'pan.angle(90)\nwait(1)' }
});
