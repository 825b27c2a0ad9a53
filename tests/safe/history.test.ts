/** Every state of a job is kept: who made it and when, what came too late, what was released, what was deleted. */
import { rmSync } from 'node:fs';
import { Job, JobRow, SaveResult, newJob } from '@tidypath/core';
import { openDb } from '../../apps/server/src/db/open';
import { JobStore } from '../../apps/server/src/jobs/store';
import { folder } from './server';

const MINUTE = 60_000;
const DAY = 24 * 60 * MINUTE;
const bench = { device: 'bench', who: 'Bench phone' };
const desk = { device: 'desk', who: 'Ada' };

describe('history', () => {
  const data = folder();
  const db = openDb(data);
  let at = Date.parse('2026-03-02T08:00:00Z');
  const store = new JobStore(db, () => new Date(at));
  const job = newJob('Plate', 'mm');
  afterAll(() => {
    db.close();
    rmSync(data, { recursive: true, force: true });
  });

  /** A job whose every save is told by its note. */
  class Kept {
    readonly id: string;
    version = 1;
    constructor(first = desk) {
      this.id = store.create(job, first).id;
    }
    save(note: string, author = desk, base = this.version): SaveResult {
      const result = store.save(this.id, base, { ...job, note }, author) as SaveResult;
      if (result.saved) this.version = result.version;
      return result;
    }
    get notes(): string[] {
      return store.versions(this.id).map((v) => (store.version(this.id, v.id) as { job: Job }).job.note);
    }
  }

  test('the saves of one device within 10 minutes are one version', () => {
    const kept = new Kept();
    for (let i = 1; i <= 4; i++) {
      at += 2 * MINUTE;
      kept.save(`a${i}`);
    }
    kept.save('another device', bench);
    at += 3 * MINUTE;
    kept.save('a5');
    at += 10 * MINUTE;
    kept.save('a6');
    expect(kept.notes).toEqual(['a6', 'a5', 'another device', 'a4']);
    expect(store.versions(kept.id).map((v) => v.who)).toEqual(['Ada', 'Ada', 'Bench phone', 'Ada']);
    expect(store.versions(kept.id)[0]).toMatchObject({ at: new Date(at).toISOString(), version: kept.version });
  });

  test('kept are 50, then one a day for 90 days, and every released one', () => {
    const kept = new Kept();
    const begin = at;
    kept.save('released');
    expect(store.keepForGood(kept.id, kept.version)).toBe(true);
    for (let day = 0; day < 120; day++)
      for (const hour of [1, 9, 15]) {
        at = begin + day * DAY + hour * 60 * MINUTE;
        kept.save(`day ${day}, ${hour}`);
      }
    const notes = kept.notes;
    const days = notes.slice(50, -1).map((n) => Number(/\d+/.exec(n)![0]));
    expect(notes.slice(0, 3)).toEqual(['day 119, 15', 'day 119, 9', 'day 119, 1']);
    expect(notes.at(-1)).toBe('released');
    expect(notes.slice(50, -1).every((n) => n.endsWith(', 15'))).toBe(true);
    expect([days[0], days.at(-1)]).toEqual([102, 29]);
    expect(new Set(days).size).toBe(days.length);
    expect(store.versions(kept.id).at(-1)).toMatchObject({ kind: 'released' });
  });

  test('a released state is not written over by the next save of the same device', () => {
    const kept = new Kept();
    kept.save('as released');
    store.keepForGood(kept.id, kept.version);
    kept.save('afterwards');
    expect(kept.notes.slice(0, 2)).toEqual(['afterwards', 'as released']);
    expect(store.keepForGood(kept.id, kept.version - 1)).toBe(false);
  });

  test('refused saves are in it', () => {
    const kept = new Kept();
    kept.save('theirs', bench);
    const late = kept.save('mine', desk, 1);
    expect(late).toMatchObject({ saved: false, current: { version: 2, job: { note: 'theirs' } } });
    expect(store.versions(kept.id).find((v) => v.kind === 'refused')).toMatchObject({ who: 'Ada', version: 1 });
    expect(kept.notes).toContain('mine');
    // Going on with mine: theirs is still there.
    kept.save('mine', desk);
    expect(kept.notes).toContain('theirs');
  });

  test('a save whose answer was lost is taken once, not refused as if it were somebody else’s', () => {
    const kept = new Kept();
    expect([kept.save('mine', desk, 1), kept.save('mine', desk, 1)]).toEqual([
      { saved: true, version: 2 },
      { saved: true, version: 2 },
    ]);
    expect(store.versions(kept.id).filter((v) => v.kind === 'refused')).toEqual([]);
  });

  test('a job deleted elsewhere says so and comes back from a bin (30 days)', () => {
    const kept = new Kept();
    kept.save('last');
    store.remove(kept.id);
    expect(store.get(kept.id)).toEqual({ deletedAt: new Date(at).toISOString() });
    expect(kept.save('too late')).toEqual({ deletedAt: new Date(at).toISOString() });
    expect(store.list({ place: 'bin' }).jobs.map((j) => j.id)).toEqual([kept.id]);
    at += 29 * DAY;
    expect(store.emptyBin()).toBe(0);
    expect(store.restore(kept.id)).toBe(true);
    expect((store.get(kept.id) as JobRow).job.note).toBe('last');
    store.remove(kept.id);
    at += 31 * DAY;
    expect(store.emptyBin()).toBe(1);
    expect([store.get(kept.id), store.versions(kept.id)]).toEqual([undefined, []]);
  });
});
