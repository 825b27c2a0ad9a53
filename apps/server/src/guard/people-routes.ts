import { Response, Router } from 'express';
import { PIN, Person, PersonEntry, readAs } from '@tidypath/core';
import { personOf } from './author';
import { PERSON_COOKIE, safely } from './cookies';
import { People } from './people';

/** A PIN as sent: undefined leaves it, null takes it away. */
type Pin = string | null | undefined;
const isPin = (pin: unknown): pin is Pin =>
  pin === undefined || pin === null || (typeof pin === 'string' && PIN.test(pin));

/** Who works here over HTTP, and who of them is at this device. */
export function peopleRoutes(people: People): Router {
  const router = Router();
  const missing = (res: Response) => void res.status(404).json({ error: 'There is nobody of that name any more' });
  const notYours = (res: Response) =>
    void res.status(403).json({ error: 'An approver says who is who; choose yourself on this device first' });

  router.get('/', (_req, res) => void res.json({ people: people.list(), here: personOf(res)?.id ?? null }));

  /** What was entered, where it can be taken and whoever asks may. */
  const entryOf = (body: unknown, res: Response, whom?: Person) => {
    const { pin, ...rest } = (body ?? {}) as { pin?: unknown };
    const { value, findings } = readAs(PersonEntry, rest);
    if (!value) return void res.status(422).json({ error: 'Give a name and at least one role', findings });
    if (!isPin(pin)) return void res.status(422).json({ error: 'A PIN has four to six digits' });
    if (!people.mayChange(personOf(res), whom, value)) return notYours(res);
    return { entry: value, pin };
  };

  router.post('/', (req, res) => {
    const read = entryOf(req.body, res);
    if (read) res.status(201).json(people.add(read.entry, read.pin ?? undefined));
  });

  router.put('/:id', (req, res) => {
    const whom = people.get(req.params.id);
    if (!whom) return missing(res);
    const read = entryOf(req.body, res, whom);
    if (!read) return;
    people.change(whom.id, read.entry, read.pin);
    res.status(204).end();
  });

  router.delete('/here', (req, res) => void res.clearCookie(PERSON_COOKIE, safely(req)).status(204).end());

  router.delete('/:id', (req, res) => {
    const whom = people.get(req.params.id);
    if (!whom) return missing(res);
    if (!people.mayChange(personOf(res), whom)) return notYours(res);
    people.remove(whom.id);
    res.status(204).end();
  });

  router.post('/:id/here', (req, res) => {
    const pin: unknown = req.body?.pin;
    const chosen = people.choose(req.params.id, typeof pin === 'string' ? pin : '');
    if (!chosen) return missing(res);
    if ('waits' in chosen)
      return void res.status(429).json({ error: `Too many wrong PINs; wait ${chosen.waits} minutes` });
    if ('wrong' in chosen) return void res.status(403).json({ error: 'That is not the PIN' });
    res.cookie(PERSON_COOKIE, chosen.shows, safely(req)).status(204).end();
  });
  return router;
}
