import type { Type } from '@angular/core';
import type { Routes } from '@angular/router';
import { INSTRUMENT_SCREENS, type InstrumentName, type PhoneInstrument } from '@needlecase/core';

const title = (name: string) => `${name} · Needlecase`;

/** The screen of an instrument: `instruments/NAME.component.ts`, which has it as its default. */
const screenOf = async (name: InstrumentName | PhoneInstrument): Promise<Type<unknown>> => {
  const file = (await import(`./instruments/${name}.component.ts`)) as { default: Type<unknown> };
  return file.default;
};

/** One lazy route an instrument, as the table has them. */
export const MEASURE_ROUTES: Routes = [
  {
    path: '',
    pathMatch: 'full',
    title: title('Measure'),
    loadComponent: () => import('./measure.component').then((m) => m.MeasureComponent),
  },
  ...INSTRUMENT_SCREENS.map(({ name, title: words }) => ({
    path: name,
    title: title(words),
    data: { instrument: name },
    loadComponent: () => screenOf(name),
  })),
];
