import type { ComponentFixture } from '@angular/core/testing';
import { handsOn } from '../measure/parts/testing';

/** A form as a person has it: what it says beside its fields, and sending it. */
export function formOn(fixture: ComponentFixture<unknown>) {
  fixture.detectChanges();
  const host = fixture.nativeElement as HTMLElement;
  const hands = handsOn(host, () => fixture.detectChanges());
  return {
    ...hands,
    host,
    /** What stands beside the fields, in their order. */
    wrong: () =>
      [...host.querySelectorAll('.field-problem')].map((one) => (one.textContent ?? '').trim()),
    send: () => {
      host.querySelector('form')!.dispatchEvent(new Event('submit', { cancelable: true }));
      fixture.detectChanges();
    },
    tick: (label: string) => {
      hands.field(label).click();
      fixture.detectChanges();
    },
  };
}
