// @vitest-environment jsdom
/**
 * Hostile words: those of the OWASP cheat sheet on filter evasion (cross-site scripting; from memory), and what Markdown
 * makes of them. Nothing may come out that runs, loads or leaves its place.
 */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { proseOf } from './prose.ts';

const parsed = (markdown: string): HTMLElement => {
  const host = document.createElement('div');
  host.innerHTML = proseOf(markdown);
  return host;
};
const ALLOWED = new Set(
  'h3 h4 h5 h6 p br hr strong em del code pre blockquote ul ol li a img table thead tbody tr th td'.split(' ')
);
function harmless(markdown: string): void {
  for (const element of parsed(markdown).querySelectorAll('*')) {
    expect(ALLOWED).toContain(element.localName);
    for (const { name, value } of element.attributes) {
      expect(name).not.toMatch(/^on|^style$|^srcset$|^id$|^class$/);
      if (name === 'href') expect(value).toMatch(/^(https?:\/\/|\/handbook|#)/);
      if (name === 'src') expect(value).toMatch(/^data:image\/(png|jpeg|gif|webp);base64,/);
    }
  }
}
const HOSTILE = [
  '<script>alert(1)</script>',
  '<img src=x onerror=alert(1)>',
  '<svg/onload=alert(1)>',
  '<iframe src="javascript:alert(1)"></iframe>',
  '<a href="jav&#x09;ascript:alert(1)">x</a>',
  '[x](javascript:alert(1))',
  '[x](JaVaScRiPt:alert(1))',
  '[x](vbscript:msgbox(1))',
  '[x](data:text/html;base64,PHNjcmlwdD4=)',
  '![x](javascript:alert(1))',
  '![x](data:image/svg+xml;base64,PHN2Zz4=)',
  '![x](https://example.org/pixel.gif)',
  '<style>*{display:none}</style>',
  '<form action="https://example.org"><input name=q><button>go</button></form>',
  '<base href="https://example.org/">',
  '<math><mtext></form><form><mglyph><style></math><img src onerror=alert(1)>',
  '<p style="position:fixed;inset:0" onclick="alert(1)" id="x">x</p>',
  '`<script>`\n\n```html\n<script>alert(1)</script>\n```',
  '[x]: javascript:alert(1)\n\n[x]',
  '<details ontoggle=alert(1) open>x</details>'
];

describe('words of a lesson', () => {
  it.each(HOSTILE)('are harmless: %s', (markdown) => harmless(markdown));
  it('are harmless however they are put together', () => {
    fc.assert(
      fc.property(fc.array(fc.constantFrom(...HOSTILE, '\n\n', '> ', '- ', '|', '**'), { maxLength: 8 }), (list) =>
        harmless(list.join(''))
      )
    );
  });
  it('stay words: emphasis, lists, tables, code, links that open beside the lesson', () => {
    expect(proseOf('**a** *b* `c`')).toBe('<p><strong>a</strong> <em>b</em> <code>c</code></p>\n');
    expect(parsed('| a | b |\n|---|---|\n| 1 | 2 |').querySelectorAll('td')).toHaveLength(2);
    const link = parsed('[noise](/handbook/noise)').querySelector('a')!;
    expect([link.getAttribute('href'), link.target, link.rel]).toEqual([
      '/handbook/noise',
      '_blank',
      'noopener noreferrer'
    ]);
    expect(parsed('- [ ] one\n- [x] two').textContent!.replace(/\s+/g, ' ').trim()).toBe('☐ one ☒ two');
    expect(parsed('![leaf](data:image/png;base64,iVBORw0KGgo=)').querySelector('img')!.alt).toBe('leaf');
  });
});
