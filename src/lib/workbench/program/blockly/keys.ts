import { KEY } from '../../../../../core/language/blocks/begin.ts';

/** The name of a key, as programs have it; undefined for keys they cannot ask for. */
export function keyName(key: string): string | undefined {
  const name =
    key === ' ' ? 'Space' : key.startsWith('Arrow') ? key.slice(5) : key.length === 1 ? key.toUpperCase() : key;
  return KEY.test(name) ? name : undefined;
}
