/** A test that takes seconds: not run again for every small change that `npm run mutate` makes, so its scores are lower bounds. */
import { it } from 'vitest';

export const long = it.skipIf('MUTATE_TESTS' in process.env);
