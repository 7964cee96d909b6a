import type { Routes } from '@angular/router';
import { CaseComponent } from './case.component';
import { TroubleComponent } from './trouble.component';

const title = (name: string) => `${name} · Needlecase`;

/** In one piece: the first tap of a case leads to its own address, and must not wait for anything. */
export const TROUBLE_ROUTES: Routes = [
  { path: '', pathMatch: 'full', title: title('Trouble'), component: TroubleComponent },
  { path: ':id', title: title('Case'), component: CaseComponent },
];
