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
    expect(found('zebra crossing')).toEqual([]);
  });
});
