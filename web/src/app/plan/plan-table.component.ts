import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import { sayShort, type ShownVisit } from './shown';

/** The same year as a plain table. */
@Component({
  selector: 'nc-plan-table',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <table>
      <caption class="visually-hidden">
        The visits of the year ahead
      </caption>
      <thead>
        <tr>
          <th scope="col">Day</th>
          <th scope="col">Place</th>
          <th scope="col">Work</th>
          <th scope="col">Minutes</th>
          <th scope="col">Who</th>
        </tr>
      </thead>
      <tbody>
        @for (visit of visits(); track visit.key) {
          <tr [class.aside]="visit.planned?.done || visit.planned?.skipped !== undefined">
            <th scope="row">
              <button type="button" class="btn btn-link" (click)="choose.emit(visit.key)">
                {{ sayShort(visit.day) }}
              </button>
            </th>
            <td>{{ visit.place }}</td>
            <td>{{ work(visit) }}</td>
            <td class="number">{{ visit.minutes }}</td>
            <td>
              {{ visit.who ?? '' }}{{ visit.held ? (visit.who ? ', held' : 'held') : '' }}
              {{ visit.planned?.done ? 'done' : '' }}
              {{
                visit.planned?.skipped !== undefined ? 'left out: ' + visit.planned?.skipped : ''
              }}
            </td>
          </tr>
        }
      </tbody>
    </table>
  `,
  styles: `
    :host {
      display: block;
      overflow-x: auto;
    }
    table {
      border-collapse: collapse;
      width: 100%;
    }
    th,
    td {
      border-bottom: 1px dashed var(--seam);
      padding: 0.15rem 0.6rem 0.15rem 0;
      text-align: start;
      vertical-align: baseline;
    }
    th[scope='row'] {
      font-weight: 500;
      white-space: nowrap;
    }
    .btn {
      padding: 0;
    }
    .number {
      text-align: end;
    }
    .aside td {
      color: var(--ink-soft);
    }
  `,
})
export class PlanTableComponent {
  readonly visits = input.required<readonly ShownVisit[]>();
  readonly choose = output<string>();
  protected readonly sayShort = sayShort;

  protected work({ tasks }: ShownVisit): string {
    return tasks.map(({ name, machine }) => `${name} (${machine})`).join('; ');
  }
}
