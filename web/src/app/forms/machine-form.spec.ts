import {
  check,
  hasDuct,
  hasHeater,
  MACHINE_KINDS,
  type Machine,
  type MachineDraft,
  FRONT_LOADERS,
} from '@needlecase/core';
import { draftOf, machineForm, withFittingRules } from './machine-form';
import { withoutVersion } from './onto';

describe('machine form', () => {
  it.each(MACHINE_KINDS)('makes a right draft of a %s, with only the features it has', (kind) => {
    const form = machineForm({ name: ' Washer ', kind, place: 'Cellar', loadsPerWeek: 3 });
    form.controls.elbows.setValue(2);
    form.controls.heater.setValue(2200);
    const draft = draftOf(form);
    expect(check('MachineDraft', draft)).toEqual([]);
    expect(draft.name).toBe('Washer');
    expect('elbows' in draft.features).toBe(hasDuct(kind));
    expect('heater' in draft.features).toBe(hasHeater(kind));
    expect('filterAccess' in draft.features).toBe(
      (FRONT_LOADERS as readonly string[]).includes(kind),
    );
  });

  it('gives back what it was filled with', () => {
    const known: MachineDraft = {
      name: 'Dryer',
      kind: 'vented-dryer',
      maker: 'Tarnhollow',
      place: 'Cellar',
      features: {
        energy: 'gas',
        ventPath: 'up',
        riser: 'yes',
        screenWell: 'no',
        blowerAccess: 'unknown',
        sensor: 'yes',
        stacked: 'no',
        room: 'heated',
        elbows: 2,
        heater: 2000,
      },
      habits: ['pets', 'softener'],
      loadsPerWeek: 4.5,
      inUseSince: '2024-05-01',
    };
    expect(draftOf(machineForm(known))).toEqual(known);
  });

  it('keeps own tasks and rules of a machine, as far as they still fit it', () => {
    const own = {
      id: 'own-1',
      name: 'Oil the hinge',
      station: 'gasket',
      every: 3,
      unit: 'months',
      minutes: 5,
      unplugged: false,
      steps: ['One drop.'],
    } as const;
    const washer: Machine = {
      id: 'x',
      version: 1,
      name: 'Washer',
      kind: 'front-load-washer',
      place: 'Cellar',
      features: {},
      habits: [],
      loadsPerWeek: 5,
      rules: { 'own-1': { off: true }, 'gasket-folds': { off: true } },
      ownTasks: [{ ...own, steps: [...own.steps] }],
    };
    const draft = draftOf(machineForm(washer), withoutVersion(washer));
    expect(withFittingRules(draft)).toMatchObject({
      rules: washer.rules!,
      ownTasks: [{ id: 'own-1' }],
    });
    const turned = withFittingRules({ ...draft, kind: 'top-load-washer' });
    expect(turned).not.toHaveProperty('ownTasks');
    expect(turned).not.toHaveProperty('rules');
  });

  it('does not erase what it does not know', () => {
    const later = {
      name: 'Dryer',
      kind: 'vented-dryer',
      place: 'Cellar',
      features: { energy: 'gas', elbows: 2, propane: 'yes' },
      habits: [],
      loadsPerWeek: 4,
      serial: 'K-1',
    } as unknown as MachineDraft;
    const form = machineForm(later);
    form.controls.elbows.setValue(null);
    const draft = draftOf(form, later);
    expect(draft).toMatchObject({ serial: 'K-1', features: { energy: 'gas', propane: 'yes' } });
    expect(draft.features).not.toHaveProperty('elbows');
  });

  it('lets a missing figure through, so that the check can say so', () => {
    const form = machineForm({ name: 'A', place: 'B' });
    form.controls.loadsPerWeek.setValue(null);
    expect(check('MachineDraft', draftOf(form))).toEqual([
      { field: 'loadsPerWeek', message: 'Give a number.' },
    ]);
  });
});
