/** What Chromium tells of a page at work. */
export interface Trace {
  traceEvents: { ph: string; name: string; pid: number; tid: number; tdur?: number; args: { name?: string } }[];
}

/** Own times of the tasks of the pages' main threads, ms: what they compute, not what they wait for the machine. */
export function ownTimes({ traceEvents }: Trace): number[] {
  const thread = ({ pid, tid }: { pid: number; tid: number }) => `${pid}/${tid}`;
  const mains = new Set(
    traceEvents.filter((e) => e.name === 'thread_name' && e.args.name === 'CrRendererMain').map(thread),
  );
  const tasks = traceEvents.filter((e) => e.ph === 'X' && e.name.endsWith('RunTask') && mains.has(thread(e)));
  return tasks.map((e) => (e.tdur ?? 0) / 1000);
}
