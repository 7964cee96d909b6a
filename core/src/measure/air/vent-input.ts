import type { FieldProblem } from '../../model/check.js';
import type { VentRunInput } from '../../model/vent-runs.js';
import { MeasureProblem, readFields, type Field, type Fields } from '../input/fields.js';
import type { VentPiece } from './vent-pieces.js';
import { improvements } from './improvements.js';
import { USUAL_BLOWER, ventRun, type VentRun } from './vent-run.js';

export const RUN_FIELDS = {
  diameter: {
    label: 'Inside diameter of the duct',
    dimension: 'length',
    least: 0.05,
    most: 0.3,
    metric: 'mm',
    us: 'in',
  },
  lining: {
    label: 'Lint on the wall',
    dimension: 'length',
    least: 0,
    most: 0.1,
    metric: 'mm',
    us: 'in',
    optional: true,
  },
  temperature: {
    label: 'Air in the duct',
    dimension: 'temperature',
    least: 0,
    most: 120,
    optional: true,
  },
  shutOff: {
    label: 'Blower, shut off',
    dimension: 'pressure',
    least: 50,
    most: 2000,
    optional: true,
  },
  freeFlow: { label: 'Blower, free', dimension: 'flow', least: 0.02, most: 0.3, optional: true },
  altitude: {
    label: 'Height over the sea',
    dimension: 'length',
    least: 0,
    most: 5000,
    optional: true,
  },
  makerLimit: {
    label: 'Your maker’s limit',
    dimension: 'length',
    least: 1,
    most: 60,
    optional: true,
  },
  limit: {
    label: 'Your local code’s limit',
    dimension: 'length',
    least: 1,
    most: 60,
    optional: true,
  },
} as const satisfies Fields;

export const PIECE_LENGTH: Field = { label: 'Length', dimension: 'length', least: 0.02, most: 30 };
export const NARROW_WIDTH: Field = {
  label: 'Opening',
  dimension: 'length',
  least: 0.01,
  most: 0.3,
  metric: 'mm',
  us: 'in',
};

/** Share of the dryer's own lint screen that is shut. */
export const BLOCKED: Field = {
  label: 'Blocked',
  dimension: 'ratio',
  least: 0,
  most: 0.95,
  metric: '%',
  us: '%',
};

/** Of the air in a vent duct while it dries. Common practice. */
const EXHAUST_CELSIUS = 60;

/** A vent run as it is given, in metres. @throws MeasureProblem naming every field at fault */
export function ventRunOf(input: VentRunInput): VentRun {
  const { pieces: given, material, ...figures } = input;
  const problems: FieldProblem[] = [];
  const attempt = <T>(work: () => T): T | undefined => {
    try {
      return work();
    } catch (problem) {
      if (!(problem instanceof MeasureProblem)) throw problem;
      problems.push(...problem.problems);
      return undefined;
    }
  };
  const read = attempt(() => readFields(figures, RUN_FIELDS));
  const pieces = given.map((piece, i) => attempt(() => pieceOf(piece, `pieces.${i}.`)));
  if (problems.length) throw new MeasureProblem(problems);
  const {
    diameter,
    lining = 0,
    temperature = EXHAUST_CELSIUS,
    shutOff,
    freeFlow,
    altitude,
  } = read!;
  // Where both are told, the shorter one holds.
  const limits = [read!.limit, read!.makerLimit].filter((one) => one !== undefined);
  return {
    pieces: pieces as VentPiece[],
    material,
    diameter,
    lining,
    temperature,
    blower: {
      shutOff: shutOff ?? USUAL_BLOWER.shutOff,
      freeFlow: freeFlow ?? USUAL_BLOWER.freeFlow,
    },
    ...(altitude === undefined ? {} : { altitude }),
    ...(limits.length ? { limit: Math.min(...limits) } : {}),
  };
}

function pieceOf(piece: VentRunInput['pieces'][number], at: string): VentPiece {
  const missing = (field: string, message: string): never => {
    throw new MeasureProblem([{ field: at + field, message }]);
  };
  const length = (given: { length?: { value: number; unit: string } }) =>
    readFields({ length: given.length }, { length: PIECE_LENGTH }, at).length;
  switch (piece.is) {
    case 'hose':
      return { is: 'hose', length: length(piece), stretched: piece.stretched ?? true };
    case 'straight':
      return { is: 'straight', length: length(piece), direction: piece.direction ?? 'level' };
    case 'elbow':
      if (!piece.angle) missing('angle', 'Choose 45 or 90.');
      if (!piece.radius) missing('radius', 'Choose mitered, or the radius of the bend.');
      return { is: 'elbow', angle: piece.angle, radius: piece.radius };
    case 'narrow': {
      const { diameter } = readFields({ diameter: piece.diameter }, { diameter: NARROW_WIDTH }, at);
      return { is: 'narrow', diameter };
    }
    case 'screen': {
      const { blocked } = readFields({ blocked: piece.blocked }, { blocked: BLOCKED }, at);
      return { is: 'screen', blocked };
    }
    case 'hood':
      return { is: 'hood', state: piece.state ?? 'free', screened: piece.screened ?? false };
  }
}

/** A vent run worked out, with what each change to it would give. @throws MeasureProblem */
export function ventRunAnswer(input: VentRunInput) {
  const run = ventRunOf(input);
  return {
    ...ventRun(run),
    whatIf: improvements(run).map(({ id, say, run: changed }) => ({
      id,
      say,
      flow: ventRun(changed).flow,
    })),
  };
}
