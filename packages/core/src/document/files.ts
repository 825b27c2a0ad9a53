/** The files that belong to a job and stand beside it. */
import { JobFile, atHand } from '../quantity/files';
import { Finding, finding } from '../quantity/finding';
import type { Job } from './job';

/** The files a job names, each once. */
export function filesOf({ setups, part }: Job): JobFile[] {
  const ofPart = part.kind === 'solid' ? [part.surface, ...(part.source ? [part.source] : [])] : [];
  const named = [...setups.flatMap(({ stock }) => stock.casting ?? []), ...ofPart];
  return [...new Map(named.map((f) => [f.sha256, f])).values()];
}

/** Those of them that are asked for when it is planned and proved, and are not at hand. */
export function missingFiles(job: Job): JobFile[] {
  const { part } = job;
  // The file a solid came in is kept, but nothing is computed from it.
  const source = part.kind === 'solid' ? part.source?.sha256 : undefined;
  return filesOf(job).filter((f) => f.sha256 !== source && !atHand(f.sha256));
}

/** Says that a file is not here. */
export const fileMissing = ({ name, sha256 }: JobFile): Finding => finding('file-missing', { name, sha256 });
