import { KITS } from '../../../testing/kits.ts';
import { cases } from '../../../testing/cases.ts';

const LARGE = Array(12).fill('g...........').join(' ');
cases('picture-beyond', {
  fires: {
    'painted for a screen': `display.show(Picture("${LARGE}"))\nwait(1)`,
    'a row too many': 'display.show(Picture("# # # # # #"))\nwait(1)',
    'within another picture': `display.show(over(Picture("#"), Picture("${'.'.repeat(8)}")))\nwait(1)`
  },
  silent: {
    'as large as the display': 'display.show(Picture("....##. ..####. .####.. .##.... #......"))\nwait(1)',
    smaller: 'display.show(Picture("##"))\nwait(1)'
  }
});
cases('picture-beyond', {
  kit: KITS['with a strip'].kit,
  fires: { 'five rows on a strip': 'display.show(Picture("....##. ..####. .####.. .##.... #......"))\nwait(1)' },
  silent: { 'one row': 'display.show(Picture("rgb"))\nwait(1)' }
});
