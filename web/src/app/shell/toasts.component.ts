import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { NgbToast } from '@ng-bootstrap/ng-bootstrap';
import { ToastsService, type Toast } from '../data/toasts.service';

@Component({
  selector: 'nc-toasts',
  imports: [NgbToast],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @for (toast of toasts.shown(); track toast.id) {
      <ngb-toast
        [autohide]="false"
        [class.problem]="toast.problem"
        (mouseenter)="toasts.hold(toast.id)"
        (mouseleave)="toasts.leave(toast.id)"
        (focusin)="toasts.hold(toast.id)"
        (focusout)="toasts.leave(toast.id)"
      >
        <div class="words">
          <span>{{ toast.text }}</span>
          @if (toast.action; as action) {
            <button type="button" class="btn btn-plain" (click)="act(toast)">
              {{ action.label }}
            </button>
          }
          <button
            type="button"
            class="btn-close"
            aria-label="Close this message"
            (click)="toasts.close(toast.id)"
          ></button>
        </div>
      </ngb-toast>
    }
  `,
  styles: `
    @use 'mixins' as *;

    :host {
      position: fixed;
      right: 1rem;
      bottom: 1rem;
      z-index: 15;
      display: grid;
      gap: 0.5rem;
      max-width: calc(100vw - 2rem);
    }

    ::ng-deep nc-toasts .toast {
      --bs-toast-bg: var(--ink);
      --bs-toast-color: var(--linen);
      --bs-toast-max-width: min(26rem, 100vw - 2rem);
      @include patch;
      font-size: 1rem;
    }

    .words {
      display: flex;
      align-items: center;
      gap: 0.75rem;
      font-weight: 550;
    }

    .words span {
      flex: 1;
    }

    .btn-plain {
      --bs-btn-color: var(--linen);
      --bs-btn-hover-color: var(--ink);
      --bs-btn-hover-bg: var(--linen);
      --bs-btn-active-color: var(--ink);
      --bs-btn-active-bg: var(--linen);
    }

    .btn-close {
      filter: invert(1);
    }

    :host-context([data-bs-theme='dark']) .btn-close {
      filter: none;
    }

    @media (max-width: 719px) {
      :host {
        bottom: calc(4.6rem + env(safe-area-inset-bottom));
        left: 0.8rem;
        right: 0.8rem;
      }

      ::ng-deep nc-toasts .toast {
        width: 100%;
      }

      /* Over what lies at the foot of the page, not on it: its main button stays free. */
      :host-context(body:has(.dock)) {
        bottom: calc(13.6rem + env(safe-area-inset-bottom));
      }

      .btn-plain {
        min-height: 44px;
      }
    }
  `,
})
export class ToastsComponent {
  protected readonly toasts = inject(ToastsService);

  protected act({ id, action }: Toast): void {
    this.toasts.close(id);
    action?.do();
  }
}
