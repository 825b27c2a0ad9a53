/** Setup sheets on paper, from a job that is planned and proved for them. */
import { Bench, Job, ProofSummary, Setup, findingsOf, proven } from '@tidypath/core';
import { PAPERS, Paper, htmlOf, setupSheet } from '@tidypath/sheets';
import { pdfOf } from '@tidypath/sheets/pdf';
import { UsageError, loadJob, oneOf, parse, pickSetup, print, writeInto } from './files';

/** Planned, posted and proved; nothing where it has no program. */
function proofOf(bench: Bench, job: Job, setup: Setup): ProofSummary | undefined {
  const work = proven(bench, job, setup);
  for (;;) {
    const { done, value } = work.next();
    if (!done) continue;
    if (value!.programs.length > 0) return value!.proof;
    for (const f of findingsOf(value!.checks).filter((one) => one.level === 'stop'))
      print(`${setup.name}: ${f.message}`);
    return undefined;
  }
}

/** `sheet JOB`: the setup sheet of each setup, as a page and as PDF. */
export function sheetCommand(args: string[]): number {
  const { positionals, values } = parse(args, {
    ...{ setup: { type: 'string' }, paper: { type: 'string' }, out: { type: 'string' } },
  });
  if (!values.out) throw new UsageError('Name a folder with --out');
  const paper = oneOf(values.paper, 'paper', Object.keys(PAPERS) as Paper[]) ?? 'A4';
  const job = loadJob(positionals[0]);
  if (!job) return 1;
  const bench = new Bench();
  let missing = 0;
  for (const setup of values.setup ? [pickSetup(job, values.setup)] : job.setups) {
    const proof = proofOf(bench, job, setup);
    if (!proof) {
      missing++;
      continue;
    }
    const sheet = setupSheet({ job, setup, proof });
    writeInto(values.out, `${setup.id}.html`, htmlOf(sheet));
    writeInto(values.out, `${setup.id}.pdf`, pdfOf(sheet, paper, new Date(0)));
  }
  return missing > 0 ? 1 : 0;
}
