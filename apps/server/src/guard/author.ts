import type { RequestHandler, Response } from 'express';
import type { Person } from '@tidypath/core';
import { DEVICE_COOKIE, PERSON_COOKIE, cookieOf } from './cookies';
import { Door } from './door';
import { People } from './people';

const DEVICE = /^[0-9a-f]{32}$/;

/** Who saves: the device tells one hand from another, `who` is what people read. */
export interface Author {
  device: string;
  who: string;
}

interface Known {
  author: Author;
  person?: Person;
}

/** Finds out who asks: the person at the device, else the device; a page on this machine says which it is itself. */
export function knowAuthor(people: People, door?: Door): RequestHandler {
  return (req, res, next) => {
    const person = people.shown(cookieOf(req, PERSON_COOKIE));
    const device = door?.known(cookieOf(req, DEVICE_COOKIE));
    const told = req.get('x-device') ?? '';
    const known: Known = {
      person,
      author: { device: device?.id ?? (DEVICE.test(told) ? told : ''), who: person?.name ?? device?.name ?? '' },
    };
    Object.assign(res.locals, known);
    next();
  };
}

export const authorOf = (res: Response): Author => (res.locals as Known).author;
export const personOf = (res: Response): Person | undefined => (res.locals as Known).person;
