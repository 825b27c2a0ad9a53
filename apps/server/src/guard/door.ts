import { createHmac, randomBytes, randomUUID, scryptSync, timingSafeEqual } from 'node:crypto';
import type { Db } from '../db/open';

/** A device that was let in. */
export interface Device {
  id: string;
  name: string;
  createdAt: string;
  seenAt: string;
}

export const SHORTEST_PHRASE = 10;
const KEY_BYTES = 32;
/** How long ago a device was seen is written down this often, ms. */
const SEEN = 60_000;

const same = (a: Buffer, b: Buffer) => a.length === b.length && timingSafeEqual(a, b);

/** The pass phrase of the shop, and the devices it has let in. */
export class Door {
  private readonly secret: Buffer;

  constructor(
    private readonly db: Db,
    private readonly now: () => Date = () => new Date(),
  ) {
    this.secret = Buffer.from(
      this.setting('secret') ?? this.set('secret', randomBytes(KEY_BYTES).toString('base64')),
      'base64',
    );
  }

  private setting(name: string): string | undefined {
    return this.db.prepare<[string], string>('SELECT value FROM settings WHERE name = ?').pluck().get(name);
  }

  private set(name: string, value: string): string {
    this.db.prepare('INSERT OR REPLACE INTO settings (name, value) VALUES (?, ?)').run(name, value);
    return value;
  }

  get hasPhrase(): boolean {
    return this.setting('phrase') !== undefined;
  }

  /** Keeps a hash of the phrase; another phrase lets nobody in who was in before. */
  setPhrase(phrase: string): void {
    if (this.hasPhrase && this.opens(phrase)) return;
    const salt = randomBytes(16);
    this.set('phrase', `${salt.toString('base64')}:${scryptSync(phrase, salt, KEY_BYTES).toString('base64')}`);
    this.db.prepare('UPDATE devices SET revoked_at = ? WHERE revoked_at IS NULL').run(this.now().toISOString());
  }

  opens(phrase: string): boolean {
    const [salt, hash] = (this.setting('phrase') ?? '').split(':').map((t) => Buffer.from(t, 'base64'));
    return !!hash && same(scryptSync(phrase, salt, KEY_BYTES), hash);
  }

  private signed(id: string): string {
    return `${id}.${createHmac('sha256', this.secret).update(id).digest('base64url')}`;
  }

  /** Lets a device in; what it shows from then on. */
  admit(name: string): string {
    const id = randomUUID();
    const at = this.now().toISOString();
    this.db.prepare('INSERT INTO devices (id, name, created_at, seen_at) VALUES (?, ?, ?, ?)').run(id, name, at, at);
    return this.signed(id);
  }

  /** The device that shows this; undefined where it is forged, or was shown the door. */
  known(shown: string | undefined): Device | undefined {
    const id = shown?.split('.')[0];
    if (!id || !same(Buffer.from(shown!), Buffer.from(this.signed(id)))) return undefined;
    const device = this.devices().find((d) => d.id === id);
    const now = this.now();
    if (device && now.getTime() - Date.parse(device.seenAt) > SEEN)
      this.db.prepare('UPDATE devices SET seen_at = ? WHERE id = ?').run(now.toISOString(), id);
    return device;
  }

  devices(): Device[] {
    return this.db
      .prepare<[], Device>(
        'SELECT id, name, created_at AS createdAt, seen_at AS seenAt FROM devices WHERE revoked_at IS NULL ORDER BY seen_at DESC',
      )
      .all();
  }

  revoke(id: string): boolean {
    return (
      this.db
        .prepare('UPDATE devices SET revoked_at = ? WHERE id = ? AND revoked_at IS NULL')
        .run(this.now().toISOString(), id).changes > 0
    );
  }
}
