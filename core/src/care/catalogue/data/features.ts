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
import type { FigureId } from './figures.js';
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
  /** How somebody sees it who has never looked. */
  how: string;
  figure: FigureId;
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
    how: 'Kneel before it: a small flap or a strip along the foot of the front. No flap: look whether the whole lower front is one loose piece.',
    figure: 'flap-left',
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
    how: 'Behind the same flap, beside the round filter: a finger-thin hose with a cap.',
    figure: 'drain-down',
    answers: [UNKNOWN, { value: 'yes', label: 'Yes' }, { value: 'no', label: 'No' }],
  },
  {
    id: 'dispenser',
    name: 'Detergent',
    kinds: WASHERS,
    question: 'Where does the detergent go?',
    because: 'A drawer is cleaned differently from a cup.',
    how: 'A drawer pulls out at the top of the front; a cup sits under the lid or in the door.',
    figure: 'drawer',
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
    how: 'Follow the ribbed grey hose from the back to where its end hangs.',
    figure: 'standpipe',
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
    how: 'Look behind it: a yellow or metal gas hose with a valve beside the plug means gas. One thick cable alone means electric.',
    figure: 'gas-hose',
    answers: [UNKNOWN, { value: 'electric', label: 'Electric' }, { value: 'gas', label: 'Gas' }],
  },
  {
    id: 'ventPath',
    name: 'Duct goes',
    kinds: VENTED,
    question: 'Which way does the duct go?',
    because: 'Lint collects at different places; where a duct climbs, the most.',
    how: 'Follow the wide hose from its back: does it go straight out, climb to a higher wall or the roof, or down?',
    figure: 'vent-ways',
    answers: [
      UNKNOWN,
      { value: 'through-wall', label: 'Straight through the wall' },
      { value: 'up', label: 'It climbs, as from a cellar' },
      { value: 'down', label: 'Down' },
    ],
  },
  {
    id: 'condensateTo',
    name: 'Its water goes',
    kinds: CONDENSING,
    question: 'Where does the water from the clothes go?',
    because: 'A tank is emptied after each load.',
    how: 'A long drawer that fills with water, or a thin hose from the back into a drain.',
    figure: 'condensate',
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
    how: 'Open the flap at the foot: fins that you can reach with a brush, or a closed cover and a sticker.',
    figure: 'exchanger',
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
    how: 'Draw the lint screen out and look into its slot with a torch: does it go deep, or is there a second mesh?',
    figure: 'screen-well',
    answers: [UNKNOWN, { value: 'yes', label: 'Yes' }, { value: 'no', label: 'No' }],
  },
  {
    id: 'blowerAccess',
    name: 'Blower from the screen’s slot',
    kinds: VENTED,
    question: 'Can the blower be reached once the screen’s housing is off?',
    because: 'On some dryers lint packs the blower, and it is cleaned from there.',
    how: 'Screws round the slot of the lint screen: the manual says whether the fan can be seen behind it.',
    figure: 'screen-well',
    answers: [UNKNOWN, { value: 'yes', label: 'Yes' }, { value: 'no', label: 'No' }],
  },
  {
    id: 'sensor',
    name: 'Moisture sensor',
    kinds: DRYERS,
    question: 'Does it stop by itself when the load is dry?',
    because: 'Then it has sensor strips that need wiping.',
    how: 'Two bare metal strips inside, near the lint screen or on the drum’s back; or a cycle called dry or extra dry.',
    figure: 'strips',
    answers: [UNKNOWN, { value: 'yes', label: 'Yes' }, { value: 'no', label: 'No, by time only' }],
  },
  {
    id: 'stacked',
    name: 'Stack',
    kinds: ['front-load-washer', 'washer-dryer', 'vented-dryer', ...CONDENSING],
    question: 'Does it stand in a stack?',
    because: 'A stack is never moved or tipped alone.',
    how: 'One machine stands on the other, with a frame or a strap between them.',
    figure: 'stack',
    answers: [
      UNKNOWN,
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
    how: 'Is the room heated in winter, or as cool as a cellar?',
    figure: 'cellar',
    answers: [
      UNKNOWN,
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
