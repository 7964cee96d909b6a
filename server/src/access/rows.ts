import { INSTRUMENTS, type Instrument, type MachineDraft } from '@needlecase/core';
import { keptId } from '@needlecase/core/model/ids';
import { mayAs, type Role, type Scope } from '@needlecase/core/model/access';
import { isDeepStrictEqual } from 'node:util';
import type { Store } from '../store/store.js';

/** What is known of a request whose right is in question. */
export interface Asked {
  store: Store;
  /** Of the thing in the address. */
  id: string | undefined;
  body: unknown;
  personId: string | undefined;
  role: Role;
}

/** Who may ask for an address of the API. */
export interface Row {
  /** The least role; everybody, paired or not, where it says so. */
  from: Role | 'everybody';
  /** What tokens with this scope may ask, too. */
  scope?: Scope;
  /** What somebody with less may ask all the same. */
  besides?: (asked: Asked) => boolean;
}

const everybody: Row = { from: 'everybody' };
const guest: Row = { from: 'guest' };
const helper: Row = { from: 'helper' };
const keeper: Row = { from: 'keeper' };

const kindOf = (body: unknown): unknown => (body as { kind?: unknown } | undefined)?.kind;

/** A guest counts loads. */
const loads: Row = { from: 'helper', besides: ({ body }) => kindOf(body) === 'load' };

/** And takes back what was counted by themselves. */
const ownLoads: Row = {
  from: 'helper',
  besides: ({ store, id, personId }) => {
    const entry = id === undefined ? undefined : store.entries.get(id);
    return entry?.kind === 'load' && personId !== undefined && entry.author === personId;
  },
};

/** A guest reports trouble: a case that is not there yet. */
const newCases: Row = {
  from: 'helper',
  besides: ({ store, body }) => {
    const { id } = (body ?? {}) as { id?: unknown };
    return typeof id === 'string' && store.cases.get(keptId(id)) === undefined;
  },
};

/** A helper who stands at a machine says how it is built, which the steps follow; the rest of it is the keepers'. */
const howItIsBuilt: Row = {
  from: 'keeper',
  besides: ({ store, id, body, role }) => {
    const machine = id === undefined ? undefined : store.machines.get(id);
    if (!machine || !mayAs(role, 'helper')) return false;
    const { id: _id, version: _version, ...kept } = machine;
    return isDeepStrictEqual(besidesBuild(kept), besidesBuild(body ?? {}));
  },
};
const besidesBuild = ({
  features: _features,
  ways: _ways,
  pages: _pages,
  ...rest
}: Partial<MachineDraft>): object => rest;

/**
 * The table of who may ask for what: one row for each address, none without. What changes how the house is set up,
 * or tells all of it, is the keepers'.
 */
export const ROWS: Readonly<Record<string, Row>> = {
  'get /api/v1/health': everybody,
  'get /api/v1/ready': everybody,
  'get /api/v1/me': everybody,
  'post /api/v1/pair': everybody,
  'post /api/v1/sign-in': everybody,
  'post /api/v1/sign-in/options': everybody,
  'post /api/v1/sign-in/passkey': everybody,
  'post /api/v1/sign-out': everybody,

  'get /api/openapi.json': guest,
  'get /api/v1/changes': guest,
  'get /api/v1/household': guest,
  'get /api/v1/machines': guest,
  'get /api/v1/machines/{id}': guest,
  'get /api/v1/machines/{id}/line': guest,
  'get /api/v1/machines/{id}/trouble': guest,
  'get /api/v1/trouble/likely': guest,
  'get /api/v1/bench': guest,
  'get /api/v1/code-sheets': guest,
  'get /api/v1/code-sheet.schema.json': guest,
  'post /api/v1/trouble/suspects': guest,
  ...Object.fromEntries(
    INSTRUMENTS.map(({ name, api }: Instrument) => [
      `post /api/v1/instruments/${api ?? name}`,
      guest,
    ]),
  ),
  'get /api/v1/persons': guest,
  'post /api/v1/move': guest,
  'get /api/v1/passkeys': guest,
  'post /api/v1/passkeys': guest,
  'post /api/v1/passkeys/options': guest,
  'delete /api/v1/passkeys/{id}': guest,

  'get /api/v1/entries': { ...helper, scope: 'entries:read' },
  'post /api/v1/entries': loads,
  'post /api/v1/entries/{id}/undo': ownLoads,
  'post /api/v1/entries/{id}/restore': ownLoads,
  'post /api/v1/entries/{id}/revision': helper,
  'get /api/v1/cases': helper,
  'get /api/v1/cases/{id}': helper,
  'post /api/v1/cases': newCases,
  'get /api/v1/cases/{id}/summary.pdf': helper,
  'get /api/v1/machines/{id}/record.pdf': helper,
  'get /api/v1/machines/{id}/life': helper,
  'get /api/v1/runs': helper,
  'post /api/v1/runs': helper,
  'get /api/v1/runs/{id}': helper,
  'patch /api/v1/runs/{id}': helper,
  'post /api/v1/runs/{id}/finish': helper,
  'post /api/v1/runs/{id}/undo': helper,
  'get /api/v1/runs/{id}/visit.pdf': helper,
  'put /api/v1/photos/{id}': helper,
  'get /api/v1/photos/{id}': helper,
  'get /api/v1/documents': helper,
  'get /api/v1/documents/{id}/file': helper,
  'put /api/v1/documents/{id}/file': helper,
  'put /api/v1/documents/{id}': helper,
  'delete /api/v1/documents/{id}': keeper,
  'get /api/v1/supplies': helper,
  'get /api/v1/schools': helper,
  'get /api/v1/hindsight': helper,
  'get /api/v1/machines/{id}/meter': helper,
  'post /api/v1/machines/{id}/meter': helper,
  'post /api/v1/machines/{id}/meter/undo': helper,
  'post /api/v1/machines/{id}/meter/join': helper,
  'post /api/v1/machines/{id}/meter/part': helper,
  'post /api/v1/machines/{id}/meter/name': helper,
  'get /api/v1/meters': helper,
  'get /api/v1/vent-runs': helper,
  'post /api/v1/vent-runs': helper,
  'put /api/v1/vent-runs/{id}': helper,
  'delete /api/v1/vent-runs/{id}': helper,
  'get /api/v1/plan': helper,
  'get /api/v1/plan/ahead': helper,
  'get /api/v1/plan/problem': helper,
  'put /api/v1/plan/visits/{id}': helper,
  'get /api/v1/plan/visits/{id}/visit.ics': helper,
  'get /api/v1/calendar.ics': { ...helper, scope: 'calendar:read' },
  'get /api/v1/prints/wall.pdf': helper,
  'get /api/v1/code-sheets/{id}/codes.pdf': helper,
  'get /api/v1/prints/year.pdf': helper,
  'get /api/v1/prints/labels.pdf': helper,
  'get /api/v1/feeds': helper,
  'post /api/v1/feeds': helper,
  'delete /api/v1/feeds/{id}': helper,
  'get /api/v1/busy': helper,
  'post /api/v1/busy': helper,
  'delete /api/v1/busy/{id}': helper,
  'get /api/v1/absences': helper,
  'post /api/v1/absences': helper,
  'put /api/v1/absences/{id}': helper,
  'delete /api/v1/absences/{id}': helper,
  'get /api/v1/machines/{id}/charts': helper,
  'get /api/v1/year': helper,
  'post /api/v1/old-notes': helper,
  'post /api/v1/old-notes/undo': helper,
  'get /api/v1/entries.csv': { ...helper, scope: 'entries:read' },
  'get /api/v1/readings.csv': { ...helper, scope: 'entries:read' },
  'get /api/v1/loads.csv': { ...helper, scope: 'entries:read' },
  'get /api/v1/done.ics': { ...helper, scope: 'entries:read' },
  'get /api/v1/record.schema.json': guest,
  'get /api/v1/record.json': keeper,
  'get /api/v1/backups': helper,
  'get /api/v1/about': helper,
  'get /api/v1/shares': helper,

  'post /api/v1/setup': keeper,
  'put /api/v1/household': keeper,
  'put /api/v1/plan/rhythms': keeper,
  'post /api/v1/busy/address': keeper,
  'get /api/v1/mail': keeper,
  'put /api/v1/mail/server': keeper,
  'delete /api/v1/mail/server': keeper,
  'post /api/v1/mail/recipients': keeper,
  'delete /api/v1/mail/recipients/{id}': keeper,
  'post /api/v1/mail/recipients/{id}/letter': keeper,
  'post /api/v1/machines': keeper,
  'delete /api/v1/machines/{id}': keeper,
  'put /api/v1/machines/{id}': howItIsBuilt,
  'post /api/v1/supplies': keeper,
  'put /api/v1/supplies/{id}': keeper,
  'post /api/v1/code-sheets': keeper,
  'put /api/v1/code-sheets/{id}': keeper,
  'delete /api/v1/code-sheets/{id}': keeper,
  'post /api/v1/backups': keeper,
  'get /api/v1/backup.zip': keeper,
  'post /api/v1/backups/look': keeper,
  'post /api/v1/backups/pick': keeper,
  'post /api/v1/restore': keeper,
  'post /api/v1/persons': keeper,
  'put /api/v1/persons/{id}': keeper,
  'delete /api/v1/persons/{id}': keeper,
  'put /api/v1/persons/{id}/passphrase': {
    from: 'keeper',
    besides: ({ id, personId }) => id === personId,
  },
  'delete /api/v1/persons/{id}/passphrase': keeper,
  'get /api/v1/addresses': keeper,
  'put /api/v1/address': keeper,
  'post /api/v1/codes': keeper,
  'get /api/v1/devices': keeper,
  'delete /api/v1/devices/{id}': keeper,
  'get /api/v1/tokens': keeper,
  'post /api/v1/tokens': keeper,
  'delete /api/v1/tokens/{id}': keeper,
  'post /api/v1/meters': keeper,
  'put /api/v1/meters/{id}': keeper,
  'delete /api/v1/meters/{id}': keeper,
  'post /api/v1/meters/{id}/token': keeper,
  'post /api/v1/meters/{id}/samples': { ...keeper, scope: 'samples:write' },
  'post /api/v1/meters/{id}/stand-in': keeper,
  'get /api/v1/links': keeper,
  'post /api/v1/links': keeper,
  'delete /api/v1/links/{id}': keeper,
  'get /api/v1/access-events': keeper,
  'get /api/v1/set-aside': keeper,
  'get /api/v1/set-aside/{id}/photo': keeper,
  'post /api/v1/set-aside/{id}/take': keeper,
  'delete /api/v1/set-aside/{id}': keeper,
};
