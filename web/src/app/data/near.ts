import { effect, inject } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { SECTION, sectionsOf, sectionWith } from '@needlecase/core';
import { BenchService } from './bench.service';
import { SectionService } from './section.service';

/** Sees to it that a machine is among those that are told: of a large house, its section is looked at. */
export function lookNear(machineId: () => string | undefined): void {
  const loaded = toSignal(inject(BenchService).bench$);
  const sections = inject(SectionService);
  effect(() => {
    const [bench, id] = [loaded()?.value, machineId()];
    if (!bench?.section || id === undefined) return;
    if (bench.states.some((one) => one.machineId === id)) return;
    const section = sectionWith(sectionsOf(bench.machines, SECTION.shown), id);
    if (section) sections.choose(section.id);
  });
}
