import { database } from '../src/lib/server/database.ts';
import { seedClass } from './class.ts';
import { seed, ship } from './seed.ts';

seed(database());
ship(database());
await seedClass(database());
process.exit();
