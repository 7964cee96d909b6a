import { TestBed } from '@angular/core/testing';
import { ConflictComponent } from './conflict.component';

describe('ConflictComponent', () => {
  it('shows only what differs, with both versions, and gives the choice', () => {
    const fixture = TestBed.createComponent(ConflictComponent);
    const mine = {
      name: 'Pot washer',
      place: 'Studio',
      features: { room: 'heated' },
      habits: ['pets'],
    };
    const theirs = {
      id: 'x',
      version: 4,
      name: 'Apron washer',
      place: 'Studio',
      features: { room: 'unheated' },
      habits: [],
    };
    fixture.componentRef.setInput('mine', mine);
    fixture.componentRef.setInput('theirs', theirs);
    const chosen: string[] = [];
    fixture.componentInstance.choose.subscribe((which) => chosen.push(which));
    fixture.detectChanges();
    const host = fixture.nativeElement as HTMLElement;
    const rows = [...host.querySelectorAll('tbody tr')].map((row) =>
      [...row.children].map((cell) => cell.textContent.trim()),
    );
    expect(rows).toEqual([
      ['name', 'Apron washer', 'Pot washer'],
      ['features, room', 'unheated', 'heated'],
      ['habits', '(none)', 'pets'],
    ]);
    for (const button of host.querySelectorAll('button')) button.click();
    expect(chosen).toEqual(['mine', 'theirs']);
  });
});
