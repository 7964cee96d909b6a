import { FormControl, FormGroup } from '@angular/forms';
import {
  FEATURE_QUESTIONS,
  FEATURES,
  HABIT_QUESTIONS,
  HABITS,
  stationsOf,
  tasksOf,
  type FeatureId,
  type HabitId,
  type Machine,
  type MachineDraft,
  type MachineKind,
  type SchoolId,
} from '@needlecase/core';

/** Kinds whose heater's power counts for how long a load takes. */
export const HEATED: readonly MachineKind[] = ['vented-dryer', 'condenser-dryer'];
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
    FEATURE_QUESTIONS.find((question) => question.id === id)!.answers[0]!.value;
  return new FormGroup<MachineControls>({
    name: text(known.name ?? ''),
    kind: new FormControl<MachineKind>(known.kind ?? 'front-load-washer', { nonNullable: true }),
    maker: text(known.maker ?? ''),
    place: text(known.place ?? ''),
    elbows: new FormControl(features.elbows ?? null),
    heater: new FormControl(features.heater ?? null),
    loadsPerWeek: new FormControl(known.loadsPerWeek ?? 5),
    inUseSince: text(known.inUseSince ?? ''),
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

/** What a form says, with only the questions that its kind of machine is asked. */
export function draftOf(form: MachineForm): MachineDraft {
  const { name, kind, maker, place, elbows, heater, school, features, habits } = form.getRawValue();
  const { loadsPerWeek, inUseSince } = form.getRawValue();
  const asked = FEATURE_QUESTIONS.filter(({ kinds }) => kinds.includes(kind));
  const answers = Object.fromEntries(asked.map(({ id }) => [id, features[id]]));
  const hasElbows = kind === 'vented-dryer' && elbows !== null;
  const hasHeater = HEATED.includes(kind) && heater !== null;
  return {
    name: name.trim(),
    kind,
    ...(maker.trim() ? { maker: maker.trim() } : {}),
    place: place.trim(),
    features: {
      ...answers,
      ...(hasElbows ? { elbows } : {}),
      ...(hasHeater ? { heater } : {}),
    },
    habits: HABIT_QUESTIONS.filter(({ id, kinds }) => kinds.includes(kind) && habits[id]).map(
      ({ id }) => id,
    ),
    // A missing figure goes out as it is, so that the check can say so beside the field.
    loadsPerWeek: loadsPerWeek as number,
    ...(school ? { school } : {}),
    ...(inUseSince ? { inUseSince } : {}),
  };
}

/** A draft with the rules and own tasks of the machine it changes, as far as they still fit it. */
export function withRules(draft: MachineDraft, machine: Machine | undefined): MachineDraft {
  const stations = new Set(stationsOf(draft).map(({ id }) => id));
  const ownTasks = (machine?.ownTasks ?? []).filter(({ station }) => stations.has(station));
  const whole = ownTasks.length ? { ...draft, ownTasks } : draft;
  const tasks = new Set(tasksOf(whole).map(({ id }) => id));
  const rules = Object.entries(machine?.rules ?? {}).filter(([id]) => tasks.has(id));
  return rules.length ? { ...whole, rules: Object.fromEntries(rules) } : whole;
}

/** A stored machine without what the server adds. */
export function withoutVersion(machine: Machine): MachineDraft {
  const { id: _id, version: _version, ...draft } = machine;
  return draft;
}
