import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { RouterLink } from '@angular/router';
import {
  caseState,
  caseTitle,
  dayOf,
  ENDING_WORDS,
  isMereLook,
  isRested,
  sayDay,
  type CaseRecord,
} from '@needlecase/core';
import { BenchService } from '../data/bench.service';
import { CasesService } from '../data/cases.service';
import { LineComponent } from '../thread/line.component';
import { CaseComponent } from './case.component';

const CLOSED_SHOWN = 6;

/** Cases open, resting and closed, and the way into a new one. */
@Component({
  selector: 'nc-trouble',
  imports: [CaseComponent, LineComponent, RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './trouble.component.html',
  styleUrl: './trouble.component.scss',
})
export class TroubleComponent {
  readonly #cases = inject(CasesService);
  readonly #loaded = toSignal(inject(BenchService).bench$);

  /** From the address: begins a new case of a machine, perhaps at a station, by a code or by what was seen. */
  readonly machine = input<string>();
  readonly station = input<string>();
  readonly code = input<string>();
  readonly finding = input<string>();

  protected readonly bench = computed(() => this.#loaded()?.value);
  protected readonly unread = computed(() => (this.bench() ? undefined : this.#loaded()?.problem));
  readonly #told = computed(() =>
    this.#cases
      .all()
      .filter((record) => !isMereLook(caseState(record)))
      .map((record) => this.#tellOf(record)),
  );
  protected readonly open = computed(() => this.#told().filter(({ state }) => state !== 'closed'));
  protected readonly closed = computed(() =>
    this.#told()
      .filter(({ state, ending }) => state === 'closed' && ending !== 'mistake')
      .slice(0, CLOSED_SHOWN),
  );

  protected stationsOf(machineId: string) {
    return this.bench()?.states.find((one) => one.machineId === machineId)?.stations ?? [];
  }

  #tellOf(record: CaseRecord) {
    const state = caseState(record);
    const bench = this.bench();
    const machine = bench?.machines.find(({ id }) => id === record.machineId);
    const zone = bench?.household.zone ?? 'UTC';
    const today = bench?.today ?? dayOf(Date.now(), zone);
    const day = (instant: number) => sayDay(dayOf(instant, zone), today);
    const rests = state.until ? `rests until ${sayDay(state.until, today)}` : 'rests';
    const said = {
      open: state.fix ? 'the work is to be proved' : `open since ${day(state.openedAt)}`,
      resting: isRested(state, today) ? 'has rested: how is it now?' : rests,
      closed: `${state.ending ? ENDING_WORDS[state.ending] : ''}, ${day(state.closedAt ?? 0)}`,
    }[state.state];
    return {
      id: record.id,
      title: caseTitle(state),
      machine: machine?.name ?? '',
      state: state.state,
      ending: state.ending,
      said,
    };
  }
}
