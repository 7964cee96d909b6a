import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { RemindersService } from '../data/reminders.service';
import { fieldsOf } from '../shared/form-of';

/** Whether this device says by itself that something became due, and when it keeps quiet. */
@Component({
  selector: 'nc-reminders',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h3>On this device</h3>
    <p class="soft small">
      While Needlecase is open or comes to the front, at most once a day. A message that comes when
      it is closed would need a service outside of this house: there is none.
    </p>
    @if (!service.possible) {
      <p class="small">This browser cannot show messages here.</p>
    } @else if (service.setting().on) {
      <p class="small">
        It tells you, but not from {{ service.setting().from }} to {{ service.setting().to }}.
        @if (service.quietUntil(); as day) {
          Quiet until {{ day }}.
        }
      </p>
      <form (submit)="quiet($event)">
        <label for="nc-quiet-from">Quiet from</label>
        <input
          id="nc-quiet-from"
          name="from"
          type="time"
          class="form-control"
          [value]="service.setting().from"
        />
        <label for="nc-quiet-to">to</label>
        <input
          id="nc-quiet-to"
          name="to"
          type="time"
          class="form-control"
          [value]="service.setting().to"
        />
        <label for="nc-quiet-day">Nothing before (if you like)</label>
        <input
          id="nc-quiet-day"
          name="day"
          type="date"
          class="form-control"
          [value]="service.quietUntil() ?? ''"
        />
        <button class="btn btn-plain">Keep that</button>
      </form>
      <button type="button" class="btn btn-plain" (click)="service.turnOff()">
        Do not tell me
      </button>
    } @else {
      <button type="button" class="btn btn-plain" (click)="service.turnOn()">
        Tell me when something is due
      </button>
      @if (service.refused()) {
        <p class="field-problem" role="status">
          This browser was told not to show messages of this page: allow them in its settings.
        </p>
      }
    }
  `,
  styles: `
    h3 {
      font-size: 1.1rem;
      margin-top: 1.2rem;
    }
    form {
      display: grid;
      gap: 0.3rem 0.6rem;
      grid-template-columns: auto 1fr;
      margin-bottom: 0.5rem;
    }
    form .btn {
      grid-column: 1 / -1;
      justify-self: start;
    }
  `,
})
export class RemindersComponent {
  protected readonly service = inject(RemindersService);

  protected quiet(event: Event): void {
    const of = fieldsOf(event);
    this.service.keep({ from: of('from') || '21:00', to: of('to') || '08:00' });
    this.service.snooze(of('day'));
  }
}
