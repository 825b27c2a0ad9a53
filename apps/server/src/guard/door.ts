import { randomUUID } from 'node:crypto';
import type { Db } from '../db/open';
import { Settings, Signer, hashed, matches } from './secrets';

/** A device that was let in. */
export interface Device {
  id: string;
  name: string;
  createdAt: string;
  seenAt: string;
}

export const SHORTEST_PHRASE = 10;
/** How long ago a device was seen is written down this often, ms. */
const SEEN = 60_000;

/** The pass phrase of the shop, and the devices it has let in. */
export class Door {
  private readonly settings: Settings;
  private readonly signer: Signer;

  constructor(
    private readonly db: Db,
    private readonly now: () => Date = () => new Date(),
  ) {
    this.settings = new Settings(db);
    this.signer = new Signer(this.settings);
  }

  get hasPhrase(): boolean {
    return this.settings.get('phrase') !== undefined;
  }

  /** Keeps a hash of the phrase; another phrase lets nobody in who was in before. */
  setPhrase(phrase: string): void {
    if (this.hasPhrase && this.opens(phrase)) return;
    this.settings.set('phrase', hashed(phrase));
    this.db.prepare('UPDATE devices SET revoked_at = ? WHERE revoked_at IS NULL').run(this.now().toISOString());
  }

  opens(phrase: string): boolean {
    return matches(phrase, this.settings.get('phrase') ?? '');
  }

  /** Lets a device in; what it shows from then on. */
  admit(name: string): string {
    const id = randomUUID();
    const at = this.now().toISOString();
    this.db.prepare('INSERT INTO devices (id, name, created_at, seen_at) VALUES (?, ?, ?, ?)').run(id, name, at, at);
    return this.signer.signed(id);
  }

  /** The device that shows this; undefined where it is forged, or was shown the door. */
  known(shown: string | undefined): Device | undefined {
    const id = shown?.split('.')[0];
    if (!id || !this.signer.isSigned(shown!, id)) return undefined;
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
