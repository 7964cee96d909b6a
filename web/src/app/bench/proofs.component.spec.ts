import { TestBed } from '@angular/core/testing';
import { provideRouter } from '@angular/router';
import type { ProofQuestion } from '@needlecase/core';
import { OutboxService, type Waiting } from '../data/outbox.service';
import { ProofsComponent } from './proofs.component';

const question = (change: Partial<ProofQuestion> = {}): ProofQuestion => ({
  machineId: 'm1',
  task: 'dispenser',
  name: 'Clean the dispenser',
  station: 'dispenser',
  step: 'flush',
  do: 'After the next rinse look into the drawer.',
  state: 'ask',
  since: Date.parse('2026-06-15T10:00:00Z'),
  ...change,
});

describe('ProofsComponent', () => {
  let kept: Waiting[];
  function show(...questions: ProofQuestion[]) {
    kept = [];
    const outbox = { add: (one: Waiting) => Promise.resolve(void kept.push(one)) };
    TestBed.configureTestingModule({
      providers: [provideRouter([]), { provide: OutboxService, useValue: outbox }],
    });
    const fixture = TestBed.createComponent(ProofsComponent);
    const again: ProofQuestion[] = [];
    fixture.componentInstance.again.subscribe((one) => again.push(one));
    fixture.componentRef.setInput('questions', questions);
    fixture.componentRef.setInput('nameOf', () => 'Cellar washer');
    fixture.detectChanges();
    const host = fixture.nativeElement as HTMLElement;
    const tap = (words: string) => {
      [...host.querySelectorAll('button')]
        .find(({ textContent }) => textContent.includes(words))!
        .click();
      fixture.detectChanges();
    };
    return { host, tap, again };
  }

  it.each<[string, string]>([
    ['It is right', 'good'],
    ['It is not right', 'bad'],
    ['Ask again later', 'planned'],
  ])('notes “%s” as %s, once, and asks no more', (words, result) => {
    const { host, tap } = show(question());
    tap(words);
    expect(kept).toMatchObject([
      { kind: 'proof', machineId: 'm1', task: 'dispenser', step: 'flush', result, source: 'bench' },
    ]);
    expect(host.querySelectorAll('section')).toHaveLength(0);
  });

  it('offers the work once more, or another cause, where it did not hold', () => {
    const one = question({ state: 'bad' });
    const { host, tap, again } = show(one);
    expect(host.textContent).toContain('It did not hold');
    expect(host.querySelector('a')!.getAttribute('href')).toBe(
      '/trouble?machine=m1&station=dispenser',
    );
    tap('Do it again now');
    expect(again).toEqual([one]);
    expect(kept).toEqual([]);
  });
});
