import { ChangeDetectionStrategy, Component, signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { SingleTaps } from './single-taps';

@Component({
  selector: 'nc-closing',
  hostDirectives: [SingleTaps],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @for (one of left(); track one) {
      <button type="button" (click)="take(one)">{{ one }}</button>
    }
    <input type="checkbox" (click)="ticks = ticks + 1" />
  `,
})
class ClosingComponent {
  readonly left = signal(['a', 'b', 'c']);
  taken: string[] = [];
  ticks = 0;

  take(one: string): void {
    this.taken.push(one);
    this.left.update((all) => all.filter((other) => other !== one));
  }
}

describe('SingleTaps', () => {
  it('lets the second of a double tap hit nothing, and what is no button alone', () => {
    const fixture = TestBed.createComponent(ClosingComponent);
    fixture.detectChanges();
    const host = fixture.nativeElement as HTMLElement;
    const click = (selector: string, detail: number) => {
      host
        .querySelector(selector)!
        .dispatchEvent(new MouseEvent('click', { detail, bubbles: true }));
      fixture.detectChanges();
    };
    click('button', 1);
    click('button', 2);
    expect(fixture.componentInstance.taken).toEqual(['a']);
    click('button', 1);
    // By key a click has no count.
    click('button', 0);
    expect(fixture.componentInstance.taken).toEqual(['a', 'b', 'c']);
    click('input', 2);
    expect(fixture.componentInstance.ticks).toBe(1);
  });
});
