/**
 * `npm run bench`: one table of figures against their bars; `npm run bench -- steady` for all of steady-load clearing;
 * `npm run bench -- load` for the server alone; `npm run bench -- --against COMMIT` for this state beside an earlier one.
 */
import { against } from './against';
import { Row, kernelRow } from './kernel';
import { loadRows } from './load';
import { logRows } from './log';
import { pageRows } from './page';
import { planningRows } from './planning';
import { speedRows } from './speeds';
import { STEADY_TOOLS } from '../packages/core/testing/steady-jobs';
import { steadyTable } from './steady';

async function main(): Promise<void> {
  if (process.argv[2] === 'steady') {
    steadyTable(STEADY_TOOLS, 'climb');
    return steadyTable(STEADY_TOOLS.slice(0, 2), 'both ways');
  }
  if (process.argv[2] === '--against') {
    process.exitCode = against(process.argv[3] ?? 'HEAD') ? 0 : 1;
    return;
  }
  const isLoad = process.argv[2] === 'load';
  const rows: Row[] = isLoad
    ? []
    : [kernelRow(), ...planningRows(), ...speedRows(), ...(await logRows()), ...(await pageRows())];
  rows.push(...(await loadRows()));
  const width = Math.max(...rows.map((r) => r.what.length));
  const figures = Math.max(...rows.map((r) => r.figure.length));
  for (const r of rows) {
    const verdict = r.met === undefined ? '' : r.met ? 'met' : 'NOT MET';
    process.stdout.write(`${r.what.padEnd(width)}  ${r.figure.padEnd(figures)}  ${r.bar}  ${verdict}\n`);
  }
  if (!isLoad) steadyTable(STEADY_TOOLS.slice(0, 1), 'climb');
}

void main();
