import {
  MACHINE_KINDS,
  CONDENSING,
  DRYERS,
  FRONT_LOADERS,
  VENTED,
  WASHERS,
  type FeatureId,
  type HabitId,
  type MachineKind,
} from '../../../model/vocabulary.js';
import { spoken } from '../../../regions/spoken.js';

/** What is asked about how a machine is built and placed, and the answers in words. */
export interface FeatureQuestion {
  id: FeatureId;
  /** A word or two for lists. */
  name: string;
  kinds: readonly MachineKind[];
  question: string;
  /** Why it is asked. */
  because: string;
  answers: readonly { value: string; label: string }[];
}

const UNKNOWN = { value: 'unknown', label: 'I do not know yet' };

export const FEATURE_QUESTIONS: readonly FeatureQuestion[] = spoken([
  {
    id: 'filterAccess',
    name: 'Pump filter',
    kinds: FRONT_LOADERS,
    question: 'Where is the pump filter reached?',
    because: 'The steps show you the right place.',
    answers: [
      { value: 'unknown', label: 'Not found yet' },
      { value: 'front-right', label: 'Flap at the bottom right' },
      { value: 'front-left', label: 'Flap at the bottom left' },
      { value: 'lower-front', label: 'Behind the whole lower front' },
      { value: 'behind', label: 'Only from behind' },
      { value: 'none', label: 'It has none' },
    ],
  },
  {
    id: 'drainDownHose',
    name: 'Drain-down hose',
    kinds: FRONT_LOADERS,
    question: 'Is there a thin drain-down hose beside the filter?',
    because: 'With it the water comes out in small amounts.',
    answers: [UNKNOWN, { value: 'yes', label: 'Yes' }, { value: 'no', label: 'No' }],
  },
  {
    id: 'dispenser',
    name: 'Detergent',
    kinds: WASHERS,
    question: 'Where does the detergent go?',
    because: 'A drawer is cleaned differently from a cup.',
    answers: [
      UNKNOWN,
      { value: 'drawer', label: 'In a drawer' },
      { value: 'cup', label: 'In a cup or straight into the drum' },
    ],
  },
  {
    id: 'drainsTo',
    name: 'Drains',
    kinds: WASHERS,
    question: 'Where does the used water go?',
    because: 'It decides what is looked at when draining gets slow.',
    answers: [
      UNKNOWN,
      { value: 'standpipe', label: 'Into a standpipe' },
      { value: 'sink', label: 'Into a sink or its spigot' },
      { value: 'floor-drain', label: 'Into a floor drain' },
    ],
  },
  {
    id: 'energy',
    name: 'Energy',
    kinds: VENTED,
    question: 'Electric or gas?',
    because: 'Gas must be shut off before the duct is opened.',
    answers: [UNKNOWN, { value: 'electric', label: 'Electric' }, { value: 'gas', label: 'Gas' }],
  },
  {
    id: 'ventPath',
    name: 'Duct goes',
    kinds: VENTED,
    question: 'Which way does the duct go?',
    because: 'Lint collects at different places.',
    answers: [
      UNKNOWN,
      { value: 'through-wall', label: 'Straight through the wall' },
      { value: 'up', label: 'Up' },
      { value: 'down', label: 'Down' },
    ],
  },
  {
    id: 'riser',
    name: 'Riser',
    kinds: VENTED,
    question: 'Does the duct climb, as from a cellar?',
    because: 'A riser catches the most lint.',
    answers: [UNKNOWN, { value: 'yes', label: 'Yes' }, { value: 'no', label: 'No' }],
  },
  {
    id: 'condensateTo',
    name: 'Its water goes',
    kinds: CONDENSING,
    question: 'Where does the water from the clothes go?',
    because: 'A tank is emptied after each load.',
    answers: [
      UNKNOWN,
      { value: 'tank', label: 'Into a tank' },
      { value: 'hose', label: 'Through a hose into a drain' },
    ],
  },
  {
    id: 'coil',
    name: 'Heat exchanger',
    kinds: ['heat-pump-dryer'],
    question: 'Does the heat exchanger clean itself?',
    because: 'One that cleans itself is sealed, and never brushed.',
    answers: [
      UNKNOWN,
      { value: 'brushed', label: 'No, it is brushed behind a flap' },
      { value: 'self-cleaning', label: 'Yes' },
    ],
  },
  {
    id: 'screenWell',
    name: 'Second screen or well',
    kinds: VENTED,
    question: 'Is there a well or a second screen below the lint screen?',
    because: 'Lint mats there where nobody looks.',
    answers: [UNKNOWN, { value: 'yes', label: 'Yes' }, { value: 'no', label: 'No' }],
  },
  {
    id: 'blowerAccess',
    name: 'Blower from the screen’s slot',
    kinds: VENTED,
    question: 'Can the blower be reached once the screen’s housing is off?',
    because: 'On some dryers lint packs the blower, and it is cleaned from there.',
    answers: [UNKNOWN, { value: 'yes', label: 'Yes' }, { value: 'no', label: 'No' }],
  },
  {
    id: 'sensor',
    name: 'Moisture sensor',
    kinds: DRYERS,
    question: 'Does it stop by itself when the load is dry?',
    because: 'Then it has sensor strips that need wiping.',
    answers: [UNKNOWN, { value: 'yes', label: 'Yes' }, { value: 'no', label: 'No, by time only' }],
  },
  {
    id: 'stacked',
    name: 'Stack',
    kinds: ['front-load-washer', 'washer-dryer', 'vented-dryer', ...CONDENSING],
    question: 'Does it stand in a stack?',
    because: 'A stack is never moved or tipped alone.',
    answers: [
      { value: 'no', label: 'No, on its own' },
      { value: 'below', label: 'Below another machine' },
      { value: 'above', label: 'On top of another machine' },
    ],
  },
  {
    id: 'room',
    name: 'Room',
    kinds: MACHINE_KINDS,
    question: 'What is the room like?',
    because: 'Mould grows faster where it is cool and damp.',
    answers: [
      { value: 'heated', label: 'Heated' },
      { value: 'unheated', label: 'A cellar or unheated' },
    ],
  },
]);

/** What is asked about the use of a machine. */
export const HABIT_QUESTIONS: readonly {
  id: HabitId;
  kinds: readonly MachineKind[];
  label: string;
}[] = spoken([
  { id: 'pets', kinds: MACHINE_KINDS, label: 'A pet that sheds' },
  { id: 'softener', kinds: MACHINE_KINDS, label: 'Softener or dryer sheets' },
  { id: 'overdose', kinds: WASHERS, label: 'More detergent than the label says' },
  { id: 'cool-washes', kinds: WASHERS, label: 'Mostly cool cycles' },
  { id: 'muddy-clothes', kinds: WASHERS, label: 'Muddy or clay-laden clothes, shoes' },
  { id: 'fleece', kinds: MACHINE_KINDS, label: 'Fleece, new towels' },
  { id: 'door-shut', kinds: FRONT_LOADERS, label: 'The door is kept shut' },
]);
