/** What is kept of a phrase or a PIN, and what the server signs. */
import { createHmac, randomBytes, scryptSync, timingSafeEqual } from 'node:crypto';
import type { Db } from '../db/open';

const KEY_BYTES = 32;
const same = (a: Buffer, b: Buffer) => a.length === b.length && timingSafeEqual(a, b);

/** A salted scrypt hash. */
export function hashed(secret: string): string {
  const salt = randomBytes(16);
  return `${salt.toString('base64')}:${scryptSync(secret, salt, KEY_BYTES).toString('base64')}`;
}

export function matches(secret: string, kept: string): boolean {
  const [salt, hash] = kept.split(':').map((t) => Buffer.from(t, 'base64'));
  return !!hash && same(scryptSync(secret, salt, KEY_BYTES), hash);
}

/** Settings of the shop that are not for looking at. */
export class Settings {
  constructor(private readonly db: Db) {}

  get(name: string): string | undefined {
    return this.db.prepare<[string], string>('SELECT value FROM settings WHERE name = ?').pluck().get(name);
  }

  set(name: string, value: string): string {
    this.db.prepare('INSERT OR REPLACE INTO settings (name, value) VALUES (?, ?)').run(name, value);
    return value;
  }
}

/** Signs what a browser is to show again. */
export class Signer {
  private readonly secret: Buffer;

  constructor(settings: Settings) {
    const kept = settings.get('secret') ?? settings.set('secret', randomBytes(KEY_BYTES).toString('base64'));
    this.secret = Buffer.from(kept, 'base64');
  }

  /** @param with what else must still be so when it is shown */
  signed(id: string, also = ''): string {
    return `${id}.${createHmac('sha256', this.secret).update(id).update(also).digest('base64url')}`;
  }

  isSigned(shown: string, id: string, also = ''): boolean {
    return same(Buffer.from(shown), Buffer.from(this.signed(id, also)));
  }
}
