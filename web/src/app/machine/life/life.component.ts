import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { RouterLink } from '@angular/router';
import { NgbModal } from '@ng-bootstrap/ng-bootstrap';
import { isWasher, many, PART_BY, sayDay, stationById, total, type Money } from '@needlecase/core';
import type { LifeView, PartView } from '@needlecase/core/views/life';
import { catchError, combineLatest, map, of, startWith, switchMap } from 'rxjs';
import { wordsOf, type ApiProblem } from '../../data/api.service';
import { ChangesService } from '../../data/changes.service';
import { LifeService } from '../../data/life.service';
import { RoleService } from '../../data/role.service';
import { PapersComponent } from './papers.component';
import { PartRowComponent } from './part-row.component';
import { scaleOf } from './years';

interface Loaded {
  view?: LifeView;
  wrong?: string;
}
const NOTHING: Loaded = {};

/** A machine along its life: its age and hours, each part along the years, what was spent, its papers. */
@Component({
  selector: 'nc-life',
  imports: [PapersComponent, PartRowComponent, RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './life.component.html',
  styleUrl: './life.component.scss',
})
export class LifeComponent {
  readonly #life = inject(LifeService);
  readonly #modal = inject(NgbModal);
  protected readonly role = inject(RoleService);

  /** From the address. */
  readonly id = input.required<string>();
  /** One of its papers that was looked for. */
  readonly paper = input<string>();

  readonly #loaded = toSignal(
    combineLatest([
      toObservable(this.id),
      inject(ChangesService).of('entries', 'machines').pipe(startWith(undefined)),
    ]).pipe(
      switchMap(([id]) =>
        this.#life.of(id).pipe(
          map((view): Loaded => ({ view })),
          catchError((problem: ApiProblem) => of<Loaded>({ wrong: wordsOf(problem) })),
        ),
      ),
    ),
    { initialValue: NOTHING },
  );
  protected readonly view = computed(() => this.#loaded().view);
  protected readonly wrong = computed(() => this.#loaded().wrong ?? '');
  protected readonly thread = computed(() =>
    isWasher(this.view()?.machine.kind ?? 'front-load-washer') ? 'water' : 'air',
  );
  protected readonly scale = computed(() => {
    const view = this.view();
    return view && scaleOf(view);
  });
  /** Those that are due first, then as they lie along the line. */
  protected readonly parts = computed(() =>
    (this.view()?.parts ?? [])
      .map((part) => ({ part, by: PART_BY[part.by] }))
      .sort((a, b) => RANK[a.part.state] - RANK[b.part.state]),
  );

  protected readonly facts = computed(() => {
    const view = this.view();
    if (!view) return [];
    const { age, since, lasts, loads, hours, minutes, warranty, today, machine } = view;
    const all = Math.round(total(loads));
    const counted = Math.round(loads.counted);
    return [
      age === undefined
        ? { what: 'Age', is: 'not known', of: 'When it was bought stands under House.' }
        : {
            what: 'Age',
            is: `${age.toFixed(1)} years`,
            of: `since ${sayDay(since!, today)}; such machines last some ${lasts} years (common practice)`,
          },
      {
        what: 'Loads',
        is: all.toLocaleString('en-GB'),
        of:
          counted >= all
            ? 'all of them counted'
            : `${counted.toLocaleString('en-GB')} counted, the rest by ${machine.loadsPerWeek} a week`,
      },
      {
        what: 'Hours',
        is: Math.round(hours).toLocaleString('en-GB'),
        of: minutes.metered
          ? `${Math.round(minutes.each)} min a load, by its meter over ${many(minutes.metered, 'load')}`
          : `${minutes.each} min a load, as usual for its kind (common practice)`,
      },
      {
        what: 'Warranty',
        is: warranty ? warranty.said : 'not told',
        of: warranty
          ? warranty.over
            ? ''
            : 'What does not work goes to the seller first.'
          : 'Its end stands under House, once you enter it.',
      },
    ];
  });
  protected readonly spent = computed(() => {
    const { spent = [] } = this.view() ?? {};
    return spent.length ? `${spent.map(sayMoney).join(' and ')} for parts and calls so far.` : '';
  });
  protected readonly money = sayMoney;
  /** Calls, and what was replaced without saying which part; the last first. */
  protected readonly calls = computed(() => {
    const { calls = [], others = [], today } = this.view() ?? {};
    const line = (one: { entryId: string; day: string; cost?: Money }, what: string) => ({
      ...{ id: one.entryId, day: one.day },
      said: `${[sayDay(one.day, today), ...(one.cost ? [sayMoney(one.cost)] : [])].join(', ')}: ${what}`,
    });
    return [
      ...calls.map((one) => line(one, one.what)),
      ...others.map((one) =>
        line(
          one,
          `something replaced, ${one.station ? stationById(one.station).name.toLowerCase() : 'nobody said where'}${one.why ? `. ${one.why}` : ''}`,
        ),
      ),
    ].sort((a, b) => b.day.localeCompare(a.day));
  });

  protected async enter(kind: 'replaced' | 'called', part?: PartView): Promise<void> {
    const { EntryDialogComponent } = await import('../../log/entry-dialog.component');
    const view = this.view();
    if (!view) return;
    const dialog = this.#modal.open(EntryDialogComponent, { ariaLabelledBy: 'entry-title' });
    const form = dialog.componentInstance as InstanceType<typeof EntryDialogComponent>;
    form.machines.set([view.machine]);
    form.zone.set(view.zone);
    form.currency.set(view.currency);
    form.begins.set({
      ...{ kind, machineId: view.machine.id },
      ...(part ? { part: part.part } : {}),
    });
    dialog.result.catch(() => undefined);
  }
}

const RANK: Record<PartView['state'], number> = {
  due: 0,
  soon: 1,
  look: 2,
  unknown: 3,
  fine: 4,
  'by-sign': 5,
};

function sayMoney({ amount, currency }: Money): string {
  return `${amount.toFixed(2).replace(/\.00$/, '')} ${currency}`;
}
