/* The rooms of core, from the ground up: each stands only on those named before it. */
const FLOORS = [
  { room: 'regions', holds: 'kinds of houses: their words, sentences and figures' },
  { room: 'model', holds: 'schemas, the fixed words of the field, quantities, entry kinds' },
  { room: 'formats', holds: 'what a backup and a record in JSON are' },
  { room: 'units', holds: 'quantities and their conversion, figures in sentences, calendar' },
  { room: 'chemistry', holds: 'products, what must not meet, guard, recipes' },
  { room: 'measure/input', holds: 'what an instrument takes in, and how readings are kept' },
  { room: 'measure/water', holds: 'instruments along the water line' },
  { room: 'measure/mix', holds: 'instruments of dosing and mixing' },
  { room: 'measure/air', holds: 'instruments along the air line' },
  { room: 'measure/phone', holds: 'the phone as an instrument: tilt, spin, sound, light' },
  { room: 'measure', holds: 'running cost, and the table of all instruments' },
  { room: 'world', holds: 'the machine as a model: facts, acts of steps, water, heat, products' },
  { room: 'care/catalogue', holds: 'what there is to do: stations, tasks, set-ups, procedures' },
  { room: 'care/record', holds: 'what happened: history, openings, loads, rules for entries' },
  { room: 'care/tables', holds: 'the record as tables for spreadsheets' },
  { room: 'care/old-notes', holds: 'notes from before as entries: columns, dates, what was meant' },
  { room: 'care/fouling', holds: 'how fouled: beliefs, learning' },
  { room: 'care/schedule', holds: 'when: intervals, rules, due dates, explanations, a year' },
  { room: 'care/hindsight', holds: 'how well was foretold what openings showed' },
  { room: 'care/visit', holds: 'how it is done: plan, progress, products, proofs, entries' },
  {
    room: 'laws',
    holds: 'every visit against the laws of the world; changed visits that measure them',
  },
  { room: 'care/house', holds: 'the whole household: machine states, supplies, habits' },
  { room: 'loads/log', holds: 'a meter’s file and its samples: shape, reader, power along time' },
  { room: 'loads/stand-in', holds: 'made-up machines that draw power as their programmes do' },
  { room: 'loads/cycles', holds: 'loads in a log: thresholds, cycles' },
  { room: 'loads/live', holds: 'a meter that speaks as it goes on: its samples, and what is over' },
  { room: 'loads/air', holds: 'a dryer’s air from its heater’s duty' },
  { room: 'loads/drift', holds: 'whether a figure has changed: what is usual, CUSUM, signals' },
  { room: 'trouble/data', holds: 'causes, checks, symptoms, stop rules' },
  { room: 'trouble/codes', holds: 'display codes: sheets, reading, evidence' },
  { room: 'trouble/diagnosis', holds: 'the network, priors, suspects, advice' },
  { room: 'trouble/words', holds: 'symptoms found by the words people use' },
  { room: 'trouble/cases', holds: 'cases: events, state, words, proof' },
  {
    room: 'practice',
    holds: 'a machine to learn on: cases, deeds and what comes of them, hands that play, debrief',
  },
  { room: 'plan', holds: 'the year ahead: which work in which week, at the least cost' },
  { room: 'views', holds: 'what crosses to the screens' },
  { room: 'print', holds: 'sheets to print' },
];

/** Files of a room; those of a room inside it are not among them. */
const roomPath = (room) => {
  const inner = FLOORS.filter(({ room: other }) => other.startsWith(`${room}/`)).map(
    ({ room: other }) => other.slice(room.length + 1),
  );
  return `^core/src/${room}/${inner.length ? `(?!(${inner.join('|')})/)` : ''}`;
};

module.exports = { FLOORS, roomPath };
