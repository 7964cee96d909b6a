import { TestBed } from '@angular/core/testing';
import { TraysComponent } from './trays.component';

describe('TraysComponent', () => {
  function count(trays: number, height?: number, units: 'metric' | 'us' = 'metric') {
    const fixture = TestBed.createComponent(TraysComponent);
    const counted: number[] = [];
    const measured: (number | undefined)[] = [];
    fixture.componentInstance.counted.subscribe((n) => counted.push(n));
    fixture.componentInstance.measured.subscribe((m) => measured.push(m));
    fixture.componentRef.setInput('trays', trays);
    fixture.componentRef.setInput('height', height);
    fixture.componentRef.setInput('units', units);
    fixture.detectChanges();
    const host = fixture.nativeElement as HTMLElement;
    const type = (text: string) => {
      const field = host.querySelector('input')!;
      field.value = text;
      field.dispatchEvent(new Event('input'));
      fixture.detectChanges();
    };
    return { host, counted, measured, type };
  }

  it('counts one more and one less, never below none', () => {
    const { host, counted } = count(0);
    const [less, more] = [...host.querySelectorAll('button')];
    more!.click();
    less!.click();
    expect(counted).toEqual([1, 0]);
  });

  it('tells how many trays are to come by the water at the glass', () => {
    const none = count(0).host;
    expect(none.textContent).toContain('A litre or so is normal');
    expect(none.querySelector('input')!.value).toBe('');
    expect(count(0, 0.15).host.textContent).toContain('About 18 L');
    expect(count(5, 0.15).host.textContent).toContain('About 7 to go.');
    expect(count(12, 0.15).host.textContent).toContain('That is all of it');
    expect(count(0, 0.15, 'us').host.textContent).toContain('About 4.7 gal');
  });

  it('takes the height in the unit shown, and says what it cannot take', () => {
    const metric = count(0);
    metric.type('15');
    expect(metric.measured).toEqual([0.15]);
    metric.type('80');
    expect(metric.measured).toEqual([0.15]);
    expect(metric.host.querySelector('[role=alert]')!.textContent).toContain('from 0 to 52 cm');
    metric.type('-3');
    metric.type('water');
    expect(metric.measured).toEqual([0.15]);
    metric.type('');
    expect(metric.measured).toEqual([0.15, undefined]);
    const us = count(0, undefined, 'us');
    us.type('6');
    expect(us.measured[0]).toBeCloseTo(0.1524, 6);
  });
});
