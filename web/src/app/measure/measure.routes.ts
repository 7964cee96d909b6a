import type { Routes } from '@angular/router';

const title = (name: string) => `${name} · Needlecase`;

/** One lazy route an instrument. */
export const MEASURE_ROUTES: Routes = [
  {
    path: '',
    pathMatch: 'full',
    title: title('Measure'),
    loadComponent: () => import('./measure.component').then((m) => m.MeasureComponent),
  },
  {
    path: 'vent-run',
    title: title('Vent run'),
    loadComponent: () => import('./instruments/vent-run.component').then((m) => m.VentRunComponent),
  },
  {
    path: 'hood-air',
    title: title('Air at the hood'),
    loadComponent: () => import('./instruments/hood-air.component').then((m) => m.HoodAirComponent),
  },
  {
    path: 'exhaust-air',
    title: title('Water in the exhaust'),
    loadComponent: () =>
      import('./instruments/exhaust-air.component').then((m) => m.ExhaustAirComponent),
  },
  {
    path: 'drying-test',
    title: title('Drying test'),
    loadComponent: () =>
      import('./instruments/drying-test.component').then((m) => m.DryingTestComponent),
  },
  {
    path: 'drum-model',
    title: title('Drum model'),
    loadComponent: () =>
      import('./instruments/drum-model.component').then((m) => m.DrumModelComponent),
  },
  {
    path: 'lint-screen',
    title: title('Water on the lint screen'),
    loadComponent: () =>
      import('./instruments/lint-screen.component').then((m) => m.LintScreenComponent),
  },
  {
    path: 'moisture-sensor',
    title: title('Moisture sensor'),
    loadComponent: () =>
      import('./instruments/moisture-sensor.component').then((m) => m.MoistureSensorComponent),
  },
  {
    path: 'running-cost',
    title: title('Running cost'),
    loadComponent: () =>
      import('./instruments/running-cost.component').then((m) => m.RunningCostComponent),
  },
  {
    path: 'tub-water',
    title: title('Water in the tub'),
    loadComponent: () =>
      import('./instruments/tub-water.component').then((m) => m.TubWaterComponent),
  },
  {
    path: 'drain-test',
    title: title('Drain test'),
    loadComponent: () =>
      import('./instruments/drain-test.component').then((m) => m.DrainTestComponent),
  },
  {
    path: 'fill-flow',
    title: title('Fill flow'),
    loadComponent: () =>
      import('./instruments/fill-flow.component').then((m) => m.FillFlowComponent),
  },
  {
    path: 'standpipe',
    title: title('Standpipe and hose'),
    loadComponent: () =>
      import('./instruments/standpipe.component').then((m) => m.StandpipeComponent),
  },
  {
    path: 'dose',
    title: title('Dose'),
    loadComponent: () => import('./instruments/dose.component').then((m) => m.DoseComponent),
  },
  {
    path: 'mix',
    title: title('Mix'),
    loadComponent: () => import('./instruments/mix.component').then((m) => m.MixComponent),
  },
  {
    path: 'scale',
    title: title('Scale'),
    loadComponent: () => import('./instruments/scale.component').then((m) => m.ScaleComponent),
  },
  {
    path: 'level',
    title: title('Level'),
    loadComponent: () => import('./instruments/level.component').then((m) => m.LevelComponent),
  },
];
