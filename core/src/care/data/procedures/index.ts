import type { Procedure } from '../../catalogue.js';
import { DISPENSER } from './dispenser.js';
import { DUCT_RUN } from './duct-run.js';
import { GASKET_FOLDS } from './gasket-folds.js';
import { HEAT_EXCHANGER } from './heat-exchanger.js';
import { LINT_SCREEN_WASH } from './lint-screen-wash.js';
import { PUMP_FILTER } from './pump-filter.js';

export const PROCEDURES: readonly Procedure[] = [
  PUMP_FILTER,
  DISPENSER,
  GASKET_FOLDS,
  LINT_SCREEN_WASH,
  DUCT_RUN,
  HEAT_EXCHANGER,
];
