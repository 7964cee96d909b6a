import {
  caseState,
  caseTitle,
  KIND_NAMES,
  LOAD_CARE,
  procedureOf,
  PRODUCTS,
  sheetFits,
  stationsOf,
  SUPPLIES,
  symptomsOf,
  tasksOf,
  type CaseRecord,
  type CodeSheet,
  type Entry,
  type Machine,
} from '@needlecase/core';
import { DOCUMENT_WORDS, type Document } from '@needlecase/core/model/documents';
import { LOAD_HABITS } from '@needlecase/core/care/catalogue/data/habits';
import { HAZARDS } from '@needlecase/core/care/catalogue/data/hazards';
import { PHRASES } from '@needlecase/core/trouble/words/phrases';
import type { Indexed } from './place';

/** A machine, its stations, its tasks with their steps, and what can be noticed at it. */
export function placesOf(machine: Machine): Indexed[] {
  const at = `/machine/${machine.id}`;
  const { id, name } = machine;
  return [
    {
      ...{ id, group: 'machines', name, url: at },
      leads: `${KIND_NAMES[machine.kind]}, ${machine.place}`,
      words: `${KIND_NAMES[machine.kind]} ${machine.place} ${machine.maker ?? ''}`,
      weight: 1.3,
    },
    {
      ...{ id: `${id}/meter`, group: 'machines', name: `Meter of the ${name}`, url: `${at}/meter` },
      leads: 'the watts of a day, and its file',
      words: `${name} meter plug watts power energy kwh electricity consumption log csv file import socket automatic`,
    },
    {
      ...{ id: `${id}/life`, group: 'machines', name: `Parts of the ${name}`, url: `${at}/life` },
      leads: 'age, hours, warranty, papers',
      words: `${name} parts life age hours warranty receipt manual papers hose belt replaced spare price`,
    },
    ...stationsOf(machine).map((station): Indexed => ({
      id: `${id}/${station.id}`,
      group: 'machines',
      name: station.name,
      leads: name,
      url: `${at}/${station.id}`,
      words: name,
      prose: station.what,
    })),
    ...tasksOf(machine).map((task): Indexed => {
      const { steps, putBack, proof, finds = [] } = procedureOf(machine, task.id);
      return {
        id: `${id}/task/${task.id}`,
        group: 'work',
        name: task.name,
        leads: `${name}: start it as a visit`,
        url: `/visit?machine=${id}&task=${task.id}`,
        words: `${name} ${STATION_WORDS[task.station] ?? ''}`,
        prose: [{ do: task.reason, why: '', look: '' }, ...steps, ...putBack, ...proof]
          .map((step) => [step.do, step.look, step.why].join(' '))
          .concat(finds)
          .join(' '),
      };
    }),
    ...symptomsOf(machine.kind).map(({ id: symptom, say }): Indexed => ({
      id: `${id}/symptom/${symptom}`,
      group: 'trouble',
      name: say,
      leads: `${name}: find the cause`,
      url: `/trouble?machine=${id}&finding=${symptom}`,
      words: name,
      phrases: [say, ...(PHRASES[symptom] ?? [])],
      weight: 1.1,
    })),
  ];
}

/** Every code of the sheets that fit a machine. */
export const codesOf = (sheets: readonly CodeSheet[], machine: Machine): Indexed[] =>
  sheets
    .filter((sheet) => sheetFits(sheet, machine))
    .flatMap(({ id, rows }) =>
      rows.map((row, i): Indexed => {
        const code = row.code ?? '';
        return {
          id: `${machine.id}/code/${id}/${i}`,
          group: 'trouble',
          name: code ? `${code}: ${row.says}` : `Lamps: ${row.says}`,
          leads: `code of the ${machine.name}`,
          url: `/trouble?machine=${machine.id}&code=${encodeURIComponent(code)}`,
        };
      }),
    );

const firstSentence = (text: string): string => {
  const [first = text] = text.split(/(?<=\.)\s/);
  return first.length > 84 ? `${first.slice(0, 82)}…` : first;
};

const has = (machines: readonly Machine[], kinds: readonly Machine['kind'][]): Machine[] =>
  machines.filter(({ kind }) => kinds.includes(kind));

/** What is good to know before a load, with each load, of cautions and of products: of the house’s machines. */
export function knowledgeOf(machines: readonly Machine[]): Indexed[] {
  return [
    ...LOAD_CARE.flatMap((care): Indexed[] => {
      const [machine] = has(machines, care.kinds);
      if (!machine) return [];
      const told = [care.before, care.after].filter(Boolean).join(' ');
      return [
        {
          id: `care/${care.id}`,
          group: 'know',
          name: care.load,
          leads: told,
          url: `/machine/${machine.id}`,
          words: CARE_WORDS[care.id] ?? '',
          prose: `${told} ${care.why}`,
        },
      ];
    }),
    ...LOAD_HABITS.flatMap((habit): Indexed[] => {
      const [machine] = has(machines, habit.kinds);
      if (!machine) return [];
      return [
        {
          id: `habit/${habit.id}`,
          group: 'know',
          name: habit.name,
          leads: habit.why,
          url: `/machine/${machine.id}`,
          prose: habit.why,
        },
      ];
    }),
    ...HAZARDS.map(({ id, caution }): Indexed => ({
      id: `caution/${id}`,
      group: 'know',
      name: firstSentence(caution),
      leads: 'a caution, shown at each step where it counts',
      url: '/visit',
      words: HAZARD_WORDS[id] ?? '',
      prose: caution,
      weight: 0.6,
    })),
    ...PRODUCTS.filter(({ id }) => id !== 'nothing').map((product): Indexed => ({
      id: `product/${product.id}`,
      group: 'know',
      name: product.name,
      leads: 'what it must not meet, and what it does',
      url: '/measure/mix',
      words: product.label,
      prose: product.care ?? '',
    })),
    ...SUPPLIES.map((supply): Indexed => ({
      id: `supply/${supply.id}`,
      group: 'keep',
      name: supply.name,
      leads: `Supplies: ${supply.for}`,
      url: '/house/supplies',
      words: supply.for,
      weight: 0.9,
    })),
  ];
}

/** Other words for the parts of a machine. */
const STATION_WORDS: Readonly<Record<string, string>> = {
  tap: 'water tap faucet valve fill hose supply',
  'inlet-screen': 'inlet filter mesh water inlet',
  dispenser: 'soap drawer detergent drawer powder tray compartment',
  gasket: 'rubber seal boot door ring bellows',
  tub: 'drum tub inside',
  'pump-filter': 'drain filter coin trap debris filter hairpin button sock grip clogged pump',
  pump: 'drain pump',
  'drain-hose': 'waste hose outlet hose drain pipe',
  standpipe: 'drain pipe waste pipe trap plumbing',
  'lint-screen': 'lint trap filter fluff filter',
  'screen-well': 'lint trap slot filter housing',
  'drum-seal': 'felt door seal rubber',
  'transition-hose': 'dryer hose flexible vent hose',
  'duct-run': 'vent pipe exhaust ducting dryer vent',
  hood: 'vent cap outlet outside wall flap',
  'heat-exchanger': 'condenser coil fins',
  'fine-filter': 'second filter foam filter',
  tank: 'water tank container',
  'condensate-sump': 'condensate pump sump',
  sensor: 'moisture sensor bars strips dryness sensor',
  cabinet: 'inside housing panel',
  blower: 'fan wheel',
};
const HAZARD_WORDS: Readonly<Record<string, string>> = {
  electric: 'unplug plug pull power off socket',
  gas: 'gas valve',
};

/** Other words for what is washed and dried. */
const CARE_WORDS: Readonly<Record<string, string>> = {
  duvets: 'duvet quilt comforter pillow bedding blanket',
  shoes: 'shoes sneakers trainers',
  similar: 'dryer sheets balls fabric softener wool',
  nets: 'socks curtains hooks',
  'never-dried': 'oil petrol wax paint rubber foam cloth rags fire',
  'pet-blankets': 'dog cat horse blanket hair',
};

/** Cases that somebody can go back to. */
export const casesIn = (cases: readonly CaseRecord[], machines: readonly Machine[]): Indexed[] =>
  cases.map((record) => {
    const state = caseState(record);
    const machine = machines.find(({ id }) => id === record.machineId)?.name ?? '';
    return {
      id: `case/${record.id}`,
      group: 'past',
      name: caseTitle(state),
      leads: `case of the ${machine}, ${state.state}`,
      url: `/trouble/${record.id}`,
      words: `case ${machine}`,
      prose: state.notes.join(' '),
    };
  });

/** Entries that somebody wrote something into. */
export const notesIn = (entries: readonly Entry[], machines: readonly Machine[]): Indexed[] =>
  entries.flatMap((entry) => {
    const note = 'note' in entry ? entry.note : undefined;
    if (!note) return [];
    const machine = machines.find(({ id }) => id === entry.machineId);
    return [
      {
        id: `entry/${entry.id}`,
        group: 'past' as const,
        name: note.length > 90 ? `${note.slice(0, 88)}…` : note,
        leads: `Log, ${entry.at.slice(0, 10)}${machine ? `, ${machine.name}` : ''}`,
        url: machine ? `/log?machine=${machine.id}` : '/log',
        weight: 0.9,
      },
    ];
  });

/** Papers of machines, by what they are called. */
export const papersIn = (papers: readonly Document[], machines: readonly Machine[]): Indexed[] =>
  papers.flatMap(({ id, machineId, name, kind }): Indexed[] => {
    const machine = machines.find((one) => one.id === machineId);
    if (!machine) return [];
    return [
      {
        ...{ id: `paper/${id}`, group: 'machines', name },
        leads: `${DOCUMENT_WORDS[kind]} of the ${machine.name}`,
        url: `/machine/${machineId}/life?paper=${id}`,
        words: `${DOCUMENT_WORDS[kind]} paper ${machine.name}`,
      },
    ];
  });
