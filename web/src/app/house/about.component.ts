import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { catchError, of } from 'rxjs';
import { AccessService } from '../data/access.service';
import type { ApiProblem } from '../data/api.service';
import { HouseNavComponent } from './house-nav.component';

/** What runs here, where the data is, and whose work it stands on. */
@Component({
  selector: 'nc-about',
  imports: [HouseNavComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h1>House</h1>
    <nc-house-nav />
    @if (problem(); as wrong) {
      <p class="field-problem" role="alert">{{ wrong.title }} {{ wrong.detail }}</p>
    }
    @if (about(); as it) {
      <section aria-labelledby="about-title">
        <h2 id="about-title">Needlecase {{ it.version }}</h2>
        <dl>
          @if (it.file) {
            <dt>Your data</dt>
            <dd>{{ it.file }}</dd>
          }
          @if (it.backups) {
            <dt>Its backups</dt>
            <dd>{{ it.backups }}</dd>
          }
          <dt>On this device</dt>
          <dd>
            the program, what was read last, and what is not sent yet; in this browser, for this
            address alone
          </dd>
        </dl>
        <p>
          All of it stays in your house: nothing is sent anywhere else, and nothing is fetched from
          anywhere else while it runs.
        </p>
        <p>
          It gives what is common practice. Your manuals, the local code and licensed trades come
          first.
        </p>
        <p><a href="/licences.txt">Whose work it stands on: the licences of all that ships</a></p>
        <p><a href="/api/openapi.json">For scripts of your own: the API</a></p>
      </section>
    }
  `,
  styles: `
    :host {
      display: block;
      max-width: 62rem;
    }

    h1 {
      font-size: 1.9rem;
    }

    h2 {
      font-size: 1.4rem;
    }

    section {
      max-width: 44rem;
    }

    dl {
      display: grid;
      grid-template-columns: max-content 1fr;
      gap: 0.3rem 1.2rem;
    }

    dd {
      margin: 0;
      overflow-wrap: anywhere;
    }

    @media (max-width: 500px) {
      dl {
        grid-template-columns: 1fr;
      }

      dd {
        margin-bottom: 0.5rem;
      }
    }
  `,
})
export class AboutComponent {
  readonly #loaded = toSignal(
    inject(AccessService)
      .about()
      .pipe(catchError((problem: ApiProblem) => of(problem))),
  );
  protected readonly about = computed(() => {
    const loaded = this.#loaded();
    return loaded && 'version' in loaded ? loaded : undefined;
  });
  protected readonly problem = computed(() => {
    const loaded = this.#loaded();
    return loaded && 'title' in loaded ? loaded : undefined;
  });
}
