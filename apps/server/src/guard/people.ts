import { randomUUID } from 'node:crypto';
import { Person, PersonEntry, Role } from '@tidypath/core';
import type { Db } from '../db/open';
import { Settings, Signer, hashed, matches } from './secrets';

/** Wrong PINs that cost nothing; from then on each makes the next try wait 1, 2, 4 … minutes. */
const FREE_TRIES = 5;
const MINUTE = 60_000;
const LONGEST_WAIT = 60;

interface Stored {
  id: string;
  name: string;
  roles: string;
  pin: string | null;
  wrong: number;
  waits_until: string | null;
}

const personOf = ({ id, name, roles, pin }: Stored): Person => ({
  id,
  name,
  roles: JSON.parse(roles) as Role[],
  hasPin: pin !== null,
});

/** Who works here, and who of them is at a device. */
export class People {
  private readonly signer: Signer;

  constructor(
    private readonly db: Db,
    private readonly now: () => Date = () => new Date(),
  ) {
    this.signer = new Signer(new Settings(db));
  }

  private row(id: string): Stored | undefined {
    return this.db.prepare<[string], Stored>('SELECT * FROM people WHERE id = ? AND removed_at IS NULL').get(id);
  }

  list(): Person[] {
    return this.db
      .prepare<[], Stored>('SELECT * FROM people WHERE removed_at IS NULL ORDER BY name COLLATE NOCASE')
      .all()
      .map(personOf);
  }

  /** Until there is an approver everybody says who is who; then approvers do, and everybody for their own name and PIN. */
  mayChange(by: Person | undefined, whom: Person | undefined, entry?: PersonEntry): boolean {
    if (!this.list().some((p) => p.roles.includes('approver')) || by?.roles.includes('approver')) return true;
    const sameRoles = !entry || [...entry.roles].sort().join() === [...(whom?.roles ?? [])].sort().join();
    return !!by && by.id === whom?.id && !!entry && sameRoles;
  }

  get(id: string): Person | undefined {
    const row = this.row(id);
    return row && personOf(row);
  }

  add({ name, roles }: PersonEntry, pin?: string): Person {
    const id = randomUUID();
    this.db
      .prepare('INSERT INTO people (id, name, roles, pin, created_at) VALUES (?, ?, ?, ?, ?)')
      .run(id, name, JSON.stringify(roles), pin ? hashed(pin) : null, this.now().toISOString());
    return this.get(id)!;
  }

  /** @param pin a new PIN; null takes it away, undefined leaves it */
  change(id: string, { name, roles }: PersonEntry, pin?: string | null): void {
    this.db.prepare('UPDATE people SET name = ?, roles = ? WHERE id = ?').run(name, JSON.stringify(roles), id);
    if (pin !== undefined)
      this.db
        .prepare('UPDATE people SET pin = ?, wrong = 0, waits_until = NULL WHERE id = ?')
        .run(pin === null ? null : hashed(pin), id);
  }

  remove(id: string): void {
    this.db.prepare('UPDATE people SET removed_at = ? WHERE id = ?').run(this.now().toISOString(), id);
  }

  /** Takes every PIN away, for whoever starts the server with a forgotten one. */
  forgetPins(): void {
    this.db.prepare('UPDATE people SET pin = NULL, wrong = 0, waits_until = NULL').run();
  }

  /** What a device shows from now on to be this person; or why not. */
  choose(id: string, pin: string): { shows: string } | { waits: number } | { wrong: true } | undefined {
    const row = this.row(id);
    if (!row) return undefined;
    if (row.pin === null) return { shows: this.signer.signed(id) };
    const waits = Date.parse(row.waits_until ?? '') - this.now().getTime();
    if (waits > 0) return { waits: Math.ceil(waits / MINUTE) };
    const isRight = matches(pin, row.pin);
    const wrong = isRight ? 0 : row.wrong + 1;
    const minutes = wrong < FREE_TRIES ? 0 : Math.min(LONGEST_WAIT, 2 ** (wrong - FREE_TRIES));
    const until = minutes ? new Date(this.now().getTime() + minutes * MINUTE).toISOString() : null;
    this.db.prepare('UPDATE people SET wrong = ?, waits_until = ? WHERE id = ?').run(wrong, until, id);
    return isRight ? { shows: this.signer.signed(id, row.pin) } : { wrong: true };
  }

  /** Whoever a device shows to be; nobody where it is forged, the PIN was changed since, or they are gone. */
  shown(shown: string | undefined): Person | undefined {
    const id = shown?.split('.')[0];
    const row = id ? this.row(id) : undefined;
    return row && this.signer.isSigned(shown!, row.id, row.pin ?? '') ? personOf(row) : undefined;
  }
}
