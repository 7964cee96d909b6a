import type { Routes } from '@angular/router';
import { BenchComponent } from './bench/bench.component';
import { hasBench, hasHousehold, hasNoHousehold } from './data/first-start.guard';

const title = (view: string) => `${view} · Needlecase`;

/** One lazy route a view; the Bench comes with the program, as most visits open on it. */
export const routes: Routes = [
  {
    path: '',
    pathMatch: 'full',
    title: title('Bench'),
    canActivate: [hasBench],
    component: BenchComponent,
  },
  {
    path: 'machine/:id',
    title: title('Machine'),
    canActivate: [hasHousehold],
    loadComponent: () => import('./machine/machine.component').then((m) => m.MachineComponent),
  },
  {
    path: 'machine/:id/meter',
    title: title('Meter'),
    canActivate: [hasHousehold],
    loadComponent: () => import('./machine/meter/meter.component').then((m) => m.MeterComponent),
  },
  {
    path: 'machine/:id/life',
    title: title('Parts and papers'),
    canActivate: [hasHousehold],
    loadComponent: () => import('./machine/life/life.component').then((m) => m.LifeComponent),
  },
  {
    path: 'machine/:id/:station',
    title: title('Machine'),
    canActivate: [hasHousehold],
    loadComponent: () => import('./machine/machine.component').then((m) => m.MachineComponent),
  },
  {
    path: 'plan',
    title: title('Plan'),
    canActivate: [hasHousehold],
    loadComponent: () => import('./plan/plan.component').then((m) => m.PlanComponent),
  },
  {
    path: 'm/:short',
    title: title('Machine'),
    canActivate: [hasHousehold],
    loadComponent: () => import('./machine/label.component').then((m) => m.LabelComponent),
  },
  {
    path: 'visit',
    title: title('Choose a visit'),
    canActivate: [hasHousehold],
    loadComponent: () => import('./visit/choose.component').then((m) => m.ChooseComponent),
  },
  {
    path: 'visit/:id',
    title: title('Visit'),
    canActivate: [hasHousehold],
    loadComponent: () => import('./visit/visit.component').then((m) => m.VisitComponent),
  },
  { path: 'run/:id', redirectTo: 'visit/:id' },
  {
    path: 'trouble',
    canActivate: [hasHousehold],
    loadChildren: () => import('./trouble/trouble.routes').then((m) => m.TROUBLE_ROUTES),
  },
  {
    path: 'measure',
    title: title('Measure'),
    canActivate: [hasHousehold],
    loadChildren: () => import('./measure/measure.routes').then((m) => m.MEASURE_ROUTES),
  },
  {
    path: 'practice',
    canActivate: [hasHousehold],
    loadChildren: () => import('./practice/practice.routes').then((m) => m.PRACTICE_ROUTES),
  },
  {
    path: 'log',
    title: title('Log'),
    canActivate: [hasHousehold],
    loadComponent: () => import('./log/log.component').then((m) => m.LogComponent),
  },
  {
    path: 'log/hindsight',
    title: title('Foretold'),
    canActivate: [hasHousehold],
    loadComponent: () =>
      import('./log/hindsight/hindsight.component').then((m) => m.HindsightComponent),
  },
  {
    path: 'log/take',
    title: title('Take along'),
    canActivate: [hasHousehold],
    loadComponent: () => import('./log/take/take.component').then((m) => m.TakeComponent),
  },
  {
    path: 'log/charts',
    title: title('Charts'),
    canActivate: [hasHousehold],
    loadComponent: () => import('./log/charts/charts.component').then((m) => m.ChartsComponent),
  },
  {
    path: 'log/pictures',
    title: title('Photos'),
    canActivate: [hasHousehold],
    loadComponent: () =>
      import('./log/pictures/pictures.component').then((m) => m.PicturesComponent),
  },
  {
    path: 'log/year',
    title: title('A year of care'),
    canActivate: [hasHousehold],
    loadComponent: () => import('./log/year/year.component').then((m) => m.YearComponent),
  },
  {
    path: 'log/bring',
    title: title('Old notes'),
    canActivate: [hasHousehold],
    loadComponent: () => import('./log/bring/bring.component').then((m) => m.BringComponent),
  },
  {
    path: 'share',
    title: title('Shared'),
    canActivate: [hasHousehold],
    loadComponent: () => import('./log/share.component').then((m) => m.ShareComponent),
  },
  {
    path: 'house',
    title: title('House'),
    canActivate: [hasHousehold],
    loadComponent: () => import('./house/house.component').then((m) => m.HouseComponent),
  },
  {
    path: 'house/schools',
    title: title('Rhythms'),
    canActivate: [hasHousehold],
    loadComponent: () => import('./house/schools.component').then((m) => m.SchoolsComponent),
  },
  {
    path: 'house/supplies',
    title: title('Supplies'),
    canActivate: [hasHousehold],
    loadComponent: () => import('./house/supplies.component').then((m) => m.SuppliesComponent),
  },
  {
    path: 'house/codes',
    title: title('Display codes'),
    canActivate: [hasHousehold],
    loadComponent: () => import('./house/codes.component').then((m) => m.CodesComponent),
  },
  {
    path: 'house/backup',
    title: title('Backup'),
    canActivate: [hasHousehold],
    loadComponent: () => import('./house/backup.component').then((m) => m.BackupComponent),
  },
  {
    path: 'house/mail',
    title: title('Mail'),
    canActivate: [hasHousehold],
    loadComponent: () => import('./house/mail.component').then((m) => m.MailComponent),
  },
  {
    path: 'house/phones',
    title: title('Phones and people'),
    canActivate: [hasHousehold],
    loadComponent: () => import('./access/phones.component').then((m) => m.PhonesComponent),
  },
  {
    path: 'house/about',
    title: title('About'),
    canActivate: [hasHousehold],
    loadComponent: () => import('./house/about.component').then((m) => m.AboutComponent),
  },
  {
    path: 'pair',
    title: title('Let this device in'),
    loadComponent: () => import('./access/pair.component').then((m) => m.PairComponent),
  },
  {
    path: 'start/backup',
    title: title('From a backup'),
    canActivate: [hasNoHousehold],
    loadComponent: () => import('./house/put-back.component').then((m) => m.PutBackComponent),
  },
  {
    path: 'start/help',
    title: title('Help now'),
    loadComponent: () => import('./start/quick-help.component').then((m) => m.QuickHelpComponent),
  },
  {
    path: 'start',
    title: title('First start'),
    canActivate: [hasNoHousehold],
    loadComponent: () => import('./start/start.component').then((m) => m.StartComponent),
  },
  {
    path: '**',
    title: title('Not found'),
    loadComponent: () => import('./shell/lost.component').then((m) => m.LostComponent),
  },
];
