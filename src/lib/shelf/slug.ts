import { fileName } from './files.ts';
/** An id from a name: small letters, digits and hyphens. */
export const slugOf = (name: string): string =>
  fileName(name)
    .normalize('NFD')
    .replace(/[^a-z0-9-]+/g, '')
    .replace(/^-+/, '')
    .slice(0, 55) || 'made-here';
