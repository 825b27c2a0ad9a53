import { Request, RequestHandler, Router } from 'express';
import { rateLimit } from 'express-rate-limit';
import { DEVICE_COOKIE, cookieOf, safely } from './cookies';
import { Door } from './door';

const NAME = /^\S.{0,39}$/;
/** Wrong phrases an address may try within so many minutes. */
const [TRIES, MINUTES] = [5, 5];

const shownBy = (req: Request) => cookieOf(req, DEVICE_COOKIE);

/** Lets in who knows the shop's phrase, and nobody else. */
export function onlyKnown(door: Door): RequestHandler {
  return (req, res, next) => {
    if (door.known(shownBy(req))) next();
    else res.status(401).json({ error: 'This device has not been let in; it asks for the pass phrase of the shop' });
  };
}

/** Letting devices in and showing them out. */
export function doorRoutes(door: Door): Router {
  const router = Router();
  const slow = rateLimit({
    windowMs: MINUTES * 60_000,
    limit: TRIES,
    skipSuccessfulRequests: true,
    standardHeaders: true,
    legacyHeaders: false,
    message: { error: `Too many wrong phrases; wait ${MINUTES} minutes` },
  });
  router.post('/', slow, (req, res) => {
    const { phrase, name } = (req.body ?? {}) as { phrase?: unknown; name?: unknown };
    if (typeof name !== 'string' || !NAME.test(name))
      return void res.status(400).json({ error: 'Give the device a name, up to 40 letters: “bench phone”' });
    if (typeof phrase !== 'string' || !door.opens(phrase))
      return void res.status(401).json({ error: 'That is not the pass phrase of the shop' });
    res.cookie(DEVICE_COOKIE, door.admit(name), safely(req)).status(204).end();
  });
  router.get('/', onlyKnown(door), (req, res) => {
    res.json({ devices: door.devices(), here: door.known(shownBy(req))!.id });
  });
  router.delete('/:id', onlyKnown(door), (req, res) => {
    res.status(door.revoke(String(req.params.id)) ? 204 : 404).end();
  });
  return router;
}
