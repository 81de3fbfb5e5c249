/** CommonMark 0.31.2 (spec.commonmark.org) says what a heading, a fence and its info string are; GFM says what a task list is. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { forPupils, namedIn, pageOf, renamedErrand, type Piece } from './page.ts';

const known = {
  programs: new Set(['forty', 'loop', 'long']),
  errands: new Set(['first-delivery']),
  page: (path: string) => ['/handbook', '/handbook/noise'].includes(path)
};
const page = (text: string) => pageOf(`# A lesson\n\n${text}`, known);
const says = (text: string): string[] => page(text).problems.map((p) => p.says);
const pieces = (text: string): Piece[] => page(text).steps.flatMap((s) => s.parts.filter((p) => 'kind' in p));
const fence = (info: string, text = ''): string => `\`\`\`${info}\n${text}\n\`\`\`\n`;

describe('the text of a lesson as a page', () => {
  it('has a name, and a step for each heading of the second level; what comes before it is a step of its own', () => {
    const { title, steps, problems } = page('Words *before*.\n\n## One\n\nText\n\n### Within\n\n## Two\n');
    expect(problems).toEqual([]);
    expect(title).toBe('A lesson');
    expect(steps.map((s) => s.title)).toEqual(['', 'One', 'Two']);
    expect(steps[1].parts).toEqual([{ words: expect.stringContaining('### Within') }]);
    expect(page('## One\n').steps.map((s) => s.title)).toEqual(['One']);
    // Setext headings and fences of tildes are the same (CommonMark, sections 4.3 and 4.5)
    expect(pageOf('Name\n====\n\nStep\n----\n', known)).toMatchObject({ title: 'Name', steps: [{ title: 'Step' }] });
    expect(pieces('~~~ program forty\n~~~\n')).toMatchObject([{ kind: 'program', names: ['forty'] }]);
    expect(pageOf('## One', known).problems.map((p) => p.says)).toEqual([
      'The lesson has no name. Begin with a line "# " and its name.'
    ]);
  });
  it('has questions whose answers are a task list, of which one is right', () => {
    const [piece] = pieces(fence('question forty', 'How *far*?\n\n- [ ] 10 cm\n- [x] 40 cm\n- [ ] on and on'));
    expect(piece).toMatchObject({
      markdown: 'How *far*?',
      names: ['forty'],
      answers: [
        { text: '10 cm', right: false },
        { text: '40 cm', right: true },
        { text: 'on and on', right: false }
      ]
    });
    // without a task list it is written; a plain list is a part of the question
    expect(pieces(fence('question', 'Why?\n\n- one\n- two'))).toMatchObject([
      { answers: [], markdown: 'Why?\n\n- one\n- two' }
    ]);
    expect(says(fence('question', '- [ ] yes\n- [x] no'))).toEqual([
      'This question asks nothing: write it above its answers.'
    ]);
    expect(says(fence('question', 'Well?\n\n- [ ] yes\n- [ ] no'))).toEqual([
      'None of the answers is marked as right by [x].'
    ]);
    // its answer is remembered as long as it asks the same
    const key = (text: string): string => pieces(fence('question', text))[0].key;
    expect(key('Why?')).toBe(key('Why?'));
    expect(key('Why?')).not.toBe(key('Why not?'));
  });
  it('says at its place what names something that is not there', () => {
    const text = `# A lesson\n\nWords.\n\n${fence('program nowhere')}`;
    const { problems, steps } = pageOf(text, known);
    expect(problems).toHaveLength(1);
    expect(problems[0].says).toContain('no program that is called "nowhere"');
    expect(text.slice(problems[0].from, problems[0].to)).toBe(fence('program nowhere').trimEnd());
    expect(steps[0].parts).toHaveLength(1);
    expect(says(fence('errand lost'))[0]).toContain('no errand "lost" on this computer');
    expect(says(fence('program'))[0]).toContain('names one thing'.replace('one', '1'));
    expect(says(fence('misconception forty'))[0]).toContain('names 2 things');
    expect(says(fence('ways forty'))[0]).toContain('names 2 to 4 things');
    expect(says(fence('misconception forty loop'))).toEqual([]);
  });
  it('knows pieces from code, and tells a word that is neither', () => {
    expect(says(fence('python', 'wait(1)'))).toEqual([]);
    expect(says(fence('', 'as it stands'))).toEqual([]);
    expect(says(fence('quesion', 'Why?'))[0]).toMatch(
      /no piece that is called "quesion"\. Pieces are: objective, program/
    );
    expect(says(fence('constructor', ''))[0]).toContain('"constructor"');
  });
  it('leads to the handbook and to the web, shows pictures that are in it, and no HTML', () => {
    expect(says('[noise](/handbook/noise) and [web](https://example.org/a) and [here](#step)')).toEqual([]);
    expect(says('[gone](/handbook/gone)')[0]).toContain('This link leads nowhere: /handbook/gone');
    expect(says('[bad](javascript:alert(1))')[0]).toContain('This link leads nowhere');
    expect(says('- a list\n  - with a [bad](data:text/html,x)')[0]).toContain('This link leads nowhere');
    expect(says('| a | b |\n|---|---|\n| [bad](file:///etc/passwd) | c |')[0]).toContain('This link leads nowhere');
    expect(says(fence('teacher', '[bad](/nowhere)'))[0]).toContain('This link leads nowhere');
    const text = `# A lesson\n\n${fence('teacher', 'Read [bad](/nowhere) first.')}`;
    const [{ from, to }] = pageOf(text, known).problems;
    expect(text.slice(from, to)).toBe('[bad](/nowhere)');
    expect(says('![x](https://example.org/a.png)')[0]).toContain('This picture lies elsewhere');
    expect(says('![x](data:image/png;base64,iVBORw0KGgo=)')).toEqual([]);
    expect(says('![x](data:image/svg+xml;base64,AA==)')[0]).toContain('This picture lies elsewhere');
    expect(says('<script>alert(1)</script>')[0]).toContain('HTML is not shown');
    expect(says('Word <b onclick="x()">bold</b>')[0]).toContain('HTML is not shown');
  });
  it('never fails, loses no words, and its problems lie within the text, whatever it is given', () => {
    const word = fc.constantFrom(
      '# ',
      '## ',
      '```',
      '~~~',
      'question ',
      'program ',
      'forty',
      '- [x] ',
      '\n',
      '\n\n',
      '[a](',
      ')',
      '<b>',
      ' ',
      '\t',
      'Blume',
      '|',
      '\r\n'
    );
    fc.assert(
      fc.property(fc.array(word, { maxLength: 40 }), (words) => {
        const text = words.join('');
        const { problems, steps } = pageOf(text, known);
        for (const { from, to } of problems) {
          expect(from).toBeGreaterThanOrEqual(0);
          expect(to).toBeGreaterThanOrEqual(from);
          expect(from).toBeLessThanOrEqual(text.length);
        }
        expect(steps.length).toBeGreaterThan(0);
        forPupils(text);
      })
    );
  });
});

describe('what a lesson names and hides', () => {
  const text = `# L\n\n${fence('teacher', 'secret')}\nWords\n\n${fence('errand a')}\n${fence('ways x y')}\n${fence('errand a')}`;
  it("is without the teacher's notes for pupils", () => {
    expect(forPupils(text)).not.toContain('secret');
    expect(forPupils(text)).toContain('Words');
    expect(forPupils('# L\n\n~~~ teacher\nsecret\n~~~\n')).not.toContain('secret');
    // within a list or a quotation too
    expect(forPupils('# L\n\n- one\n\n  ```teacher\n  secret\n  ```\n')).not.toContain('secret');
    expect(forPupils('# L\n\n> ```teacher\n> secret\n> ```\n')).not.toContain('secret');
    expect(forPupils('# L\n\n````teacher\n```\nsecret\n```\n````\n\nafter')).toBe('# L\n\n\n\nafter');
  });
  it('names programs and errands, each once', () => {
    expect(namedIn(text, 'errand')).toEqual(['a']);
    expect(namedIn(text, 'program')).toEqual(['x', 'y']);
  });
  it('gives an errand another name in its fences alone', () => {
    const renamed = renamedErrand(
      `errand a\n\n${fence('errand a')}${fence('errand ab')}~~~  errand a \n~~~\n`,
      'a',
      'z'
    );
    expect(renamed).toBe(`errand a\n\n${fence('errand z')}${fence('errand ab')}~~~  errand z \n~~~\n`);
  });
});
