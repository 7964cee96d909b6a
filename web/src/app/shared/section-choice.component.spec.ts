import { TestBed } from '@angular/core/testing';
import { SectionService } from '../data/section.service';
import { SectionChoiceComponent } from './section-choice.component';

const all = [{ id: 'Attic', due: 3 }, { id: 'Cellar', due: 0 }, { id: 'Cellar (2)' }];

describe('SectionChoiceComponent', () => {
  beforeEach(() => localStorage.clear());

  function shown(section: { id: string; all: typeof all } | undefined) {
    const fixture = TestBed.createComponent(SectionChoiceComponent);
    fixture.componentRef.setInput('section', section);
    fixture.detectChanges();
    return fixture.nativeElement as HTMLElement;
  }

  it('is not there in a house of usual size', () => {
    expect(shown(undefined).querySelector('select')).toBeNull();
  });

  it('says how much is due in each, and keeps what was chosen on this device', () => {
    const select = shown({ id: 'Cellar', all }).querySelector('select')!;
    expect([...select.options].map(({ text }) => text)).toEqual([
      'Attic: 3 due',
      'Cellar',
      'Cellar (2)',
    ]);
    expect(select.value).toBe('Cellar');
    expect(select.closest('label')!.textContent).toContain('Place');
    const sections = TestBed.inject(SectionService);
    expect(sections.asked()).toEqual({});
    select.value = 'Cellar (2)';
    select.dispatchEvent(new Event('change'));
    expect(sections.asked()).toEqual({ section: 'Cellar (2)' });
    TestBed.resetTestingModule();
    expect(TestBed.inject(SectionService).chosen()).toBe('Cellar (2)');
  });
});
