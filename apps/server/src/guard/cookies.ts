import type { CookieOptions, Request } from 'express';

export const DEVICE_COOKIE = 'tidypath';
export const PERSON_COOKIE = 'tidypath-person';
const YEAR = 365 * 24 * 3600 * 1000;

export const cookieOf = (req: Request, name: string): string | undefined =>
  req.headers.cookie
    ?.split(/;\s*/)
    .find((c) => c.startsWith(`${name}=`))
    ?.slice(name.length + 1);

/** Scripts cannot read it, other sites cannot send it. */
export const safely = (req: Request): CookieOptions => ({
  httpOnly: true,
  sameSite: 'strict',
  secure: req.secure,
  maxAge: YEAR,
  path: '/',
});
