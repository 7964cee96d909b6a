import { stationById } from '../care/catalogue/lookup.js';
import type { CaseRecord, Household, Machine } from '../model/schemas.js';
import {
  ANSWER_WORDS,
  comparisons,
  ENDING_WORDS,
  sayCaseEvent,
  sayOutcome,
} from '../trouble/cases/say.js';
import { caseState, caseTitle } from '../trouble/cases/state.js';
import { isSymptom, sayFinding } from '../trouble/diagnosis/diagnosis.js';
import { sayCode } from '../trouble/codes/evidence.js';
import type { TroubleView } from '../views/trouble.js';
import { dayOf, sayDay } from '../units/calendar.js';
import { machineFacts, type Sheet } from './sheet.js';

const MOST_SUSPECTS = 6;

/**
 * A case for somebody who comes to look at the machine: what was seen, what was checked, the figures,
 * and what it is thought to be.
 * @param view what the engine makes of it now
 * @param now UTC instant, milliseconds
 */
export function caseSheet(
  record: CaseRecord,
  machine: Machine,
  household: Household,
  view: TroubleView,
  now: number,
): Sheet {
  const state = caseState(record);
  const { zone } = household;
  const day = (instant: number) => sayDay(dayOf(instant, zone), dayOf(now, zone));
  const answered = Object.entries(state.answers);
  const seen = [
    ...answered
      .filter(([id]) => isSymptom(id))
      .map(([id, answer]) => [sayFinding(id), ANSWER_WORDS[answer]]),
    ...state.codes.map((code) => ['On the display', sayCode(code)]),
  ];
  const figures = comparisons(state, machine.kind)
    .filter(({ before, after }) => before !== undefined || after !== undefined)
    .map(({ measure, before, after }) => [
      measure.label,
      before === undefined ? '' : `${before} ${measure.unit}`,
      after === undefined ? '' : `${after} ${measure.unit}`,
    ]);
  return {
    title: `${machine.name}: ${caseTitle(state)}`,
    lead: `${household.name}. Trouble since ${day(state.openedAt)}, ${state.ending ? ENDING_WORDS[state.ending] : 'open'}.`,
    facts: machineFacts(machine, household),
    sections: [
      {
        heading: 'What was seen',
        columns: ['What', 'Answer'],
        rows: seen,
        none: 'Nothing was told.',
      },
      {
        heading: 'What was checked',
        columns: ['Answer', 'Check'],
        rows: answered
          .filter(([id]) => !isSymptom(id))
          .map(([id, answer]) => [ANSWER_WORDS[answer], sayFinding(id)]),
        none: 'Nothing was checked.',
      },
      {
        heading: 'Figures',
        columns: ['What', 'Before', 'After'],
        rows: figures,
        none: 'Nothing was measured.',
      },
      {
        heading: state.ending ? 'What came of it' : 'What it may be',
        columns: ['Chance', 'Where', 'Cause'],
        rows: view.suspects
          .slice(0, MOST_SUSPECTS)
          .map(({ chance, station, name }) => [
            `${Math.round(100 * chance)} %`,
            stationById(station).name,
            name,
          ]),
        none: sayOutcome(state, machine.kind),
      },
      {
        heading: 'Everything in order',
        columns: ['When', 'What'],
        rows: record.events.map((event) => [day(Date.parse(event.at)), sayCaseEvent(event)]),
        none: 'Nothing.',
      },
    ],
    photos: [],
  };
}
