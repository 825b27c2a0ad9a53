/** What is done by itself: the backup of the day, the bin, and the log folded into its file while nobody writes. */
import type { RequestHandler } from 'express';
import type { Logger } from 'pino';
import { backUpDaily } from './backup/backup';
import type { Db } from './db/open';
import type { FileStore } from './db/files';
import type { JobStore } from './jobs/store';

const HOUR = 3600_000;
/** A timer that does not keep the server from ending. */
const aside = <T>(timer: T): T => ((timer as { unref(): void }).unref(), timer);

/** So long after the last write the log is folded in, ms. */
const IDLE = 5000;

/** Folds the write-ahead log into the database file once nobody has written for a moment. */
export function foldWhenIdle(db: Db, idle = IDLE): RequestHandler {
  let timer: ReturnType<typeof setTimeout> | undefined;
  return (req, res, next) => {
    if (req.method !== 'GET')
      res.on('finish', () => {
        clearTimeout(timer);
        timer = aside(setTimeout(() => db.open && db.pragma('wal_checkpoint(TRUNCATE)'), idle));
      });
    next();
  };
}

interface House {
  db: Db;
  folder: string;
  jobs: JobStore;
  files: FileStore;
}

/** Now, and once an hour from now on. */
export function keepHouse({ db, folder, jobs, files }: House, log: Logger): void {
  const tidy = async () => {
    try {
      jobs.emptyBin();
      files.tidy();
      await backUpDaily(db, folder);
    } catch (error) {
      log.error({ err: error }, 'the daily backup could not be made');
    }
  };
  void tidy();
  aside(setInterval(() => void tidy(), HOUR));
}
