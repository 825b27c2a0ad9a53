import { randomUUID } from 'node:crypto';
import {
  AgainstJob,
  AnswerEntry,
  Job,
  KeptAnswer,
  Person,
  ReleaseBody,
  ReleaseRow,
  ReleaseView,
  ReleasedProgram,
  changedParts,
  differenceOf,
  filesOf,
  isHandedOut,
  isOfRelease,
  kitOf,
  makingOf,
  stateOf,
  wholeTime,
} from '@tidypath/core';
import type { Db } from '../db/open';
import type { Author } from '../guard/author';
import { Settings } from '../guard/secrets';
import type { JobStore } from '../jobs/store';
import { AtMachine } from './at-machine';

/** Who releases, answers or ticks: the device, and the person where somebody was chosen on it. */
export interface By extends Author {
  person?: Person;
}

interface Stored {
  id: string;
  job_id: string;
  number: number;
  setup_id: string;
  version: number;
  at: string;
  person: string | null;
  who: string;
  needed: number;
  root: string;
  parts: string;
  job_name: string;
  setup_name: string;
  machine: string;
  seconds: number;
  to_load: string;
}

const SHORT =
  'id, job_id, number, setup_id, version, at, person, who, needed, root, parts, job_name, setup_name, machine, seconds, to_load';
const text = (bytes: Buffer) => bytes.toString('utf8');

/** Keeps releases: programs as bytes with all they stood on, and what is said of them; rows are only added. */
export class ReleaseStore {
  private readonly settings: Settings;

  /** What was ticked, measured and entered at the machine. */
  readonly atMachine: AtMachine;

  constructor(
    private readonly db: Db,
    private readonly jobs: JobStore,
    private readonly now: () => Date = () => new Date(),
  ) {
    this.settings = new Settings(db);
    this.atMachine = new AtMachine(db, now);
  }

  /** Whether the shop hands out only what somebody has approved. */
  get shopNeedsApproval(): boolean {
    return this.settings.get('needs-approval') === '1';
  }
  set shopNeedsApproval(on: boolean) {
    this.settings.set('needs-approval', on ? '1' : '');
  }

  /** Under which phones of the shop reach this server; empty where they do not. */
  get address(): string {
    return this.settings.get('address') ?? '';
  }
  set address(address: string) {
    this.settings.set('address', address);
  }

  needsApproval = (jobId: string): boolean => this.shopNeedsApproval || this.jobs.needsApproval(jobId);

  /**
   * Keeps a release, and the state of its job with it, or finds the one that has the same root.
   * @returns its id; undefined where the job has gone on since
   */
  keep(
    jobId: string,
    version: number,
    { body, programs }: { body: ReleaseBody; programs: ReleasedProgram[] },
    by: By,
  ): string | undefined {
    return this.db.transaction(() => {
      if (!this.jobs.keepForGood(jobId, version)) return undefined;
      const same = this.db
        .prepare<[string, string, string], string>(
          // What nobody is named for cannot be approved: whoever is, makes one of their own.
          `SELECT id FROM releases WHERE job_id = ? AND setup_id = ? AND root = ? ${by.person ? 'AND person IS NOT NULL' : ''}
           ORDER BY number DESC LIMIT 1`,
        )
        .pluck()
        .get(jobId, body.setupId, body.root);
      const id = same ?? this.add(jobId, version, { body, programs }, by);
      this.db
        .prepare('INSERT OR IGNORE INTO release_makings (release_id, making) VALUES (?, ?)')
        .run(id, makingOf(body.job, setupOf(body)));
      this.noteHandedOut(id);
      return id;
    })();
  }

  /** The list of jobs hears of what may be handed out. */
  private noteHandedOut(id: string): void {
    const row = this.row(id)!;
    if (isHandedOut(row.state)) this.jobs.release(row.jobId, row.setupId);
  }

  private add(
    jobId: string,
    version: number,
    { body, programs }: { body: ReleaseBody; programs: ReleasedProgram[] },
    { device, who, person }: By,
  ): string {
    const id = randomUUID();
    const setup = setupOf(body);
    const called = body.proof.called.map((c) => c.number);
    const toLoad = kitOf(body.job, setup, called, body.proof.wear).filter((k) => k.stands !== 'there');
    this.db
      .prepare(
        `INSERT INTO releases (${SHORT}, device, body)
         VALUES (@id, @jobId, (SELECT coalesce(max(number), 0) + 1 FROM releases WHERE job_id = @jobId), @setupId, @version, @at, @person,
           @who, @needed, @root, @parts, @jobName, @setupName, @machine, @seconds, @toLoad, @device, @body)`,
      )
      .run({
        ...{ id, jobId, version, device, who },
        setupId: setup.id,
        at: this.now().toISOString(),
        person: person?.id ?? null,
        needed: Number(this.needsApproval(jobId)),
        root: body.root,
        parts: JSON.stringify(body.parts),
        jobName: body.job.name,
        setupName: setup.name,
        machine: body.job.machine.name,
        seconds: wholeTime(body.proof.clock) * 60,
        toLoad: JSON.stringify(toLoad.map(({ tool }) => `T${tool.number} ${tool.name}`)),
        body: JSON.stringify(body),
      });
    const keepProgram = this.db.prepare(
      'INSERT INTO release_programs (release_id, n, file_name, bytes) VALUES (?, ?, ?, ?)',
    );
    programs.forEach((p, n) => keepProgram.run(id, n, p.fileName, Buffer.from(p.text, 'utf8')));
    const nameFile = this.db.prepare('INSERT OR IGNORE INTO release_files (release_id, sha256) VALUES (?, ?)');
    filesOf(body.job).forEach(({ sha256 }) => nameFile.run(id, sha256));
    return id;
  }

  private stored(id: string): Stored | undefined {
    return this.db.prepare<[string], Stored>(`SELECT ${SHORT} FROM releases WHERE id = ?`).get(id);
  }

  body(id: string): ReleaseBody | undefined {
    const found = this.db.prepare<[string], string>('SELECT body FROM releases WHERE id = ?').pluck().get(id);
    return found === undefined ? undefined : (JSON.parse(found) as ReleaseBody);
  }

  /** Its programs, byte for byte. */
  programs(id: string): { fileName: string; bytes: Buffer }[] {
    return this.db
      .prepare<[string], { fileName: string; bytes: Buffer }>(
        'SELECT file_name AS fileName, bytes FROM release_programs WHERE release_id = ? ORDER BY n',
      )
      .all(id);
  }

  private fileNames = (id: string): string[] =>
    this.db
      .prepare<[string], string>('SELECT file_name FROM release_programs WHERE release_id = ? ORDER BY n')
      .pluck()
      .all(id);

  answers = (id: string): KeptAnswer[] =>
    this.db
      .prepare<[string], Omit<KeptAnswer, 'checks'> & { checks: string }>(
        'SELECT answer, root, remark, checks, who, at FROM release_answers WHERE release_id = ? ORDER BY n',
      )
      .all(id)
      .map((a) => ({ ...a, checks: JSON.parse(a.checks) as KeptAnswer['checks'] }));

  /** How a release stands against its job as it is stored now. */
  private against({ id, job_id, setup_id, parts }: Stored, jobs: Map<string, Job | undefined>): AgainstJob {
    if (!jobs.has(job_id)) jobs.set(job_id, this.jobNow(job_id));
    const job = jobs.get(job_id);
    const setup = job?.setups.find((s) => s.id === setup_id);
    if (!job || !setup) return { same: false, changed: [] };
    const same = this.db
      .prepare<[string, string]>('SELECT 1 FROM release_makings WHERE release_id = ? AND making = ?')
      .get(id, makingOf(job, setup));
    return { same: same !== undefined, changed: changedParts(JSON.parse(parts) as ReleaseBody['parts'], job, setup) };
  }

  private jobNow(id: string): Job | undefined {
    const row = this.jobs.get(id);
    return row && 'job' in row ? row.job : undefined;
  }

  private rowOf(r: Stored, jobs = new Map<string, Job | undefined>()): ReleaseRow {
    const against = this.against(r, jobs);
    const needsApproval = r.needed === 1 || this.needsApproval(r.job_id);
    return {
      ...{ id: r.id, jobId: r.job_id, number: r.number, setupId: r.setup_id, version: r.version, at: r.at, who: r.who },
      ...{ root: r.root, jobName: r.job_name, setupName: r.setup_name, machine: r.machine, seconds: r.seconds },
      files: this.fileNames(r.id),
      toLoad: JSON.parse(r.to_load) as string[],
      ...{ needsApproval, against },
      state: stateOf(this.answers(r.id), needsApproval, against, this.now().getTime()),
    };
  }

  /** Those of a job, the newest first. */
  ofJob(jobId: string): ReleaseRow[] {
    const jobs = new Map<string, Job | undefined>();
    return this.db
      .prepare<[string], Stored>(`SELECT ${SHORT} FROM releases WHERE job_id = ? ORDER BY number DESC`)
      .all(jobId)
      .map((r) => this.rowOf(r, jobs));
  }

  /** The newest of every setup, machine by machine: what is there to run, and what waits. */
  workList(): ReleaseRow[] {
    const jobs = new Map<string, Job | undefined>();
    return this.db
      .prepare<[], Stored>(
        `SELECT ${SHORT} FROM releases AS r
         WHERE number = (SELECT max(number) FROM releases WHERE job_id = r.job_id AND setup_id = r.setup_id)
         ORDER BY machine COLLATE NOCASE, at DESC LIMIT 500`,
      )
      .all()
      .map((r) => this.rowOf(r, jobs));
  }

  row(id: string): ReleaseRow | undefined {
    const found = this.stored(id);
    return found && this.rowOf(found);
  }

  /** By the first digits of its root, the newest of them. */
  byRoot = (digits: string): string | undefined =>
    this.db
      .prepare<[string], string>('SELECT id FROM releases WHERE root LIKE ? ORDER BY at DESC LIMIT 1')
      .pluck()
      .get(`${digits.toLowerCase()}%`);

  private whole(id: string) {
    const programs = this.programs(id).map(({ fileName, bytes }) => ({ fileName, text: text(bytes) }));
    return { body: this.body(id)!, programs };
  }

  /** The release of the same setup that was approved last before a number. */
  private approvedBefore({ job_id, setup_id, number }: Stored): { id: string; number: number } | undefined {
    return this.db
      .prepare<[string, string, number], { id: string; number: number }>(
        `SELECT id, number FROM releases AS r WHERE job_id = ? AND setup_id = ? AND number < ?
         AND (SELECT answer FROM release_answers WHERE release_id = r.id ORDER BY n DESC LIMIT 1) LIKE 'approve%'
         ORDER BY number DESC LIMIT 1`,
      )
      .get(job_id, setup_id, number);
  }

  view(id: string): ReleaseView | undefined {
    const found = this.stored(id);
    if (!found) return undefined;
    const before = this.approvedBefore(found);
    const whole = this.whole(id);
    return {
      ...this.rowOf(found),
      body: whole.body,
      answers: this.answers(id),
      ...this.atMachine.of(id),
      difference: before && { number: before.number, lines: differenceOf(this.whole(before.id), whole) },
    };
  }

  /** Two releases held against each other, in words. */
  between = (before: string, after: string): string[] => differenceOf(this.whole(before), this.whole(after));

  /** Whether what is kept is still what was released, to the byte. */
  isIntact(id: string): boolean {
    const { body, programs } = this.whole(id);
    return isOfRelease(programs, body.parts, body.root) && this.stored(id)?.root === body.root;
  }

  /** Why somebody may not answer for a release; undefined where they may. */
  private mayNotAnswer(
    found: Stored,
    { answer, root, checks }: AnswerEntry,
    person: Person | undefined,
  ): string | undefined {
    if (!person?.roles.includes('approver')) return 'An approver answers; choose yourself on this device first';
    if (root !== found.root) return 'You looked at another release: open this one again';
    if (answer !== 'refuse' && checks.length === 0) return 'Say what you looked at before you approve it';
    if (!this.isIntact(found.id)) return 'What is kept is not what was released: release it again';
    if (found.person === null)
      return 'Nobody is named who released it: choose yourself on the device and release it again';
    if (found.person === person.id) return 'Nobody approves what they released themselves';
    const { against } = this.rowOf(found);
    if (answer !== 'refuse' && (!against.same || against.changed.length > 0))
      return 'The job has gone on since: release what stands there now';
    return undefined;
  }

  /** Keeps an answer; or why it is not taken. */
  answer(id: string, entry: AnswerEntry, person: Person | undefined): string | undefined {
    return this.db.transaction(() => {
      const found = this.stored(id)!;
      const refused = this.mayNotAnswer(found, entry, person);
      if (refused) return refused;
      this.db
        .prepare(
          `INSERT INTO release_answers (release_id, answer, root, remark, checks, person, who, at)
           VALUES (?, ?, ?, ?, ?, ?, ?, ?)`,
        )
        .run(
          id,
          entry.answer,
          entry.root,
          entry.remark,
          JSON.stringify(entry.checks),
          person!.id,
          person!.name,
          this.now().toISOString(),
        );
      this.noteHandedOut(id);
      return undefined;
    })();
  }
}

export const setupOf = ({ job, setupId }: Pick<ReleaseBody, 'job' | 'setupId'>) =>
  job.setups.find((s) => s.id === setupId)!;
