import { Readable } from 'node:stream';
import { Router } from 'express';
import { FileRefused, FileStore } from '../db/files';

/** Files over HTTP: sent and fetched as they are, under the hash of their content. */
export function fileRoutes(files: FileStore): Router {
  const router = Router();
  router.param('sha256', (_req, res, next, sha256: string) => {
    if (/^[0-9a-f]{64}$/.test(sha256)) next();
    else res.status(404).json({ error: 'A file is named by the SHA-256 of its content, 64 hexadecimal digits' });
  });

  router.put('/:sha256', async (req, res) => {
    const { sha256 } = req.params;
    // Refused or there already: what still arrives is of no use.
    const leave = () => void req.resume();
    if (files.touch(sha256)) return (leave(), void res.status(204).end());
    try {
      await files.keep(sha256, req);
      res.status(201).end();
    } catch (error) {
      if (!(error instanceof FileRefused)) throw error;
      leave();
      res.status(error.status).json({ error: error.message });
    }
  });

  // HEAD asks whether it is there.
  router.get('/:sha256', (req, res, next) => {
    const { sha256 } = req.params;
    const size = files.size(sha256);
    if (size === undefined) return void res.status(404).json({ error: 'There is no such file' });
    res.type('application/octet-stream').attachment(sha256).set('Content-Length', String(size));
    if (req.method === 'HEAD') return void res.end();
    Readable.from(files.pieces(sha256)).on('error', next).pipe(res);
  });
  return router;
}
