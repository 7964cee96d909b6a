import { DRYERS, DRYING, WASHERS, type MachineKind } from '../../../model/vocabulary.js';
import { spoken } from '../../../regions/spoken.js';

/** A load that wants care before it, after it, or both. */
export interface LoadCare {
  id: string;
  kinds: readonly MachineKind[];
  /** What is washed or dried: "Rubber-backed rugs". */
  load: string;
  before?: string;
  after?: string;
  why: string;
}

/** Common practice. */
export const LOAD_CARE: readonly LoadCare[] = spoken([
  {
    id: 'rugs',
    kinds: [...WASHERS, ...DRYERS],
    load: 'Rubber-backed rugs',
    before: 'Shake them outdoors; wash cool, alone, and never into a dryer.',
    after: 'Look into the pump filter, the gasket and the lint screen for crumbs.',
    why: 'The backing crumbles with heat: granules jam the pump and can catch fire in a dryer.',
  },
  {
    id: 'pet-blankets',
    kinds: WASHERS,
    load: 'Pet blankets',
    before:
      'Roll or brush the hair off dry, and shake them outdoors. With urine on them: no chlorine bleach, they give off ammonia.',
    after: 'Run a rinse with nothing in it, wipe the gasket’s folds and look into them.',
    why: 'Wet hair felts in the folds, in the filter, and on the next load.',
  },
  {
    id: 'nets',
    kinds: WASHERS,
    load: 'Small things, bra pads, things with wires',
    before: 'Into a closed net, with something heavier beside it: never a net alone.',
    why: 'What is small slips past the gasket; a net by itself throws the spin out of balance.',
  },
  {
    id: 'shoes',
    kinds: WASHERS,
    load: 'Shoes',
    before: 'Laces out, soles brushed dry, in a net, with two old towels; cool and a slow spin.',
    after: 'Wipe the gasket and look into the pump filter.',
    why: 'Grit scratches glass and jams the impeller.',
  },
  {
    id: 'clay',
    kinds: WASHERS,
    load: 'Clay, mud, sand',
    before: 'Let it dry, beat it out, rinse it in a bucket outdoors.',
    after: 'Clean the pump filter before the next load.',
    why: 'What sinks stays in the sump and sets like stone.',
  },
  {
    id: 'new-towels',
    kinds: [...WASHERS, ...DRYERS],
    load: 'New towels, fleece',
    before: 'By themselves, the first two or three times.',
    after: 'Brush the lint screen half way through, and once more afterwards.',
    why: 'They shed more lint in a load than a month of shirts.',
  },
  {
    id: 'duvets',
    kinds: [...WASHERS, ...DRYERS],
    load: 'Duvets, pillows, large things',
    before: 'Only if they fit loosely. Dry them in the air first, then finish in the dryer.',
    after: 'Feel for damp lumps, turn, and dry on in short runs.',
    why: 'A duvet fills the drum: no air gets through, and the spin bangs.',
  },
  {
    id: 'pods',
    kinds: WASHERS,
    load: 'With pods or capsules',
    before:
      'Into the empty drum, at the back, before the laundry. Never in the drawer, never on top.',
    why: 'In the drawer it sticks and lumps; on top it burns a white spot. Keep them locked away from children.',
  },
  {
    id: 'softener',
    kinds: WASHERS,
    load: 'With softener',
    before: 'Into its own compartment, never on the cloth.',
    why: 'On cloth it leaves grease spots; in the drum it coats seal and sensor.',
  },
  {
    id: 'small-load',
    kinds: WASHERS,
    load: 'A small load',
    before: 'On a short or half-load cycle; two or three towels beside one heavy thing.',
    why: 'On a large cycle it costs nearly the water and power of a full one, and one thing alone bangs.',
  },
  {
    id: 'not-past-mark',
    kinds: WASHERS,
    load: 'A full load',
    before:
      'A hand’s width of air above it; some manuals say three quarters of the drum. A top loader not past its mark.',
    why: 'What cannot tumble is not washed, and the bearings carry it.',
  },
  {
    id: 'monthly-hot',
    kinds: WASHERS,
    load: 'When you mostly wash cool',
    before: 'One load a month at 60 °C (140 °F) with an oxygen powder: towels, bed linen.',
    why: 'Cool cycles kill little; what grows in the drum goes on to the laundry.',
  },
  {
    id: 'after-weeks',
    kinds: WASHERS,
    load: 'After four weeks unused',
    before: 'First an empty cycle at 60 °C (140 °F).',
    why: 'Water that stood in hoses and sump for weeks breeds germs, and the spray carries them.',
  },
  {
    // IEC 60335-2-11, instructions (from memory).
    id: 'never-dried',
    kinds: DRYING,
    load: 'Foam rubber, latex, rubber-backed mats; anything with oil, wax, petrol, thinner or spot remover',
    before: 'Never into a dryer. Let it dry in the air, oily cloths spread out and not in a heap.',
    why: 'It can catch fire in the drum, or hours later in the basket. Washing does not take all of it out.',
  },
  {
    id: 'every-drying',
    kinds: DRYING,
    load: 'Everything you dry',
    before: 'No lighter or match in a pocket. Not while you sleep or are out.',
    after:
      'Let the cool-down finish. Stopped before the end: take all of it out at once and spread it.',
    why: 'Hot laundry left in a heap can go on heating until it burns.',
  },
  {
    id: 'similar',
    kinds: DRYING,
    load: 'Into the dryer',
    before: 'Similar sizes and weights together; balls instead of sheets.',
    why: 'Shirts are over-dried while towels are damp; sheets coat screen and strips.',
  },
]);

/** What a kind of machine wants known before a load. */
export const loadCareOf = (kind: MachineKind): LoadCare[] =>
  LOAD_CARE.filter(({ kinds }) => kinds.includes(kind));
