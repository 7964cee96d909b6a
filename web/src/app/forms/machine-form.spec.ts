import { check, MACHINE_KINDS, type MachineDraft } from '@needlecase/core';
import { draftOf, machineForm } from './machine-form';

describe('machine form', () => {
  it.each(MACHINE_KINDS)('makes a right draft of a %s, with only the features it has', (kind) => {
    const form = machineForm({ name: ' Washer ', kind, place: 'Cellar', loadsPerWeek: 3 });
    form.controls.elbows.setValue(2);
    const draft = draftOf(form);
    expect(check('MachineDraft', draft)).toEqual([]);
    expect(draft.name).toBe('Washer');
    expect('elbows' in draft.features).toBe(kind === 'vented-dryer');
    expect('filterAccess' in draft.features).toBe(kind === 'front-load-washer');
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
        stacked: 'no',
        room: 'heated',
        elbows: 2,
      },
      habits: ['pets', 'softener'],
      loadsPerWeek: 4.5,
    };
    expect(draftOf(machineForm(known))).toEqual(known);
  });

  it('lets a missing figure through, so that the check can say so', () => {
    const form = machineForm({ name: 'A', place: 'B' });
    form.controls.loadsPerWeek.setValue(null);
    expect(check('MachineDraft', draftOf(form))).toEqual([
      { field: 'loadsPerWeek', message: 'Give a number.' },
    ]);
  });
});
