/** Writes docs/job-file.schema.json from the classes that check a job. */
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { jobSchema } from '@tidypath/core/plan/schema';

writeFileSync(join(__dirname, '../docs/job-file.schema.json'), JSON.stringify(jobSchema(), null, 2) + '\n');
