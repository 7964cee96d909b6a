import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { differing } from '@needlecase/core/formats/differing';

/** Both versions of a record that was changed elsewhere, side by side; the person chooses. */
@Component({
  selector: 'nc-conflict',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <section role="alertdialog" aria-labelledby="both-title">
      <h3 id="both-title">This was changed elsewhere in the meantime</h3>
      <p>Nothing was overwritten. Choose what holds.</p>
      <table>
        <thead>
          <tr>
            <th scope="col"></th>
            <th scope="col">Stored now</th>
            <th scope="col">Yours</th>
          </tr>
        </thead>
        <tbody>
          @for (row of rows(); track row.field) {
            <tr>
              <th scope="row">{{ row.field }}</th>
              <td>{{ row.theirs }}</td>
              <td>{{ row.mine }}</td>
            </tr>
          }
        </tbody>
      </table>
      <button type="button" class="btn btn-thread" (click)="choose.emit('mine')">Keep yours</button>
      <button type="button" class="btn btn-plain" (click)="choose.emit('theirs')">
        Take what is stored
      </button>
    </section>
  `,
  styles: `
    section {
      border: 2px dashed var(--due);
      border-radius: 0.9rem;
      padding: 0.9rem 1.1rem;
      margin: 0.8rem 0;
    }

    h3 {
      font-size: 1.15rem;
    }

    table {
      margin-bottom: 0.8rem;
    }

    th,
    td {
      padding: 0.2rem 1.2rem 0.2rem 0;
      text-align: left;
    }

    .btn {
      margin-right: 0.6rem;
    }
  `,
})
export class ConflictComponent {
  readonly mine = input.required<object>();
  readonly theirs = input.required<object>();
  readonly choose = output<'mine' | 'theirs'>();

  /** Only what differs. */
  protected readonly rows = computed(() =>
    differing(this.mine(), this.theirs(), ['id', 'version']).map(({ name, ours, theirs }) => ({
      field: name,
      mine: ours || '(none)',
      theirs: theirs || '(none)',
    })),
  );
}
