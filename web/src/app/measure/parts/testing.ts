import { signal } from '@angular/core';
import { exampleIn, type Amount, type Fields } from '@needlecase/core';
import type { BenchView, Entry, HouseholdDraft, Machine, UnitSystem } from '@needlecase/core';
import { attempt } from './attempt';

type Drafts = Partial<Entry>[];

/** What an instrument is given in its component tests instead of Measuring, and what it did with it. */
export function fakeMeasuring(household: Partial<HouseholdDraft> = {}, machineId = 'machine') {
  const units = signal<UnitSystem>(household.units ?? 'metric');
  const bench = signal({ household, machines: [], states: [] } as unknown as BenchView | undefined);
  const saved: Drafts[] = [];
  const kept: { change: Partial<HouseholdDraft>; said: string; undo?: () => object }[] = [];
  const fake = {
    instrument: { title: 'An instrument', kinds: [] as readonly string[] },
    ready: signal(true),
    machines: signal([]),
    machine: signal<Pick<Machine, 'id' | 'loadsPerWeek' | 'features'> | undefined>({
      id: machineId,
      loadsPerWeek: 5,
      features: {},
    }),
    machineId: signal(machineId),
    figures: signal<Record<string, unknown>>({}),
    units,
    house: () => ({ units: units() }),
    bench,
    saving: signal(false),
    saved: signal(false),
    moved: signal([]),
    example: (amounts: Readonly<Record<string, Amount>>, fields: Fields) =>
      exampleIn(amounts, fields, units()),
    sayDay: (instant: number) => new Date(instant).toISOString().slice(0, 10),
    attempt: <T>(work: () => T) => attempt(work, units()),
    save: (...drafts: Drafts) => {
      saved.push(drafts);
      return Promise.resolve();
    },
    keepForHouse: (
      change: Partial<HouseholdDraft>,
      said: string,
      then?: () => void,
      undo?: () => object,
    ) => {
      kept.push({ change, said, ...(undo ? { undo } : {}) });
      bench.update((now) => ({ ...now!, household: { ...now!.household, ...change } }));
      then?.();
    },
  };
  /** The bench again, as it comes when another screen changed something. */
  const again = () => bench.update((now) => structuredClone(now));
  return { fake, kept, saved, again };
}

/** What a person does on a screen. */
export function handsOn(host: HTMLElement, update: () => void) {
  const change = (field: HTMLInputElement | HTMLSelectElement, value: string) => {
    field.value = value;
    field.dispatchEvent(new Event('input'));
    field.dispatchEvent(new Event('change'));
    update();
  };
  const named = (label: string) => {
    const found = [...host.querySelectorAll('label')].find((one) =>
      (one.textContent ?? '').includes(label),
    );
    const field = found?.htmlFor
      ? host.querySelector(`#${found.htmlFor}`)
      : host.querySelector(`[aria-label*="${label}"]`);
    if (!field) throw new Error(`No field is called "${label}".`);
    return field as HTMLInputElement;
  };
  const button = (words: string) => {
    const found = [...host.querySelectorAll('button')].find(
      (one) =>
        (one.textContent ?? '').includes(words) ||
        (one.getAttribute('aria-label') ?? '').includes(words),
    );
    if (!found) throw new Error(`No button says "${words}".`);
    return found;
  };
  return {
    field: named,
    fill: (label: string, value: string) => change(named(label), value),
    press: (words: string) => {
      button(words).click();
      update();
    },
    button,
    text: () => (host.textContent ?? '').replace(/\s+/g, ' '),
  };
}
