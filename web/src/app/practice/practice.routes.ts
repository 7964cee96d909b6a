import type { Routes } from '@angular/router';

const title = (name: string) => `${name} · Needlecase`;

export const PRACTICE_ROUTES: Routes = [
  {
    path: '',
    pathMatch: 'full',
    title: title('Practise'),
    loadComponent: () => import('./practice.component').then((m) => m.PracticeComponent),
  },
  {
    path: 'play',
    title: title('Practise'),
    loadComponent: () => import('./play.component').then((m) => m.PlayComponent),
  },
  {
    path: 'steps/:cause',
    title: title('Step by step'),
    loadComponent: () => import('./steps.component').then((m) => m.StepsComponent),
  },
  {
    path: 'look/:check',
    title: title('Practise looking'),
    loadComponent: () => import('./look-at.component').then((m) => m.LookAtComponent),
  },
  {
    path: 'instrument/:what',
    title: title('Practise measuring'),
    loadComponent: () => import('./instrument.component').then((m) => m.InstrumentComponent),
  },
  {
    path: 'dry',
    title: title('Dry run'),
    loadComponent: () => import('./dry-run.component').then((m) => m.DryRunComponent),
  },
];
