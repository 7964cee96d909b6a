import { TestBed } from '@angular/core/testing';
import type { Used } from '@needlecase/core';
import { EndingComponent, type TaskEnd } from './ending.component';

const end = (change: Partial<TaskEnd> = {}): TaskEnd => ({
  key: 'm1/pump-filter',
  name: 'Clean the pump filter',
  machine: 'Cellar washer',
  outcome: 'cleaned',
  record: {},
  graded: true,
  uses: [
    { supply: 'dish-soap', amount: 10, share: 1, expected: 10 },
    { supply: 'vinegar', amount: 250, share: 0.3, expected: 75 },
  ],
  used: [{ supply: 'dish-soap', amount: 10 }],
  ...change,
});

function draw(one: TaskEnd) {
  const said: Used[][] = [];
  const fixture = TestBed.createComponent(EndingComponent);
  fixture.componentRef.setInput('ends', [one]);
  fixture.componentRef.setInput('leftOpen', []);
  fixture.componentInstance.used.subscribe(({ used }) => said.push(used));
  fixture.detectChanges();
  const host = fixture.nativeElement as HTMLElement;
  const boxes = [...host.querySelectorAll<HTMLInputElement>('.used input')];
  return { host, boxes, said };
}

describe('EndingComponent', () => {
  it('takes what is always needed as used, and asks for the rest', () => {
    const { host, boxes, said } = draw(end());
    expect(boxes.map(({ checked }) => checked)).toEqual([true, false]);
    expect(host.querySelector('.used')!.textContent).toContain('Household vinegar, 5 %, 250 ml');
    boxes[1]!.click();
    expect(said).toEqual([
      [
        { supply: 'dish-soap', amount: 10 },
        { supply: 'vinegar', amount: 250 },
      ],
    ]);
  });

  it('takes the person’s word over the usual, to the last drop', () => {
    const { boxes, said } = draw(end({ used: [{ supply: 'vinegar', amount: 100 }] }));
    expect(boxes.map(({ checked }) => checked)).toEqual([false, true]);
    boxes[1]!.click();
    expect(said).toEqual([[]]);
  });

  it('asks for nothing used where nothing was done, and for no grade where there is none', () => {
    expect(draw(end({ outcome: 'skipped' })).boxes).toEqual([]);
    TestBed.resetTestingModule();
    const { host } = draw(end({ graded: false, uses: [] }));
    expect(host.textContent).not.toContain('How it looked');
    expect(host.textContent).not.toContain('the interval learns nothing');
  });
});
