import { hasDuct } from '../../model/vocabulary.js';
import type { Build } from '../../care/catalogue/types.js';
import type { CodeSeen } from '../../model/schemas.js';
import type { Answer } from '../../model/vocabulary.js';
import { codeClassById } from '../codes/classes.js';
import { stopsOf } from '../data/stops.js';
import { SYMPTOMS } from '../data/symptoms.js';
import type { StopRule } from '../data/types.js';

/** What is asked first where one of these is told. Common practice. */
interface StopsWith {
  symptoms: readonly string[];
  stops: readonly string[];
}

const WATER = ['water-socket', 'over-sill', 'flooding', 'shock'];
const HEAT = ['smoke', 'scorched', 'hurts-hot', 'gas-smell', 'carbon-monoxide', 'refrigerant'];
const POWER = ['smoke', 'breaker', 'shock'];
const MOVING = ['smoke', 'water-socket', 'shock', 'refrigerant'];
const SMELL = ['smoke', 'gas-smell', 'fumes'];
const CLEANERS = ['fumes', 'smoke'];

const STOPS_WITH: readonly StopsWith[] = [
  {
    stops: WATER,
    symptoms: [
      ...['wont-drain', 'drains-slowly', 'getting-worse', 'code-drain', 'backs-up', 'gurgle'],
      ...['other-fixtures-slow', 'water-behind', 'never-full', 'pool-front', 'fold-water'],
      ...['damp-tap-side', 'foam', 'sump-water', 'hum-no-flow', 'pump-silent', 'door-locked'],
      ...['tank-lamp', 'code-fill', 'no-fill', 'slow-fill', 'drawer-left', 'wetter-wash'],
      ...['wash-heavy', 'wont-spin', 'spin-tries', 'room-damp', 'rattle-pump', 'gurgle-duct'],
    ],
  },
  {
    stops: HEAT,
    symptoms: [
      ...['long-drying', 'long-this-load', 'hot-laundry', 'overheats', 'weak-air'],
      ...['hot-damp-behind', 'slow-drift', 'since-installed', 'burning-smell', 'no-heat'],
      ...['heat-stops-early', 'restarts-cooled', 'auto-damp', 'timed-dries', 'runs-on'],
      ...['stops-minutes', 'condenser-lamp', 'damp-round-door', 'long-heating', 'wrong-heat'],
      ...['creased', 'winter-only', 'room-damp'],
    ],
  },
  {
    stops: POWER,
    symptoms: ['wont-start', 'odd-code', 'drum-still', 'pump-silent', 'hum-no-flow', 'no-heat'],
  },
  {
    stops: MOVING,
    symptoms: [
      ...[
        'walks',
        'even-part-loads',
        'bangs-this-load',
        'spin-tries',
        'roar',
        'scrape',
        'rattle-pump',
      ],
      ...['squeal', 'rumble'],
    ],
  },
  {
    stops: SMELL,
    symptoms: SYMPTOMS.filter(({ sense }) => sense === 'smell').map(({ id }) => id),
  },
  {
    stops: CLEANERS,
    symptoms: [
      'black-spots',
      'black-cavity',
      'white-crust',
      'flakes',
      'specks',
      'dull-wash',
      'hair-on-wash',
    ],
  },
];

const isYes = (answer: Answer | undefined): boolean => answer === 'yes' || answer === 'partly';

/**
 * The stop rules that belong to what was told of a machine: asked before anything is looked at, each once.
 * A dryer that is known to run on electricity is not asked about gas.
 * @param told what was answered, by symptom; the codes seen; stop rules that were asked already
 */
export function stopsToAsk(
  machine: Pick<Build, 'kind' | 'features'>,
  told: {
    answers: Readonly<Record<string, Answer>>;
    codes: readonly Pick<CodeSeen, 'class'>[];
    asked: readonly string[];
  },
): StopRule[] {
  const seen = new Set([
    ...Object.keys(told.answers).filter((id) => isYes(told.answers[id])),
    ...told.codes.flatMap((code) => codeClassById(code.class).shows),
  ]);
  const wanted = new Set(
    STOPS_WITH.filter(({ symptoms }) => symptoms.some((id) => seen.has(id))).flatMap(
      ({ stops }) => stops,
    ),
  );
  const burns = hasDuct(machine.kind) && machine.features.energy !== 'electric';
  return stopsOf(machine.kind)
    .filter(({ id }) => wanted.has(id) && !told.asked.includes(id))
    .filter(({ id }) => burns || !FLUE.includes(id) || seenSmell(seen));
}

/** Of what burns gas. */
const FLUE = ['gas-smell', 'carbon-monoxide'];
const seenSmell = (seen: ReadonlySet<string>): boolean =>
  SYMPTOMS.some(({ id, sense }) => sense === 'smell' && seen.has(id));
