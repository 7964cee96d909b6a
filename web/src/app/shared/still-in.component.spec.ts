import { TestBed } from '@angular/core/testing';
import { ACTIVES, PRODUCTS, ruleOf, type ChemicalEvent } from '@needlecase/core';
import { StillInComponent } from './still-in.component';

const put = (id: string, station?: string): ChemicalEvent => {
  const { actives } = PRODUCTS.find((one) => one.id === id)!;
  const at = Date.parse('2026-06-15T10:00:00Z');
  return {
    entryId: `e-${id}`,
    kind: 'chemical',
    at,
    product: id,
    actives: [...actives],
    ...(station ? { station } : {}),
  };
};

function draw(present: ChemicalEvent[], dryer = false) {
  const fixture = TestBed.createComponent(StillInComponent);
  fixture.componentRef.setInput('machine', 'Cellar washer');
  fixture.componentRef.setInput('present', present);
  fixture.componentRef.setInput('dryer', dryer);
  let rinses = 0;
  fixture.componentInstance.rinsed.subscribe(() => (rinses += 1));
  fixture.detectChanges();
  const host = fixture.nativeElement as HTMLElement;
  return {
    text: () => host.textContent.replaceAll(/\s+/g, ' ').trim(),
    button: () => host.querySelector('button'),
    rinses: () => rinses,
  };
}

describe('what is still in a machine', () => {
  it('is not spoken of where nothing is', () => {
    const shown = draw([]);
    expect(shown.text()).toBe('');
    expect(shown.button()).toBeNull();
  });

  it('is named with its station, and with what must not follow it', () => {
    const { text } = draw([put('bleach', 'gasket')]);
    expect(text()).toContain('Not rinsed out of Cellar washer yet:');
    expect(text()).toContain('chlorine bleach (door gasket)');
    expect(text()).toMatch(/nothing with .*vinegar.* goes in/);
  });

  it('is wiped off a dryer, rinsed out of a washer', () => {
    expect(draw([put('vinegar')], true).button()!.textContent).toContain('wiped off');
    expect(draw([put('vinegar')], false).button()!.textContent).toContain('full rinse');
  });

  it('is gone once somebody says so, by one tap', () => {
    const shown = draw([put('vinegar')]);
    shown.button()!.click();
    expect(shown.rinses()).toBe(1);
  });

  it.each(PRODUCTS.map(({ id }) => id))('warns after %s exactly where a rule forbids', (id) => {
    const { text } = draw([put(id)]);
    const { actives } = PRODUCTS.find((one) => one.id === id)!;
    const forbidden = ACTIVES.some((other) => actives.some((one) => ruleOf(one, other)));
    expect(text().includes('Until then nothing with')).toBe(forbidden);
    expect(text()).not.toMatch(/undefined|nothing with goes|, goes/);
  });
});
