import { FLUFF_RINSE } from './fluff-rinse.js';
import type { Procedure } from '../../types.js';
import { BELT_ROLLERS } from './belt-rollers.js';
import { BLOWER_WHEEL } from './blower-wheel.js';
import { CABINET } from './cabinet.js';
import { CONDENSATE_SUMP } from './condensate-sump.js';
import { DESCALE } from './descale.js';
import { DISPENSER } from './dispenser.js';
import { DISPENSER_JETS } from './dispenser-jets.js';
import { DRAIN_HOSE } from './drain-hose.js';
import { DRAIN_STALE } from './drain-stale.js';
import { DRUM_CLEAN } from './drum-clean.js';
import { DRUM_SEAL } from './drum-seal.js';
import { DUCT_RUN } from './duct-run.js';
import { FILL_HOSE } from './fill-hose.js';
import { FINE_FILTER } from './fine-filter.js';
import { GASKET_FOLDS } from './gasket-folds.js';
import { GASKET_WIPE } from './gasket-wipe.js';
import { HEAT_EXCHANGER } from './heat-exchanger.js';
import { HOOD } from './hood.js';
import { INLET_SCREEN } from './inlet-screen.js';
import { LEVEL } from './level.js';
import { LINT_SCREEN_BRUSH } from './lint-screen-brush.js';
import { LINT_SCREEN_WASH } from './lint-screen-wash.js';
import { MOISTURE_SENSOR } from './moisture-sensor.js';
import { PUMP_FILTER } from './pump-filter.js';
import { SCREEN_WELL } from './screen-well.js';
import { SERVICE } from './service.js';
import { SOFTENER_CUP } from './softener-cup.js';
import { TANK_EMPTY } from './tank-empty.js';
import { TRANSITION_HOSE } from './transition-hose.js';
import { spoken } from '../../../../regions/spoken.js';

export const PROCEDURES: readonly Procedure[] = spoken([
  FLUFF_RINSE,
  BELT_ROLLERS,
  BLOWER_WHEEL,
  CABINET,
  CONDENSATE_SUMP,
  DESCALE,
  DISPENSER,
  DISPENSER_JETS,
  DRAIN_HOSE,
  DRAIN_STALE,
  DRUM_CLEAN,
  DRUM_SEAL,
  DUCT_RUN,
  FILL_HOSE,
  FINE_FILTER,
  GASKET_FOLDS,
  GASKET_WIPE,
  HEAT_EXCHANGER,
  HOOD,
  INLET_SCREEN,
  LEVEL,
  LINT_SCREEN_BRUSH,
  LINT_SCREEN_WASH,
  MOISTURE_SENSOR,
  PUMP_FILTER,
  SCREEN_WELL,
  SERVICE,
  SOFTENER_CUP,
  TANK_EMPTY,
  TRANSITION_HOSE,
]);
