import { MeasureProblem, type Working } from '../input/fields.js';
import { figure, MM } from '../../units/wording.js';
import { airDensity, airViscosity, atmosphereAt } from './properties.js';
import { speedIn, straightLoss } from './friction.js';
import {
  CODE_LENGTH,
  DEDUCTIONS,
  elbowLoss,
  HOOD_LOSS,
  HOSE_ROUGHNESS,
  LINT_ROUGHNESS,
  LINT_SCREEN_LOSS,
  ROUGHNESS,
  SCREEN_LOSS,
  SHARP,
  SLACK_FACTOR,
  TRANSITION_LENGTH,
  type Material,
  type VentPiece,
} from './vent-pieces.js';

/** A dryer's blower: pressure against flow falls as a parabola from shut off to free flow. */
export interface Blower {
  /** Pa at no flow, in air of 20 °C at sea level. */
  shutOff: number;
  /** m³/s at no pressure. */
  freeFlow: number;
}
/** Common practice; the maker's own figures take its place. */
export const USUAL_BLOWER: Blower = { shutOff: 400, freeFlow: 0.095 };

/** Lint settles below this, m/s (1,200 ft/min; common practice). */
export const SETTLING_SPEED = 1200 * 0.00508;

export interface VentRun {
  /** From the machine outwards, lengths in m. */
  pieces: readonly VentPiece[];
  material: Material;
  /** Of the duct, m. */
  diameter: number;
  /** Thickness of lint on the wall, m. */
  lining: number;
  /** Of the air in it, °C. */
  temperature: number;
  blower: Blower;
  /** m over the sea; sea level unless said. */
  altitude?: number;
  /** The local code's or the maker's limit in place of 35 ft, the shorter of both, m. */
  limit?: number;
}

export interface PieceResult {
  /** Pa lost in it. */
  loss: number;
  /** Pa over the outdoors at its beginning. */
  before: number;
  /** m/s. */
  speed: number;
  /** m that count against the limit. */
  counts: number;
  /** Lint settles here: too slow. */
  settles: boolean;
  /** Water and lint gather here: the way goes up from it. */
  low: boolean;
}

export interface VentRunResult {
  /** m³/s. */
  flow: number;
  /** Pa of the blower at that flow. */
  pressure: number;
  pieces: PieceResult[];
  code: { limit: number; used: number; left: number; passes: boolean };
  /** What the code or good practice would have otherwise. */
  remarks: string[];
  working: Working[];
}

/** Longest run, fittings and all, that is reckoned with. */
const MOST_PIECES = 60;

/**
 * Air and pressure along a vent, where the blower's pressure and the run's losses meet.
 *
 * ```
 *   pressure  \  blower
 *              \      _/ run
 *               \  _/
 *   ____________ \/______ flow
 * ```
 * @throws MeasureProblem for a run without pieces, too many, or lint that leaves no opening
 */
export function ventRun(run: VentRun): VentRunResult {
  const problems = wrongIn(run);
  if (problems.length) throw new MeasureProblem(problems);
  const pressureThere = atmosphereAt(run.altitude ?? 0);
  const air = {
    density: airDensity(run.temperature, pressureThere),
    viscosity: airViscosity(run.temperature),
  };
  // A blower moves a volume; the pressure that it makes goes with the air's density.
  const blower = { ...run.blower, shutOff: (run.blower.shutOff * air.density) / airDensity(20) };
  const lossAt = (flow: number) =>
    run.pieces.reduce((sum, piece) => sum + pieceLoss(piece, run, flow, air), 0);
  const flow = crossing(blower, lossAt);
  const losses = run.pieces.map((piece) => pieceLoss(piece, run, flow, air));
  const pressure = losses.reduce((sum, loss) => sum + loss, 0);
  let left = pressure;
  const pieces = run.pieces.map((piece, i): PieceResult => {
    const before = left;
    left -= losses[i]!;
    const speed = speedIn(openingOf(piece, run), flow);
    return {
      loss: losses[i]!,
      before,
      speed,
      counts: countsOf(piece),
      settles: (piece.is === 'straight' || piece.is === 'hose') && speed < SETTLING_SPEED,
      low: isLow(run.pieces, i),
    };
  });
  const limit = run.limit ?? CODE_LENGTH;
  const used = pieces.reduce((sum, { counts }) => sum + counts, 0);
  return {
    flow,
    pressure,
    pieces,
    code: { limit, used, left: limit - used, passes: used <= limit + 1e-9 },
    remarks: remarksOn(run, pieces),
    working: [
      {
        what: 'Air in the duct',
        how: `${air.density.toFixed(3)} kg/m³ and ${(air.viscosity * 1e6).toFixed(1)} µPa·s at ${figure(run.temperature, 'temperature')} (ideal gas, Sutherland)`,
      },
      {
        what: 'Losses',
        how: 'friction by Darcy and Weisbach with the Colebrook and White factor; fittings by their loss coefficients; a narrow place as a sharp opening, 0.62',
      },
      {
        what: 'Flow',
        how: `where the blower (${figure(run.blower.shutOff, 'pressure')} shut off in cool air, ${figure(blower.shutOff, 'pressure')} in this; ${figure(run.blower.freeFlow, 'flow')} free) and the run meet: ${figure(flow, 'flow')} at ${figure(pressure, 'pressure')}`,
      },
      {
        what: 'Length',
        how: `straight pieces and the deduction of each elbow: ${figure(used, 'length')} of ${figure(limit, 'length')} (IRC M1502 unless your own limit is set); the hose of up to 8 ft is not counted`,
      },
    ],
  };
}

function wrongIn({ pieces, diameter, lining }: VentRun) {
  const problems = [];
  if (pieces.length === 0) {
    problems.push({ field: 'pieces', message: 'Add at least one piece.' });
  }
  if (pieces.length > MOST_PIECES) {
    problems.push({
      field: 'pieces',
      message: `At most ${MOST_PIECES} pieces; join straight ones.`,
    });
  }
  if (lining * 2 > diameter * 0.9) {
    problems.push({
      field: 'lining',
      message: `Give less lint than leaves a tenth of the opening: up to ${figure(Math.floor(450 * diameter) / 1000, 'length', MM)}.`,
    });
  }
  return problems;
}

type Air = { density: number; viscosity: number };

/** What is open of the duct at a piece, m across. */
const openingOf = (piece: VentPiece, { diameter, lining }: VentRun): number =>
  piece.is === 'narrow' ? piece.diameter : diameter - 2 * lining;

function pieceLoss(piece: VentPiece, run: VentRun, flow: number, air: Air): number {
  const { lining, material, diameter: whole } = run;
  const diameter = openingOf(piece, run);
  const dynamic = (air.density / 2) * speedIn(diameter, flow) ** 2;
  switch (piece.is) {
    case 'straight': {
      const roughness = Math.max(ROUGHNESS[material], Math.min(LINT_ROUGHNESS, lining));
      return straightLoss({ diameter, length: piece.length, roughness }, flow, air);
    }
    case 'screen':
      return (LINT_SCREEN_LOSS / (1 - piece.blocked) ** 2) * dynamic;
    case 'hose': {
      const roughness = HOSE_ROUGHNESS[piece.stretched ? 'stretched' : 'slack'];
      const length = piece.length * (piece.stretched ? 1 : SLACK_FACTOR);
      return straightLoss({ diameter, length, roughness }, flow, air);
    }
    case 'elbow':
      return elbowLoss(piece.radius, piece.angle, whole) * dynamic;
    case 'hood':
      return (HOOD_LOSS[piece.state] + (piece.screened ? SCREEN_LOSS : 0)) * dynamic;
    case 'narrow': {
      const area = (Math.PI / 4) * piece.diameter ** 2;
      return (air.density / 2) * (flow / (SHARP * area)) ** 2;
    }
  }
}

/** The flow at which a falling and a rising pressure are the same, m³/s, by halving. */
function crossing({ shutOff, freeFlow }: Blower, lossAt: (flow: number) => number): number {
  let [low, high] = [0, freeFlow];
  for (let i = 0; i < 60; i++) {
    const middle = (low + high) / 2;
    if (shutOff * (1 - (middle / freeFlow) ** 2) > lossAt(middle)) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}

function countsOf(piece: VentPiece): number {
  if (piece.is === 'straight') return piece.length;
  return piece.is === 'elbow' ? DEDUCTIONS[piece.radius][piece.angle] : 0;
}

/** A level or falling piece after which the way goes up. */
function isLow(pieces: readonly VentPiece[], at: number): boolean {
  const here = pieces[at]!;
  if (here.is !== 'straight' || here.direction === 'up') return false;
  const next = pieces.slice(at + 1).find(({ is }) => is === 'straight');
  return next?.is === 'straight' && next.direction === 'up';
}

function remarksOn({ pieces, diameter, material }: VentRun, results: readonly PieceResult[]) {
  const remarks: string[] = [];
  const hoses = pieces.filter((piece) => piece.is === 'hose');
  if (hoses.length > 1) remarks.push('The transition hose is to be one piece.');
  if (hoses.some(({ length }) => length > TRANSITION_LENGTH + 1e-9)) {
    remarks.push(
      'The transition hose is longer than 8 ft (2.4 m), and it must never be hidden in a wall.',
    );
  }
  if (material === 'foil-flex') {
    remarks.push(
      'Inside walls and floors the duct is to be smooth rigid metal: foil holds lint and burns through.',
    );
  }
  if (diameter < 0.1) remarks.push('The duct is narrower than 4 in (10 cm).');
  if (pieces.some((piece) => piece.is === 'hood' && piece.screened)) {
    remarks.push('A screen at the hood catches lint and shuts the way: none is allowed there.');
  }
  if (pieces.some((piece) => piece.is === 'hose' && !piece.stretched)) {
    remarks.push('The hose hangs in folds: cut it to length and stretch it.');
  }
  if (results.some(({ low }) => low)) {
    remarks.push('Lint and water gather at the low point before the way goes up: open it there.');
  }
  if (results.some(({ settles }) => settles)) {
    remarks.push('The air is slower than 6 m/s (1,200 ft/min) there: lint settles.');
  }
  return remarks;
}
