import { ChangeDetectionStrategy, Component } from '@angular/core';

/** Shown as long as a sensor is listened to: a dot that beats, and what goes on. */
@Component({
  selector: 'nc-recording',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `<p role="status"><i aria-hidden="true"></i> <ng-content /></p>`,
  styles: `
    i {
      animation: beats 1s infinite alternate;
      background: var(--due);
      border-radius: 50%;
      display: inline-block;
      height: 0.8rem;
      width: 0.8rem;
    }
    @keyframes beats {
      to {
        opacity: 0.4;
      }
    }
  `,
})
export class RecordingComponent {}
