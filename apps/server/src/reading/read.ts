/** What is checked beside the event loop; loaded there. */
import 'reflect-metadata';
import { Finding, ShelfName, ShopItems, parseJob, readItem, readJob } from '@tidypath/core';

/** An item with the version it started from, as sent; not looked at yet. */
interface Sent {
  version?: unknown;
  item?: unknown;
}

export interface ReadItems {
  good: { version: number; item: ShopItems[ShelfName] }[];
  findings: Finding[];
}

export const isVersion = (value: unknown): value is number => Number.isInteger(value) && (value as number) >= 0;

function readItems(shelf: ShelfName, entries: Sent[]): ReadItems {
  const findings: Finding[] = [];
  const good: ReadItems['good'] = [];
  entries.forEach((entry, i) => {
    const read = readItem(shelf, entry?.item);
    findings.push(...read.findings.map((f) => ({ ...f, place: { ...f.place, line: i + 1 } })));
    if (read.item && isVersion(entry.version)) good.push({ version: entry.version, item: read.item });
  });
  return { good, findings };
}

/** By what is to be read. */
export const READ = {
  job: (value: unknown) => readJob(value),
  /** Whether a text is a sound job of the current format, as it would be written today. */
  stored: (text: string): boolean => {
    const { job, findings } = parseJob(text);
    return findings.length === 0 && JSON.stringify(job) === text;
  },
  items: ({ shelf, entries }: { shelf: ShelfName; entries: Sent[] }) => readItems(shelf, entries),
};

export default (asked: { what: keyof typeof READ; value: unknown }): unknown => READ[asked.what](asked.value as never);
