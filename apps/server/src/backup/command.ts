/** `npm run backup -- FILE`, `npm run restore -- FILE`. */
import { join, resolve } from 'node:path';
import { backUpFolder, restore } from './backup';

const [what, file] = process.argv.slice(2);
const folder = resolve(process.env.TIDYPATH_DATA ?? join(__dirname, '../../../../data'));

async function run(): Promise<string> {
  if (!file) throw new Error(`Name the file: npm run ${what} -- FILE`);
  if (what === 'backup') {
    await backUpFolder(folder, resolve(file));
    return `The whole shop is in ${file}`;
  }
  const aside = restore(folder, resolve(file));
  return `${file} is in its place${aside ? `; what was there is kept in ${aside}` : ''}`;
}

run().then(
  (said) => void process.stdout.write(`${said}\n`),
  (error: Error) => {
    process.stderr.write(`${error.message}\n`);
    process.exit(1);
  },
);
