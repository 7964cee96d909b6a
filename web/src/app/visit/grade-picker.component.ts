import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import { GRADE_NAMES, GRADES, type Grade } from '@needlecase/core';
import { fibresFor } from './fibres';

const MEANING: Record<Grade, string> = {
  0: 'as good as new',
  1: 'a little here and there',
  2: 'about a third',
  3: 'most of it',
  4: 'nothing gets through',
};

/** How dirty it was, on a scale of five drawn meshes. */
@Component({
  selector: 'nc-grade-picker',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <fieldset>
      <legend>How did it look when you opened it?</legend>
      <div class="grades">
        @for (one of grades; track one.grade) {
          <label [class.chosen]="one.grade === grade()">
            <input
              type="radio"
              name="grade"
              class="visually-hidden"
              [checked]="one.grade === grade()"
              (change)="pick.emit(one.grade)"
            />
            <svg viewBox="-34 -34 68 68" aria-hidden="true">
              <circle class="mesh" r="30" />
              <path
                class="weft"
                d="M-28-10H28M-30 0H30M-28 10H28M-22-20H22M-22 20H22M-10-28V28M0-30V30M10-28V28M-20-22V22M20-22V22"
              />
              @for (fibre of one.fibres; track $index) {
                <path class="fibre" [attr.d]="fibre" />
              }
            </svg>
            <span class="name">{{ one.name }}</span>
            <span class="soft small meaning">{{ one.meaning }}</span>
          </label>
        }
      </div>
    </fieldset>
  `,
  styleUrl: './grade-picker.component.scss',
})
export class GradePickerComponent {
  readonly grade = input<Grade>();
  readonly pick = output<Grade>();
  protected readonly grades = GRADES.map((grade) => ({
    grade,
    name: GRADE_NAMES[grade],
    meaning: MEANING[grade],
    fibres: fibresFor(grade),
  }));
}
