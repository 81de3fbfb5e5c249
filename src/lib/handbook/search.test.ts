import { describe, expect, it } from 'vitest';
import { catalogue } from '../../../core/language/catalogue.ts';
import { articles, html } from './articles.ts';
import { found, pages } from './search.ts';

describe('the handbook', () => {
  it('has a page for every block and every article, with addresses of their own', () => {
    expect(pages()).toHaveLength(catalogue.size + articles().length);
    expect(new Set(pages().map((p) => p.href)).size).toBe(pages().length);
    for (const a of articles()) expect(html(a)).toContain('<p>');
  });
  it('finds pages by words in any order, titles first', () => {
    expect(found('brake coast')[0].title).toBe('Brake and coast');
    expect(found('Gyro turn').map((p) => p.href)).toContain('/handbook/block/turn.gyro');
    expect(found('atan2').map((p) => p.title)).toEqual(['Angle of an arrow']);
    // what somebody asks who is stuck
    const first = (text: string): string[] => found(text).map((p) => p.title);
    for (const [text, title] of [
      ['nothing', 'It does nothing'],
      ['wrong way', 'It turns the wrong way'],
      ['into the wall', 'It drives into the wall'],
      ['saving', 'Saving, files, versions, deleting'],
      ['deleted', 'Saving, files, versions, deleting'],
      ['version', 'Saving, files, versions, deleting'],
      ['open file', 'Saving, files, versions, deleting'],
      ['sending', 'Sending to the device'],
      ['keyboard', 'Keyboard, screen, language'],
      ['phone', 'In the hand'],
      ['language', 'Keyboard, screen, language']
    ])
      expect(first(text)[0], text).toBe(title);
    expect(found('zebra crossing')).toEqual([]);
  });
});
