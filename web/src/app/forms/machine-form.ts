import { FormControl, FormGroup } from '@angular/forms';
import {
  FEATURE_QUESTIONS,
  FEATURES,
  HABIT_QUESTIONS,
  HABITS,
  hasDuct,
  hasHeater,
  stationsOf,
  tasksOf,
  type FeatureId,
  type Features,
  type HabitId,
  type MachineDraft,
  type MachineKind,
  type SchoolId,
} from '@needlecase/core';
import { onto } from './onto';

const FEATURE_IDS = Object.keys(FEATURES) as FeatureId[];

export interface MachineControls {
  name: FormControl<string>;
  kind: FormControl<MachineKind>;
  maker: FormControl<string>;
  place: FormControl<string>;
  elbows: FormControl<number | null>;
  /** W. */
  heater: FormControl<number | null>;
  loadsPerWeek: FormControl<number | null>;
  /** Calendar date; empty where it is not known. */
  inUseSince: FormControl<string>;
  /** What the papers say; empty where it is not known. */
  identity: FormGroup<{
    model: FormControl<string>;
    serial: FormControl<string>;
    boughtOn: FormControl<string>;
    warrantyUntil: FormControl<string>;
    price: FormControl<number | null>;
    hosesSince: FormControl<string>;
    gasketSince: FormControl<string>;
  }>;
  /** Empty: the household's. */
  school: FormControl<SchoolId | ''>;
  features: FormGroup<Record<FeatureId, FormControl<string>>>;
  habits: FormGroup<Record<HabitId, FormControl<boolean>>>;
}

export type MachineForm = FormGroup<MachineControls>;

const text = (value: string) => new FormControl(value, { nonNullable: true });

/** A form for one machine, filled from what is known. */
export function machineForm(known: Partial<MachineDraft> = {}): MachineForm {
  const features = known.features ?? {};
  const first = (id: FeatureId) =>
    FEATURE_QUESTIONS.find((question) => question.id === id)?.answers[0]!.value ?? 'unknown';
  return new FormGroup<MachineControls>({
    name: text(known.name ?? ''),
    kind: new FormControl<MachineKind>(known.kind ?? 'front-load-washer', { nonNullable: true }),
    maker: text(known.maker ?? ''),
    place: text(known.place ?? ''),
    elbows: new FormControl(features.elbows ?? null),
    heater: new FormControl(features.heater ?? null),
    loadsPerWeek: new FormControl(known.loadsPerWeek ?? 5),
    inUseSince: text(known.inUseSince ?? ''),
    identity: new FormGroup({
      model: text(known.identity?.model ?? ''),
      serial: text(known.identity?.serial ?? ''),
      boughtOn: text(known.identity?.boughtOn ?? ''),
      warrantyUntil: text(known.identity?.warrantyUntil ?? ''),
      price: new FormControl(known.identity?.price ?? null),
      hosesSince: text(known.identity?.hosesSince ?? ''),
      gasketSince: text(known.identity?.gasketSince ?? ''),
    }),
    school: new FormControl<SchoolId | ''>(known.school ?? '', { nonNullable: true }),
    features: new FormGroup(
      Object.fromEntries(FEATURE_IDS.map((id) => [id, text(features[id] ?? first(id))])) as Record<
        FeatureId,
        FormControl<string>
      >,
    ),
    habits: new FormGroup(
      Object.fromEntries(
        HABITS.map((id) => [
          id,
          new FormControl(known.habits?.includes(id) ?? false, { nonNullable: true }),
        ]),
      ) as Record<HabitId, FormControl<boolean>>,
    ),
  });
}

/** What the form asks; everything else of a machine is not its business. */
const KNOWS = [
  'name',
  'kind',
  'maker',
  'place',
  'features',
  'habits',
  'loadsPerWeek',
  'school',
  'inUseSince',
  'identity',
] as const satisfies readonly (keyof MachineDraft)[];
const FEATURES_KNOWN = [...FEATURE_IDS, 'elbows', 'heater'] as const;

/**
 * What a form says, with only the questions that its kind of machine is asked.
 * @param stored the machine that it changes: what the form does not ask stays
 */
export function draftOf(form: MachineForm, stored?: MachineDraft): MachineDraft {
  const { name, kind, maker, place, elbows, heater, school, features, habits } = form.getRawValue();
  const { loadsPerWeek, inUseSince, identity: papers } = form.getRawValue();
  const identity = Object.fromEntries(
    Object.entries(papers).flatMap(([name, value]) => {
      const told = typeof value === 'string' ? value.trim() : value;
      return told === '' || told === null ? [] : [[name, told]];
    }),
  ) as MachineDraft['identity'] & object;
  const asked = FEATURE_QUESTIONS.filter(({ kinds }) => kinds.includes(kind));
  const answers = Object.fromEntries(asked.map(({ id }) => [id, features[id]]));
  const before = stored?.features;
  // Whether the duct climbs is said by which way it goes; what was said otherwise before stays while that does.
  const riser =
    before?.riser !== undefined && before.ventPath === features.ventPath
      ? before.riser
      : (({ up: 'yes', unknown: 'unknown' } as const)[features.ventPath] ?? 'no');
  return onto(stored, KNOWS, {
    name: name.trim(),
    kind,
    ...(maker.trim() ? { maker: maker.trim() } : {}),
    place: place.trim(),
    features: onto<Features>(stored?.features, FEATURES_KNOWN, {
      ...answers,
      ...(hasDuct(kind) ? { riser } : {}),
      ...(hasDuct(kind) && elbows !== null ? { elbows } : {}),
      ...(hasHeater(kind) && heater !== null ? { heater } : {}),
    }),
    habits: HABIT_QUESTIONS.filter(({ id, kinds }) => kinds.includes(kind) && habits[id]).map(
      ({ id }) => id,
    ),
    // A missing figure goes out as it is, so that the check can say so beside the field.
    loadsPerWeek: loadsPerWeek as number,
    ...(school ? { school } : {}),
    ...(inUseSince ? { inUseSince } : {}),
    ...(Object.keys(identity).length ? { identity } : {}),
  });
}

/** A draft with its rules and own tasks as far as they fit its kind and how it is built. */
export function withFittingRules({
  rules: allRules = {},
  ownTasks: allOwn = [],
  ...draft
}: MachineDraft): MachineDraft {
  const stations = new Set(stationsOf(draft).map(({ id }) => id));
  const ownTasks = allOwn.filter(({ station }) => stations.has(station));
  const whole = ownTasks.length ? { ...draft, ownTasks } : draft;
  const tasks = new Set(tasksOf(whole).map(({ id }) => id));
  const rules = Object.entries(allRules).filter(([id]) => tasks.has(id));
  return rules.length ? { ...whole, rules: Object.fromEntries(rules) } : whole;
}
