import { database } from '../src/lib/server/database.ts';
import { seed } from './seed.ts';

seed(database());
