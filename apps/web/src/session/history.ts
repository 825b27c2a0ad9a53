import type { Job } from '@tidypath/core';

/** A job with what came before and after it. */
export interface History {
  past: Job[];
  present: Job;
  future: Job[];
  /** What the last change was about; the same tag twice within a moment counts as one step. */
  tag: string;
  at: number;
}

const MOST = 200;
/** Changes under one tag closer together than this are undone as one, ms. */
const TOGETHER = 1200;

export const begin = (job: Job): History => ({ past: [], present: job, future: [], tag: '', at: 0 });

export function change(h: History, next: Job, tag: string, now: number): History {
  if (next === h.present) return h;
  const same = tag !== '' && tag === h.tag && now - h.at < TOGETHER;
  const past = same ? h.past : [...h.past, h.present].slice(-MOST);
  return { past, present: next, future: [], tag, at: now };
}

export function undo(h: History): History {
  const before = h.past[h.past.length - 1];
  return before ? { past: h.past.slice(0, -1), present: before, future: [h.present, ...h.future], tag: '', at: 0 } : h;
}

export function redo(h: History): History {
  const [after, ...rest] = h.future;
  return after ? { past: [...h.past, h.present], present: after, future: rest, tag: '', at: 0 } : h;
}
