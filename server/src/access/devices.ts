import { and, asc, eq, gt, isNull, lt } from 'drizzle-orm';
import { randomUUID } from 'node:crypto';
import type { Device } from '@needlecase/core/model/access';
import type { Db } from '../db/open.js';
import { devices, pairingCodes } from '../db/tables.js';
import { defined } from '../store/defined.js';
import { codeAsMeant, digestOf, newCode, newSecret } from './secrets.js';

const DAY_MS = 86_400_000;
const LIFE_MS = 400 * DAY_MS;
/** Over plain http a secret can be read on its way. */
const WEAK_LIFE_MS = 30 * DAY_MS;
const CODE_LIFE_MS = 10 * 60_000;
/** That a device was seen is noted, and its life lengthened, so often. */
const SEEN_MS = DAY_MS / 24;

export const lifeOf = (weak: boolean): number => (weak ? WEAK_LIFE_MS : LIFE_MS);

export type DeviceRow = typeof devices.$inferSelect;

/** Devices that were paired, and the codes that pair them. */
export class Devices {
  constructor(
    private readonly db: Db,
    private readonly now: () => number = () => Date.now(),
  ) {}

  /** A new code for a person; whatever code was there for this one is void. */
  newCode(personId: string, life = CODE_LIFE_MS): { code: string; until: number } {
    const code = newCode();
    const until = this.now() + life;
    this.db.delete(pairingCodes).where(lt(pairingCodes.until, this.now())).run();
    this.db.delete(pairingCodes).where(eq(pairingCodes.personId, personId)).run();
    this.db
      .insert(pairingCodes)
      .values({ digest: digestOf(codeAsMeant(code)), personId, until })
      .run();
    return { code, until };
  }

  /**
   * Uses a code up.
   * @returns the person that it is for; nothing where it is none, is used, or too old
   */
  useCode(typed: string): string | undefined {
    const [used] = this.db
      .update(pairingCodes)
      .set({ usedAt: this.now() })
      .where(
        and(
          eq(pairingCodes.digest, digestOf(codeAsMeant(typed))),
          isNull(pairingCodes.usedAt),
          gt(pairingCodes.until, this.now()),
        ),
      )
      .returning()
      .all();
    return used?.personId;
  }

  /** @returns the device, and the secret that it is known by from now on */
  pair(personId: string, name: string, weak: boolean): { device: DeviceRow; secret: string } {
    const secret = newSecret();
    const now = this.now();
    const device: DeviceRow = {
      id: randomUUID(),
      personId,
      name,
      digest: digestOf(secret),
      weak,
      pairedAt: now,
      seenAt: now,
      until: now + lifeOf(weak),
      revokedAt: null,
    };
    this.db.insert(devices).values(device).run();
    return { device, secret };
  }

  /** The device of a secret, also one that was taken out; nothing where its time is up. */
  bySecret(secret: string): DeviceRow | undefined {
    const row = this.db
      .select()
      .from(devices)
      .where(eq(devices.digest, digestOf(secret)))
      .get();
    return row && row.until > this.now() ? row : undefined;
  }

  /** Notes that a device was seen. @returns whether its life was lengthened by it */
  seen({ id, seenAt, weak }: DeviceRow): boolean {
    const now = this.now();
    if (now - seenAt < SEEN_MS) return false;
    this.db
      .update(devices)
      .set({ seenAt: now, until: now + lifeOf(weak) })
      .where(eq(devices.id, id))
      .run();
    return true;
  }

  /** Those that are in, and those taken out that are not forgotten yet. */
  list(): DeviceRow[] {
    return this.db
      .select()
      .from(devices)
      .where(gt(devices.until, this.now()))
      .orderBy(asc(devices.pairedAt))
      .all();
  }

  get(id: string): DeviceRow | undefined {
    return this.db.select().from(devices).where(eq(devices.id, id)).get();
  }

  revoke(id: string): void {
    this.db
      .update(devices)
      .set({ revokedAt: this.now() })
      .where(and(eq(devices.id, id), isNull(devices.revokedAt)))
      .run();
  }

  /** Takes all devices of a person out. @returns their ids */
  revokeAllOf(personId: string): string[] {
    this.db.delete(pairingCodes).where(eq(pairingCodes.personId, personId)).run();
    return this.db
      .update(devices)
      .set({ revokedAt: this.now() })
      .where(and(eq(devices.personId, personId), isNull(devices.revokedAt)))
      .returning()
      .all()
      .map(({ id }) => id);
  }

  forgetOld(): void {
    this.db.delete(devices).where(lt(devices.until, this.now())).run();
    this.db.delete(pairingCodes).where(lt(pairingCodes.until, this.now())).run();
  }
}

const iso = (at: number): string => new Date(at).toISOString();

/** @param here the device that asks */
export function toDevice(row: DeviceRow, here?: string): Device {
  const { digest: _digest, pairedAt, seenAt, until, revokedAt, ...rest } = row;
  return defined({
    ...rest,
    pairedAt: iso(pairedAt),
    seenAt: iso(seenAt),
    until: iso(until),
    revokedAt: revokedAt === null ? null : iso(revokedAt),
    here: row.id === here,
  });
}
