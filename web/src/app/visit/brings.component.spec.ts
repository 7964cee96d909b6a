import { TestBed } from '@angular/core/testing';
import { provideRouter } from '@angular/router';
import type { Brought, ChemicalEvent } from '@needlecase/core';
import { of } from 'rxjs';
import { BenchService } from '../data/bench.service';
import { BringsComponent } from './brings.component';

const bleach: ChemicalEvent = {
  entryId: 'c1',
  at: Date.parse('2026-06-15T10:00:00Z'),
  kind: 'chemical',
  product: 'mould-bleach',
  actives: ['hypochlorite'],
};

describe('BringsComponent', () => {
  function ask(present: ChemicalEvent[], brought?: Brought, always?: true) {
    Object.defineProperty(Element.prototype, 'scrollIntoView', {
      value: () => undefined,
      configurable: true,
    });
    TestBed.configureTestingModule({
      providers: [
        provideRouter([]),
        {
          provide: BenchService,
          useValue: {
            bench$: of({ value: { household: { units: 'us', numbers: { poison: '555 0123' } } } }),
          },
        },
      ],
    });
    const fixture = TestBed.createComponent(BringsComponent);
    const used: string[] = [];
    const rinsed: number[] = [];
    fixture.componentInstance.used.subscribe((product) => used.push(product));
    fixture.componentInstance.rinsed.subscribe(() => rinsed.push(1));
    const products = ['vinegar', 'cleaner-mild', 'mould-bleach'];
    fixture.componentRef.setInput('brings', {
      ask: 'What goes in?',
      products,
      ...(always ? { always } : {}),
    });
    fixture.componentRef.setInput('present', present);
    fixture.componentRef.setInput('brought', brought);
    fixture.componentRef.setInput('products', ['cleaner-mild', 'vinegar']);
    fixture.detectChanges();
    const host = fixture.nativeElement as HTMLElement;
    const tap = (words: string) => {
      const button = [...host.querySelectorAll('button')].find(({ textContent }) =>
        textContent.includes(words),
      )!;
      button.click();
      fixture.detectChanges();
    };
    return { host, tap, used, rinsed };
  }

  it('notes what is used where nothing stands against it', () => {
    const { host, tap, used } = ask([]);
    expect(host.textContent).toContain('Nothing');
    expect(host.querySelector('.mark')!.closest('button')!.textContent).toContain('with neither');
    tap('Vinegar');
    expect(used).toEqual(['vinegar']);
    expect(host.querySelector('[role=alert]')).toBeNull();
  });

  it('stops what must not meet, says why and what to do, and lets go after a rinse', () => {
    const { host, tap, used, rinsed } = ask([bleach]);
    tap('Vinegar');
    expect(used).toEqual([]);
    const alert = host.querySelector('[role=alert]')!.textContent;
    expect(alert).toContain('it gives chlorine gas');
    expect(alert).toContain('poison centre');
    // Whom to call, ready to be dialled: the household's own, and where it keeps none the country's.
    const dials = [...host.querySelectorAll<HTMLAnchorElement>('[href^=tel]')];
    expect(dials.map(({ href }) => href)).toEqual(['tel:5550123', 'tel:911']);
    tap('with neither');
    expect(used).toEqual(['cleaner-mild']);
    tap('Vinegar');
    tap('A full rinse has run');
    expect(rinsed).toEqual([1]);
    expect(host.querySelector('[role=alert]')).toBeNull();
  });

  it('shows what was noted, and that it can be taken back', () => {
    const { host } = ask([], { product: 'vinegar', at: '2026-06-15T10:00:00Z', entryId: 'e1' });
    expect(host.textContent).toContain('vinegar');
    expect(host.textContent).toContain('I did not use it');
    expect(host.querySelectorAll('.choice')).toHaveLength(0);
  });

  it('does not offer nothing where something is used in any case', () => {
    const { host } = ask([], undefined, true);
    const names = [...host.querySelectorAll('.choice b')].map(({ textContent }) => textContent);
    expect(names).not.toContain('Nothing');
  });

  it('tells what whoever uses it has to know, once it is chosen', () => {
    const { host } = ask([], { product: 'bleach' } as Brought);
    expect(host.querySelector('.care')!.textContent).toMatch(/Plain, 5 to 8 %.*goggles/);
  });
});
