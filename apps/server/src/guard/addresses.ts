import { networkInterfaces } from 'node:os';
import { isIPv6 } from 'node:net';
import { RequestHandler } from 'express';

/** Where it listens, and the names the shop calls it by. */
export interface Served {
  host: string;
  names: string[];
}

const LOOPBACK = ['localhost', '127.0.0.1', '::1'];
const EVERYWHERE = ['0.0.0.0', '::'];

export const isLoopback = (host: string): boolean => LOOPBACK.includes(host);

/** The names it answers to: those of this machine it listens on, and those the shop has given it. */
export function namesOf({ host, names }: Served): Set<string> {
  const own = EVERYWHERE.includes(host)
    ? Object.values(networkInterfaces()).flatMap((all) => all?.map((a) => a.address) ?? [])
    : [host];
  return new Set([...LOOPBACK, ...own, ...names].map((n) => n.toLowerCase()));
}

/** What a Host header or an origin names; undefined where it names nothing. */
const read = (url: string): URL | undefined => (URL.canParse(url) ? new URL(url) : undefined);
const nameIn = (url: URL | undefined) => url?.hostname.replace(/^\[|\]$/g, '').toLowerCase();

/**
 * Refuses whatever was meant for another address, read or write: a page elsewhere whose name was bent to this machine would else be let in.
 */
export function knownAddresses(served: Served): RequestHandler {
  const names = namesOf(served);
  return (req, res, next) => {
    const { host, origin } = req.headers;
    const asked = nameIn(read(`http://${host}`));
    if (!asked || !names.has(asked))
      return void res.status(403).json({
        error: `It is not served as “${asked ?? ''}”; the shop names its addresses in TIDYPATH_NAMES`,
      });
    if (origin !== undefined && read(origin)?.host !== host)
      return void res.status(403).json({ error: 'Requests from other sites are refused' });
    next();
  };
}

/** An address as it is written in a link. */
export const linkTo = (host: string, port: number, secure: boolean): string =>
  `http${secure ? 's' : ''}://${isIPv6(host) ? `[${host}]` : host}:${port}`;
