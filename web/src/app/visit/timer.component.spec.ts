import { TestBed } from '@angular/core/testing';
import { secondsLeft, TimerComponent } from './timer.component';

describe('secondsLeft', () => {
  const timer = { startedAt: '2026-06-15T10:00:00.000Z', seconds: 900 };
  const at = (time: string) => secondsLeft(timer, Date.parse(`2026-06-15T${time}Z`));

  it('counts from the stored instant, whoever looks and whenever', () => {
    expect(at('10:00:00.000')).toBe(900);
    expect(at('10:00:00.400')).toBe(900);
    expect(at('10:14:59.001')).toBe(1);
    expect(at('10:15:00.000')).toBe(0);
    expect(at('23:00:00.000')).toBe(0);
  });
});

describe('TimerComponent', () => {
  it('offers itself, and says when the time is up', () => {
    const fixture = TestBed.createComponent(TimerComponent);
    const begun: number[] = [];
    fixture.componentRef.setInput('wish', { minutes: 15, label: 'Soaking', optional: true });
    fixture.componentInstance.begun.subscribe((seconds) => begun.push(seconds));
    fixture.detectChanges();
    const host = fixture.nativeElement as HTMLElement;
    host.querySelector('button')!.click();
    expect(begun).toEqual([900]);
    fixture.componentRef.setInput('timer', { startedAt: '2020-01-01T00:00:00Z', seconds: 900 });
    fixture.detectChanges();
    expect(host.querySelector('[role="timer"]')!.textContent).toBe('0:00');
    expect(host.textContent).toContain('Soaking is done');
  });
});
