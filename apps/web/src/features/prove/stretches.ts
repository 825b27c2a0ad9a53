import {
  type Job,
  type Setup,
  wholeRun,
  type LoadView,
  type Operation,
  type ProofView,
  type WholeRun,
  type Samples,
  runFigures,
} from '@tidypath/core';

/** A stretch of a program's load that can be held against another. */
export interface LoadStretch {
  name: string;
  /** s. */
  seconds: number;
  /** Samples with their time from its start. */
  samples: Samples;
  /** What it costs, where it is a whole program, and the setup it is of. */
  run?: WholeRun & { of: string };
}

export const wholeOf = (name: string, { clock, samples }: LoadView): LoadStretch => ({
  name,
  seconds: clock.total * 60,
  samples,
});

/** A whole program of a setup; `jobId` tells jobs apart that are called the same. */
export const programOf = (name: string, proof: ProofView, jobId: string, job: Job, setup: Setup): LoadStretch => ({
  ...wholeOf(name, proof),
  run: { ...wholeRun(name, job, setup, runFigures(proof), proof), of: `${jobId} ${setup.id}` },
});

/** The samples of the motions `from` up to, not including, `to`, with their time from `start`. */
function samplesWithin(all: Samples, from: number, to: number, start: number): Samples {
  let first = 0;
  while (first < all.count && all.motion[first] < from) first++;
  let last = first;
  while (last < all.count && all.motion[last] < to) last++;
  const cut = Object.fromEntries(
    Object.entries(all).map(([name, column]) => [
      name,
      typeof column === 'number' ? last - first : column.slice(first, last),
    ]),
  ) as unknown as Samples;
  cut.time.forEach((t, i) => (cut.time[i] = t - start));
  return cut;
}

/** The load of every operation of a proved program. */
export function stepStretches({ steps, ends, samples }: ProofView, operations: Operation[]): LoadStretch[] {
  const starts = steps.filter((s) => s.motion >= 0);
  return starts.map(({ operationId, motion }, k) => {
    const to = starts[k + 1]?.motion ?? ends.length;
    const start = motion > 0 ? ends[motion - 1] : 0;
    return {
      name: operations.find((o) => o.id === operationId)?.name ?? operationId,
      seconds: ends[to - 1] - start,
      samples: samplesWithin(samples, motion, to, start),
    };
  });
}
