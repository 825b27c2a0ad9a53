/** `npm run bench`: one table of figures against their bars. */
import 'reflect-metadata';
import { Row, kernelRow } from './kernel';
import { pageRows } from './page';
import { planningRows } from './planning';

async function main(): Promise<void> {
  const rows: Row[] = [kernelRow(), ...planningRows(), ...(await pageRows())];
  const width = Math.max(...rows.map((r) => r.what.length));
  const figures = Math.max(...rows.map((r) => r.figure.length));
  for (const r of rows) {
    const verdict = r.met === undefined ? '' : r.met ? 'met' : 'NOT MET';
    process.stdout.write(`${r.what.padEnd(width)}  ${r.figure.padEnd(figures)}  ${r.bar}  ${verdict}\n`);
  }
}

void main();
