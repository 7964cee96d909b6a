import { ChangeDetectionStrategy, Component, signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { SelectComponent } from './select.component';

@Component({
  imports: [SelectComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `<select nc-select [options]="options" [(chosen)]="chosen" [say]="say"></select>`,
})
class HostComponent {
  readonly options = [undefined, 40, 60, 90] as const;
  readonly chosen = signal<undefined | 40 | 60 | 90>(60);
  readonly say = (one: number | undefined) => (one === undefined ? 'not known' : `${one} °C`);
}

describe('a select', () => {
  const show = () => {
    const fixture = TestBed.createComponent(HostComponent);
    fixture.detectChanges();
    const select = (fixture.nativeElement as HTMLElement).querySelector('select')!;
    const choose = (value: string) => {
      select.value = value;
      select.dispatchEvent(new Event('change'));
      fixture.detectChanges();
    };
    return { host: fixture.componentInstance, select, choose, fixture };
  };

  it('shows the words of each choice, the chosen one chosen', () => {
    const { select } = show();
    const words = [...select.options].map(({ textContent }) => textContent?.trim());
    expect(words).toEqual(['not known', '40 °C', '60 °C', '90 °C']);
    expect(select.value).toBe('60');
  });

  it('keeps the type of what is chosen, nothing included', () => {
    const { host, choose } = show();
    choose('90');
    expect(host.chosen()).toBe(90);
    choose('');
    expect(host.chosen()).toBeUndefined();
  });

  it('follows what is chosen elsewhere', () => {
    const { host, select, fixture } = show();
    host.chosen.set(40);
    fixture.detectChanges();
    expect(select.value).toBe('40');
  });
});
