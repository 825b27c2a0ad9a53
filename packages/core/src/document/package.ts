/** A job as a file to take away: plain where it stands alone, a ZIP of `job.json` and `files/SHA-256` where files belong to it. */
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import { Finding, finding } from '../quantity/finding';
import { LARGEST_FILE, atHand, sha256Of } from '../quantity/files';
import { filesOf } from './files';
import type { Job } from './job';
import { ReadJob, StoredKinds, parseJob } from './read';

const JOB = 'job.json';
const PACKED = new Date(2020, 0, 1);
const FILE = /^files\/([0-9a-f]{64})$/;
/** Most that a package may unfold to, bytes. */
const MOST = 5 * LARGEST_FILE;

/** The text of a job file. */
export const jobText = (job: Job): string => JSON.stringify(job, null, 2) + '\n';

/** A job with those of its files that are at hand. */
export function packJob(job: Job): Uint8Array {
  const files = filesOf(job).flatMap(({ sha256 }) => {
    const bytes = atHand(sha256);
    return bytes ? [[`files/${sha256}`, bytes]] : [];
  });
  const parts = { [JOB]: strToU8(jobText(job)), ...(Object.fromEntries(files) as Record<string, Uint8Array>) };
  // The same job is the same file, whenever it is packed.
  return zipSync(parts, { mtime: PACKED });
}

const isZip = (file: Uint8Array) => file[0] === 0x50 && file[1] === 0x4b;

type Unpacked = { parts: Record<string, Uint8Array>; findings: Finding[] } | { refused: Finding };

function unpack(file: Uint8Array): Unpacked {
  const findings: Finding[] = [];
  let whole = 0;
  try {
    const parts = unzipSync(file, {
      filter: ({ name, originalSize }) => {
        const isOurs = name === JOB || FILE.test(name);
        if (!isOurs && !name.endsWith('/')) findings.push(finding('package-extra', { name }));
        if (isOurs) whole += originalSize <= LARGEST_FILE ? originalSize : Infinity;
        return isOurs && whole <= MOST;
      },
    });
    return whole > MOST
      ? { refused: finding('package-large', { each: LARGEST_FILE / 1e6, all: MOST / 1e6 }) }
      : { parts, findings };
  } catch {
    return { refused: finding('package-unreadable', {}) };
  }
}

/**
 * Reads a job file of either kind. Files that are not what their names say are left out and told; which ones are missing, `missingFiles`
 * knows once those it brought are at hand.
 * @param kinds every kind of operation there is
 */
export function openJob(file: Uint8Array, kinds: StoredKinds): ReadJob {
  if (!isZip(file)) return parseJob(new TextDecoder().decode(file), kinds);
  const unpacked = unpack(file);
  if ('refused' in unpacked) return { findings: [unpacked.refused] };
  const { [JOB]: text, ...parts } = unpacked.parts;
  if (!text) return { findings: [finding('package-without-job', {})] };
  const read = parseJob(strFromU8(text), kinds);
  const told = [...read.findings, ...unpacked.findings];
  const files = read.files ?? [];
  for (const [name, bytes] of Object.entries(parts)) {
    const named = FILE.exec(name)![1];
    if (sha256Of(bytes) === named) files.push(bytes);
    else told.push(finding('package-damaged', { sha256: named }));
  }
  return { ...read, findings: told, files };
}
