import type { Route } from '../../http/route.js';
import { addressRoutes } from './addresses.js';
import { asideRoutes } from './aside.js';
import { givenRoutes } from './given.js';
import type { Ground } from './ground.js';
import { passkeyRoutes } from './passkeys.js';
import { personRoutes } from './persons.js';
import { waysIn } from './ways-in.js';

/** Persons, their devices, and whatever else lets in. None of it is kept for retries: it holds secrets. */
export const accessRoutes = (ground: Ground, routes: () => readonly Route[]): Route[] => [
  ...waysIn(ground),
  ...addressRoutes(ground),
  ...personRoutes(ground),
  ...passkeyRoutes(ground),
  ...givenRoutes(ground),
  ...asideRoutes(ground, routes),
];
