/** `npm run findings` writes docs/findings.md from the one table of findings. */
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { findingsPage } from '../packages/core/src/quantity/findings/page';

writeFileSync(join(__dirname, '../docs/findings.md'), findingsPage());
