import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { FormControl, FormGroup, ReactiveFormsModule } from '@angular/forms';
import type { Me } from '@needlecase/core/model/access';
import { catchError, of, type Observable } from 'rxjs';
import { AccessService } from '../data/access.service';
import type { ApiProblem } from '../data/api.service';
import { fromAddress } from '../data/moving';
import { OutboxService } from '../data/outbox.service';
import { PasskeysService, saidOfPasskey } from '../data/passkeys.service';
import { forgetAnswers, isSecure } from '../data/platform';
import { FieldDirective, FormProblems, ProblemComponent } from '../forms/problems';
import { SingleTaps } from '../shared/single-taps';
import { deviceName } from './device-name';

/** Where a device is let in: by a code, or on a shared computer by a person's pass phrase. */
@Component({
  selector: 'nc-pair',
  imports: [ReactiveFormsModule, FieldDirective, ProblemComponent],
  providers: [FormProblems],
  hostDirectives: [SingleTaps],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './pair.component.html',
  styleUrl: './pair.component.scss',
})
export class PairComponent {
  readonly #service = inject(AccessService);
  readonly #problems = inject(FormProblems);
  protected readonly passkeys = inject(PasskeysService);
  protected readonly secure = isSecure();
  protected readonly me = toSignal(
    this.#service.me().pipe(catchError(() => of(undefined as Me | undefined))),
  );
  protected readonly byPhrase = signal(false);
  protected readonly busy = signal(false);
  protected readonly failed = signal('');
  /** It is in already. */
  protected readonly known = computed(() => {
    const me = this.me();
    return me?.by === 'device' || me?.by === 'here' ? me : undefined;
  });

  readonly #brought = fromAddress(location.hash);
  protected readonly form = new FormGroup({
    code: new FormControl(this.#brought.code, { nonNullable: true }),
    name: new FormControl('', { nonNullable: true }),
    passphrase: new FormControl('', { nonNullable: true }),
    device: new FormControl(deviceName(navigator.userAgent), { nonNullable: true }),
  });

  constructor() {
    const outbox = inject(OutboxService);
    for (const one of this.#brought.waiting) void outbox.add(one);
    // A code is for one use, and no business of the history.
    if (location.hash) history.replaceState(history.state, '', location.pathname);
  }

  protected enter(): void {
    const { code, name, passphrase, device } = this.form.getRawValue();
    const empty = this.byPhrase()
      ? {
          name: name.trim() ? '' : 'Your name is needed.',
          passphrase: passphrase ? '' : 'It is needed.',
        }
      : { code: code.trim() ? '' : 'The code is needed. It has eight letters and figures.' };
    const missing = Object.entries({ ...empty, device: device.trim() ? '' : 'A name is needed.' })
      .filter(([, message]) => message)
      .map(([field, message]) => ({ field, message }));
    this.#problems.set(missing);
    if (missing.length) return this.#problems.show();
    this.#ask(
      this.byPhrase()
        ? this.#service.signIn({ name, passphrase, device })
        : this.#service.pair({ code, device }),
    );
  }

  /** On a computer that several share nothing that was read stays behind; what is not sent does. */
  protected signOut(): void {
    this.busy.set(true);
    this.failed.set('');
    this.#service.signOut().subscribe({
      next: () => void forgetAnswers().then(() => location.reload()),
      error: (problem: ApiProblem) => {
        this.busy.set(false);
        this.failed.set(`${problem.title} ${problem.detail}`);
      },
    });
  }

  /** By this device's own lock: no name, no phrase. */
  protected byKey(): void {
    const device = this.form.getRawValue().device.trim();
    if (!device) {
      this.#problems.set([{ field: 'device', message: 'A name is needed.' }]);
      return this.#problems.show();
    }
    this.busy.set(true);
    this.failed.set('');
    this.passkeys.signIn(device).subscribe({
      next: () => location.assign('/'),
      error: (error: unknown) => {
        this.busy.set(false);
        this.failed.set(saidOfPasskey(error));
      },
    });
  }

  #ask(asked: Observable<Me>): void {
    this.busy.set(true);
    this.failed.set('');
    asked.subscribe({
      // Loaded anew: everything that was refused is asked for again.
      next: () => location.assign('/'),
      error: (problem: ApiProblem) => {
        this.busy.set(false);
        this.#problems.set(problem.errors);
        if (problem.errors.length) this.#problems.show();
        else this.failed.set(`${problem.title} ${problem.detail}`);
      },
    });
  }
}
