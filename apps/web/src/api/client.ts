import type { MachineView, Measured, Press } from '@tidypath/controller';
import type {
  AnswerEntry,
  CommentEntry,
  Finding,
  HandingOut,
  Job,
  JobQuestion,
  JobRow,
  JobSummary,
  JobVersion,
  Kept,
  KeptComment,
  KeptEntry,
  CorrectionEntry,
  Lesson,
  LogEntry,
  LogQuestion,
  LogRow,
  Made,
  Maker,
  Person,
  PersonEntry,
  Place,
  ReleaseAsk,
  ReleaseRow,
  ReleaseView,
  RunEvent,
  RunRow,
  SaveResult,
  ShelfName,
  SizeEntry,
  ShopItems,
  Standing,
  SurfaceView,
  TaskStep,
} from '@tidypath/core';
import { packMade, unpackMade } from '@tidypath/core';
import { deviceId } from './device';
import { heardUpTo } from './events';
import { down, shut } from './flags';

/** An answer that was not the one hoped for, with the findings the server gave. */
export class ApiError extends Error {
  constructor(
    message: string,
    readonly status: number,
    readonly findings: Finding[] = [],
  ) {
    super(message);
  }
}

async function send(method: string, path: string, body?: unknown, signal?: AbortSignal): Promise<Response> {
  const headers: Record<string, string> = { 'x-device': deviceId() };
  const isFile = body instanceof Uint8Array;
  if (body !== undefined) headers['content-type'] = isFile ? 'application/octet-stream' : 'application/json';
  let response: Response;
  try {
    response = await fetch(`/api${path}`, {
      method,
      headers,
      signal,
      body: isFile ? (body as BodyInit) : body === undefined ? undefined : JSON.stringify(body),
    });
  } catch (error) {
    if (signal?.aborted) throw error;
    down.set(true);
    throw new ApiError('The server cannot be reached', 0);
  }
  down.set(response.headers.get('x-from') === 'cache');
  heardUpTo(response.headers.get('x-event'));
  if (response.ok || response.status === 409) return response;
  if (response.status === 401 && !path.startsWith('/door')) shut.set(true);
  const answer = await response.json().catch(() => ({}));
  throw new ApiError(answer.error ?? 'The server refused', response.status, answer.findings);
}

/** The whole of an answer; one that broke off is none. */
async function whole<T>(answer: Promise<T>, signal?: AbortSignal): Promise<T> {
  return answer.catch((error: unknown) => {
    if (signal?.aborted) throw error;
    down.set(true);
    throw new ApiError('The server went away while it answered', 0);
  });
}

const textOf = (response: Response) => whole(response.text());
const bytesOf = async (response: Response, signal?: AbortSignal) =>
  new Uint8Array(await whole(response.arrayBuffer(), signal));
const jsonOf = <T>(response: Response): Promise<T> => whole(response.json());

async function call<T>(method: string, path: string, body?: unknown): Promise<T> {
  const response = await send(method, path, body);
  return response.status === 204 ? (undefined as T) : jsonOf<T>(response);
}

/** Jobs of one page, and how many were found in all. */
export interface JobList {
  jobs: JobSummary[];
  total: number;
}

/** A question as an address has it: what is empty is not asked. */
const asked = (question: object): URLSearchParams =>
  new URLSearchParams(
    Object.entries(question).flatMap(([k, v]) => (v === undefined || v === '' ? [] : [[k, String(v)]])),
  );

async function listed(question: JobQuestion): Promise<JobList> {
  const response = await send('GET', `/jobs?${asked(question)}`);
  return { jobs: await jsonOf<JobSummary[]>(response), total: Number(response.headers.get('x-total-count')) };
}

/** Entries of the log, the newest first, and how many were found in all. */
export interface LogPage {
  rows: LogRow[];
  total: number;
}

/** Devices that were let in, and which of them this is. */
export interface Devices {
  devices: { id: string; name: string; createdAt: string; seenAt: string }[];
  here: string;
}

/** A result as it came from the server: who made it, and the seconds it took where it was the server. */
export interface Result {
  made: Made;
  maker: Maker;
  seconds: number;
}

/** What keeps a release back. */
export interface Held {
  stops: Finding[];
  open: Finding[];
}

/** What the control of a simulated machine shows. */
export interface Shown {
  view: MachineView;
  /** How many times as fast its time passes. */
  pace: number;
  isPreparing: boolean;
  /** Whether it is switched on. */
  isOn: boolean;
}

/** The piece that lies on a simulated machine, measured and looked at. */
export interface PieceSeen {
  sizes: Measured[];
  findings: Finding[];
  surface?: SurfaceView;
}

/** A run with all that happened in it. */
export interface RunView {
  row: RunRow;
  events: RunEvent[];
  shown?: Shown;
}

/** Each line of a body as it comes, read as JSON. */
async function* linesOf(body: ReadableStream<Uint8Array>, signal: AbortSignal): AsyncGenerator<unknown> {
  const reader = body.getReader();
  const text = new TextDecoder();
  let rest = '';
  for (;;) {
    const { done, value } = await whole(reader.read(), signal);
    if (done) return;
    const lines = (rest + text.decode(value, { stream: true })).split('\n');
    rest = lines.pop()!;
    for (const line of lines) yield JSON.parse(line);
  }
}

/** A save of something on a shelf that was taken, or one that came too late, with what stands there now. */
export type ItemSave<T> = { saved: true; version: number } | { saved: false; current: Kept<T> | null };

const at = (shelf: ShelfName, id: string) => `/shop/${shelf}/${encodeURIComponent(id)}`;

/** The only place that talks to the server. */
export const api = {
  health: () => call<void>('GET', '/health'),
  /** Knocks with the pass phrase of the shop. */
  comeIn: (phrase: string, name: string) => call<void>('POST', '/door', { phrase, name }),
  /** Nothing where the server asks nobody for a phrase. */
  devices: () => call<Devices | null>('GET', '/door'),
  showOut: (id: string) => call<void>('DELETE', `/door/${id}`),
  jobs: listed,
  /** What jobs in the list can be told apart by. */
  jobChoices: () => call<{ materials: string[]; machines: string[]; tags: string[] }>('GET', '/jobs/choices'),
  job: (id: string) => call<JobRow>('GET', `/jobs/${id}`),
  /** Where a job is to be had as it is stored, readable or not. */
  documentOf: (id: string) => `/api/jobs/${id}/document`,
  /** Over version 0: makes it. */
  save: (id: string, version: number, job: Job) => call<SaveResult>('PUT', `/jobs/${id}`, { version, job }),
  duplicate: (id: string) => call<JobRow>('POST', `/jobs/${id}/duplicate`),
  remove: (id: string) => call<void>('DELETE', `/jobs/${id}`),
  restore: (id: string) => call<void>('POST', `/jobs/${id}/restore`),
  archive: (id: string, away: boolean) => call<void>(away ? 'PUT' : 'DELETE', `/jobs/${id}/archive`),
  /** Tells what is known of a setup as the job stands. */
  stand: (id: string, standing: Standing) => call<void>('PUT', `/jobs/${id}/standing`, standing),
  /** Tells the others where this page is. */
  here: (page: string, place: Place) => call<void>('PUT', `/here/${page}`, place),
  gone: (page: string) => call<void>('DELETE', `/here/${page}`),
  /** What is asked and answered at its operations. */
  comments: (id: string) => call<KeptComment[]>('GET', `/jobs/${id}/comments`),
  comment: (id: string, entry: CommentEntry) => call<void>('POST', `/jobs/${id}/comments`, entry),
  versions: (id: string) => call<JobVersion[]>('GET', `/jobs/${id}/versions`),
  version: (id: string, version: string) => call<{ job: Job }>('GET', `/jobs/${id}/versions/${version}`),
  versionDocument: (id: string, version: string) => `/api/jobs/${id}/versions/${version}/document`,
  hasFile: (sha256: string) =>
    send('HEAD', `/files/${sha256}`).then(
      () => true,
      (error: ApiError) => {
        if (error.status === 404) return false;
        throw error;
      },
    ),
  file: async (sha256: string) => bytesOf(await send('GET', `/files/${sha256}`)),
  sendFile: (sha256: string, bytes: Uint8Array) => send('PUT', `/files/${sha256}`, bytes),
  /** Whether the server plans and proves too. */
  computes: () => call<{ computes: boolean }>('GET', '/results').then((answer) => answer.computes),
  /** What somebody made of a question; undefined where nobody has yet, or what came is no result. */
  result: async (key: string, signal: AbortSignal): Promise<Result | undefined> => {
    const response = await send('GET', `/results/${key}`, undefined, signal);
    if (response.status === 204) return undefined;
    const made = unpackMade(await bytesOf(response, signal));
    const { headers } = response;
    const maker = headers.get('x-maker') === 'server' ? 'server' : 'page';
    return made && { made, maker, seconds: Number(headers.get('x-seconds')) };
  },
  bringResult: (key: string, made: Made) => send('PUT', `/results/${key}`, packMade(made)),
  /**
   * Has the server plan and prove; ends when there is a result.
   * @throws why there is none
   */
  make: async (key: string, job: Job, setupId: string, hear: (step: TaskStep) => void, signal: AbortSignal) => {
    const response = await send('POST', `/results/${key}`, { job, setupId }, signal);
    for await (const line of linesOf(response.body!, signal)) {
      const word = line as TaskStep | { made: true } | { error: string };
      if ('made' in word) return;
      if ('error' in word) throw new ApiError(word.error, response.status);
      hear(word);
    }
    throw new ApiError('The server went away', 0);
  },
  /** Of a job, and whether somebody has to approve them. */
  releases: (job: string) =>
    call<{ needsApproval: boolean; releases: ReleaseRow[] }>('GET', `/releases?job=${encodeURIComponent(job)}`),
  /** The newest of every setup, machine by machine. */
  workList: () => call<ReleaseRow[]>('GET', '/releases'),
  releaseOf: (id: string) => call<ReleaseView>('GET', `/releases/${id}`),
  releaseByRoot: (digits: string) => call<{ id: string }>('GET', `/releases/by-root/${encodeURIComponent(digits)}`),
  /** What makes a release another than one before it. */
  between: (before: string, after: string) => call<{ lines: string[] }>('GET', `/releases/${after}/against/${before}`),
  /** Has the server plan, prove and keep a setup as it is stored; its id, or what holds it back. */
  release: async (
    ask: ReleaseAsk & { jobId: string; setupId: string },
    hear: (step: TaskStep) => void,
    signal: AbortSignal,
  ): Promise<{ release: string } | { held: Held }> => {
    const response = await send('POST', '/releases', ask, signal);
    if (response.status === 409) throw new ApiError((await jsonOf<{ error: string }>(response)).error, 409);
    for await (const line of linesOf(response.body!, signal)) {
      const word = line as TaskStep | { release: string } | { held: Held } | { error: string };
      if ('release' in word || 'held' in word) return word;
      if ('error' in word) throw new ApiError(word.error, response.status);
      hear(word);
    }
    throw new ApiError('The server went away', 0);
  },
  /** Its programs, as they are handed out: one file, or several in a ZIP. */
  programs: async (id: string) => bytesOf(await send('GET', `/releases/${id}/programs`)),
  paperOf: (id: string, name: string) => `/api/releases/${id}/papers/${name}`,
  sendToMachine: (id: string) => call<{ folder: string }>('POST', `/releases/${id}/send`),
  answer: (id: string, entry: AnswerEntry) => call<void>('POST', `/releases/${id}/answers`, entry),
  tick: (id: string, item: string, isSo: boolean) => call<void>('POST', `/releases/${id}/ticks`, { item, isSo }),
  measure: (id: string, entry: SizeEntry) => call<void>('POST', `/releases/${id}/sizes`, entry),
  /** What was entered at the control because of a size. */
  correct: (id: string, entry: CorrectionEntry) => call<void>('POST', `/releases/${id}/corrections`, entry),
  /** Of a setup, and whether this server has simulated machines. */
  runs: (job: string, setup: string) =>
    call<{ canRun: boolean; runs: RunRow[] }>('GET', `/runs?${new URLSearchParams({ job, setup })}`),
  run: (id: string) => call<RunView>('GET', `/runs/${id}`),
  /** Puts a release on a simulated machine; its id. */
  beginRun: async (releaseId: string, seed: number) => {
    const answer = await call<{ id?: string; error?: string }>('POST', '/runs', { releaseId, seed });
    if (!answer.id) throw new ApiError(answer.error ?? 'It was not switched on', 409);
    return answer.id;
  },
  /** Presses something at a machine; why not, where it cannot be. */
  press: async (run: string, press: Press): Promise<string | undefined> => {
    const { refused, error } = await call<{ refused?: string; error?: string }>('POST', `/runs/${run}/press`, press);
    return refused ?? error;
  },
  setPace: (run: string, pace: number) =>
    call<{ error?: string }>('POST', `/runs/${run}/pace`, { pace }).then(({ error }) => error),
  onward: (run: string) => call<{ error?: string }>('POST', `/runs/${run}/onward`).then(({ error }) => error),
  /** The piece that lies there, measured. */
  piece: async (run: string): Promise<PieceSeen> => {
    const { surface, ...piece } = await call<PieceSeen>('GET', `/runs/${run}/piece`);
    return { ...piece, ...(surface && { surface: { ...surface, height: Float32Array.from(surface.height) } }) };
  },
  /** What was written down of runs of a release. */
  logOf: (release: string) => call<KeptEntry[]>('GET', `/log/of/${release}`),
  log: (release: string, entry: LogEntry) => call<void>('POST', `/log/of/${release}`, entry),
  /** The log of all jobs, a page of what is looked for. */
  logRows: async (question: LogQuestion, page: number): Promise<LogPage> => {
    const response = await send('GET', `/log?${asked({ ...question, page })}`);
    return { rows: await jsonOf<LogRow[]>(response), total: Number(response.headers.get('x-total-count')) };
  },
  /** Where what is looked for is to be had as a file. */
  logFile: (form: 'csv' | 'json', question: LogQuestion) => `/api/log/entries.${form}?${asked(question)}`,
  photoOf: (sha256: string) => `/api/log/photos/${sha256}`,
  /** What the log has to tell. */
  notices: () => call<Finding[]>('GET', '/log/notices'),
  /** What the log teaches, of all or of one thing of the shop. */
  lessons: (item?: string) =>
    call<Lesson[]>('GET', item === undefined ? '/log/lessons' : `/log/lessons?item=${encodeURIComponent(item)}`),
  learn: (lesson: string, what: 'take' | 'undo') =>
    call<void>('POST', `/log/lessons/${encodeURIComponent(lesson)}/${what}`, {}),
  /** What was measured of a run, as CSV. */
  stream: async (run: string) => textOf(await send('GET', `/runs/${run}/stream.csv`)),
  streamOf: (run: string) => `/api/runs/${run}/stream.csv`,
  handingOut: () => call<HandingOut>('GET', '/handing-out'),
  setHandingOut: (how: HandingOut) => call<void>('PUT', '/handing-out', how),
  setJobApproval: (job: string, needsApproval: boolean) =>
    call<void>('PUT', `/handing-out/jobs/${job}`, { needsApproval }),
  /** Backups the server made by itself, the newest first. */
  backups: () => call<{ daily: string[] }>('GET', '/backup'),
  backupFile: '/api/backup/file',
  /** Who works here, and who of them is at this device. */
  people: () => call<{ people: Person[]; here: string | null }>('GET', '/people'),
  addPerson: (entry: PersonEntry & { pin?: string }) => call<Person>('POST', '/people', entry),
  changePerson: (id: string, entry: PersonEntry & { pin?: string | null }) => call<void>('PUT', `/people/${id}`, entry),
  removePerson: (id: string) => call<void>('DELETE', `/people/${id}`),
  /** Whoever is at this device from now on. */
  choosePerson: (id: string, pin: string) => call<void>('POST', `/people/${id}/here`, { pin }),
  nobodyHere: () => call<void>('DELETE', '/people/here'),
  shelf: <K extends ShelfName>(shelf: K) => call<Kept<ShopItems[K]>[]>('GET', `/shop/${shelf}`),
  /** What stands on a shelf and cannot be read. */
  unread: (shelf: ShelfName) => call<Finding[]>('GET', `/shop/${shelf}/unread`),
  keep: <K extends ShelfName>(shelf: K, version: number, item: ShopItems[K]) =>
    call<ItemSave<ShopItems[K]>>('PUT', at(shelf, item.id), { version, item }),
  keepAll: <K extends ShelfName>(shelf: K, entries: { version: number; item: ShopItems[K] }[]) =>
    call<{ saved: boolean; late: string[] }>('POST', `/shop/${shelf}`, { entries }),
  discard: (shelf: ShelfName, id: string) => call<void>('DELETE', at(shelf, id)),
  bringBack: (shelf: ShelfName, id: string) => call<void>('POST', `${at(shelf, id)}/restore`),
  jobsUsing: (shelf: ShelfName, id: string) => call<{ id: string; name: string }[]>('GET', `${at(shelf, id)}/jobs`),
};
