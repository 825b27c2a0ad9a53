import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Router } from 'express';
import type { Db } from '../db/open';
import { backUp, dailyBackups } from './backup';

/** The whole shop as a file to take away, and what is made by itself. */
export function backupRoutes(db: Db, folder: string): Router {
  const router = Router();
  router.get('/', (_req, res) => void res.json({ daily: dailyBackups(folder) }));
  router.get('/file', async (_req, res, next) => {
    const place = mkdtempSync(join(tmpdir(), 'tidypath-backup-'));
    const name = `tidypath-${new Date().toISOString().slice(0, 16).replace(/[:T]/g, '-')}.db`;
    try {
      await backUp(db, join(place, name));
      res.attachment(name);
      res.sendFile(name, { root: place }, (error) => {
        rmSync(place, { recursive: true, force: true });
        if (error && !res.headersSent) next(error);
      });
    } catch (error) {
      rmSync(place, { recursive: true, force: true });
      next(error);
    }
  });
  return router;
}
