import { TestBed } from '@angular/core/testing';
import { GradePickerComponent } from './grade-picker.component';

describe('GradePickerComponent', () => {
  it('offers five grades in words and pictures, one of them chosen, and tells a new choice', () => {
    const fixture = TestBed.createComponent(GradePickerComponent);
    fixture.componentRef.setInput('grade', 2);
    const picked: number[] = [];
    fixture.componentInstance.pick.subscribe((grade) => picked.push(grade));
    fixture.detectChanges();
    const host = fixture.nativeElement as HTMLElement;
    const radios = [...host.querySelectorAll<HTMLInputElement>('input[type="radio"]')];
    expect(radios.map(({ checked }) => checked)).toEqual([false, false, true, false, false]);
    const names = [...host.querySelectorAll('.name')].map((name) => name.textContent);
    expect(names).toEqual(['clear', 'light', 'moderate', 'heavy', 'blocked']);
    const fluff = [...host.querySelectorAll('svg')].map(
      (svg) => svg.querySelectorAll('.fibre').length,
    );
    expect(fluff).toEqual([...fluff].sort((a, b) => a - b));
    radios[4]!.click();
    expect(picked).toEqual([4]);
  });
});
