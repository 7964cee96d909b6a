import { Injectable, signal } from '@angular/core';
import type { Tilt } from '@needlecase/core/measure/phone/tilt';
import { readLocal, writeLocal } from '../../data/local';

const NAME = 'phone.name';
const OWN_TILT = 'phone.own-tilt';
const LONGEST = 40;

/** What this device is called beside its figures: another phone is another instrument. It stays on the device. */
@Injectable({ providedIn: 'root' })
export class ThisPhone {
  readonly name = signal(readName());
  /** Its level's own error, mm/m, from turning it half round. */
  readonly ownTilt = signal<Tilt | undefined>(readTilt());

  constructor() {
    if (readLocal(NAME)) return;
    // Two phones that nobody named are not one.
    writeLocal(NAME, this.name());
    void this.#guess(this.name());
  }

  /** Takes what its owner calls it; an empty name is none. */
  call(name: string): void {
    const told = name.trim().slice(0, LONGEST);
    if (!told) return;
    this.name.set(told);
    writeLocal(NAME, told);
  }

  calibrated(own: Tilt): void {
    this.ownTilt.set(own);
    writeLocal(OWN_TILT, own);
  }

  /** Some browsers tell the model. */
  async #guess(before: string): Promise<void> {
    const { userAgentData } = navigator as {
      userAgentData?: { getHighEntropyValues(asked: string[]): Promise<{ model?: string }> };
    };
    const model = await userAgentData?.getHighEntropyValues(['model']).catch(() => undefined);
    if (model?.model && this.name() === before) this.call(`${model.model} ${before.split(' ')[1]}`);
  }
}

/** Three letters or digits by chance. */
const tag = (): string =>
  crypto.getRandomValues(new Uint32Array(1))[0]!.toString(36).padStart(3, '0').slice(-3);

const readName = (): string => {
  const kept = readLocal<unknown>(NAME);
  return typeof kept === 'string' && kept ? kept.slice(0, LONGEST) : `Phone ${tag()}`;
};

const readTilt = (): Tilt | undefined => {
  const kept = readLocal<Partial<Tilt> | null>(OWN_TILT);
  const { across, along } = kept ?? {};
  return Number.isFinite(across) && Number.isFinite(along)
    ? { across: across!, along: along! }
    : undefined;
};
