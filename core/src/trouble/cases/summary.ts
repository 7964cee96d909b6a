import type { CaseRecord } from '../../model/schemas.js';
import { dayOf, sayDay } from '../../units/calendar.js';
import { STOP_RULES } from '../data/stops.js';
import { caseState, caseTitle, isRested } from './state.js';

/** A case in one line, for the bench. */
export interface CaseSummary {
  id: string;
  machineId: string;
  title: string;
  said: string;
  /** What it was stopped for, where something that can hurt somebody was told. */
  stopped?: string;
  /** The visit in which its work is or was done. */
  runId?: string;
}

/** @param today calendar date in `zone` */
export function caseSummary(record: CaseRecord, zone: string, today: string): CaseSummary {
  const state = caseState(record);
  const since = `since ${sayDay(dayOf(state.openedAt, zone), today)}`;
  const resting = state.until ? `rests until ${sayDay(state.until, today)}` : 'rests';
  const stop = state.stops[0];
  const stopped = stop === undefined ? undefined : STOP_RULES.find(({ id }) => id === stop)?.short;
  const said = stopped
    ? `stopped for safety: ${stopped}`
    : isRested(state, today)
      ? 'has rested: how is it now?'
      : state.state === 'resting'
        ? resting
        : state.fix
          ? 'the work is to be proved'
          : since;
  return {
    id: record.id,
    machineId: record.machineId,
    title: caseTitle(state),
    said,
    ...(stopped ? { stopped } : {}),
    ...(state.fix?.runId ? { runId: state.fix.runId } : {}),
  };
}
