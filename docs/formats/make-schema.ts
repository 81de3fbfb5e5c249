/** Writes the JSON Schema of project files: npm run schema. */
import { writeFileSync } from 'node:fs';
import * as z from 'zod';
import { projectSchema } from '../../core/project.ts';

writeFileSync(
  new URL('./program.schema.json', import.meta.url),
  JSON.stringify(z.toJSONSchema(projectSchema), null, 1) + '\n'
);
