import { INSTRUMENTS, KIND_NAMES, stationsOf, tasksOf, type Machine } from '@needlecase/core';
import MiniSearch from 'minisearch';
import { catchError, firstValueFrom, of } from 'rxjs';
import type { HouseholdService } from '../data/household.service';

/** Somewhere to go. */
export interface Place {
  id: string;
  name: string;
  words: string;
  url: string;
}

export interface FindIndex {
  find(typed: string): Place[];
}

const VIEWS: Place[] = [
  { id: 'bench', name: 'Bench', words: 'home start due loads', url: '/' },
  {
    id: 'plan',
    name: 'Plan: the year ahead',
    words: 'calendar year saturdays schedule away holiday hours move visit',
    url: '/plan',
  },
  { id: 'visit', name: 'Choose a visit', words: 'clean tasks run', url: '/visit' },
  { id: 'log', name: 'Log', words: 'history record entries undo correct', url: '/log' },
  {
    id: 'schools',
    name: 'Rhythms',
    words: 'how often compare year hours visits cost',
    url: '/house/schools',
  },
  {
    id: 'supplies',
    name: 'Supplies',
    words: 'stock shopping list buy vinegar cleaner bottle',
    url: '/house/supplies',
  },
  {
    id: 'mail',
    name: 'Mail',
    words: 'letter digest e-mail weekly smtp reminder',
    url: '/house/mail',
  },
  {
    id: 'codes',
    name: 'Display codes',
    words: 'code sheet table lamp error manual import export',
    url: '/house/codes',
  },
  {
    id: 'backup',
    name: 'Backup',
    words: 'restore export copy save move new computer download merge',
    url: '/house/backup',
  },
  {
    id: 'phones',
    name: 'Phones and people',
    words:
      'pair device code certificate https qr person helper guest landlord technician link token',
    url: '/house/phones',
  },
  {
    id: 'about',
    name: 'About',
    words: 'version licence where is the data file',
    url: '/house/about',
  },
  {
    id: 'trouble',
    name: 'Trouble',
    words: 'case broken wrong code symptom smell leak slow noise',
    url: '/trouble',
  },
  {
    id: 'measure',
    name: 'Measure',
    words: 'instruments arithmetic',
    url: '/measure',
  },
  { id: 'house', name: 'House', words: 'household settings units zone hardness', url: '/house' },
];

const INSTRUMENT_PLACES = INSTRUMENTS.map(({ name, title, question, words }): Place => ({
  id: `measure/${name}`,
  name: title,
  words: `${question} ${words}`,
  url: `/measure/${name}`,
}));

/** Nobody types more; a word of thousands of letters would be compared letter by letter. */
export const MOST_LETTERS = 200;

export async function makeIndex(household: HouseholdService): Promise<FindIndex> {
  const machines = await firstValueFrom(
    household.machines().pipe(catchError(() => of<Machine[]>([]))),
  );
  const places = [...VIEWS, ...INSTRUMENT_PLACES, ...machines.flatMap(placesOf)];
  const search = new MiniSearch<Place>({
    fields: ['name', 'words'],
    storeFields: ['id'],
    searchOptions: { prefix: true, fuzzy: 0.2, boost: { name: 2 } },
  });
  search.addAll(places);
  const byId = new Map(places.map((place) => [place.id, place]));
  return {
    find: (typed) =>
      search
        .search(typed.slice(0, MOST_LETTERS))
        .slice(0, 8)
        .map(({ id }) => byId.get(id as string)!),
  };
}

function placesOf(machine: Machine): Place[] {
  const at = `/machine/${machine.id}`;
  return [
    {
      id: machine.id,
      name: machine.name,
      words: `${KIND_NAMES[machine.kind]} ${machine.place} ${machine.maker ?? ''}`,
      url: at,
    },
    ...stationsOf(machine).map((station) => ({
      id: `${machine.id}/${station.id}`,
      name: `${station.name}, ${machine.name}`,
      words: station.what,
      url: `${at}/${station.id}`,
    })),
    ...tasksOf(machine).map((task) => ({
      id: `${machine.id}/task/${task.id}`,
      name: `${task.name}, ${machine.name}`,
      words: task.reason,
      url: `/visit?machine=${machine.id}&task=${task.id}`,
    })),
  ];
}
