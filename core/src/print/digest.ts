import { many } from '../units/many.js';
import { plusDays, sayDay, sayWeekday } from '../units/calendar.js';
import type { PlannedVisitView, HousePlan } from '../views/plan.js';

/** A letter as it is told; the same in plain words and as a simple page. */
export interface Digest {
  subject: string;
  text: string;
  html: string;
}

/** What a letter tells of. */
export interface DigestAsk {
  view: HousePlan;
  /** What keeps people safe and is due, in words. */
  overdue: readonly string[];
  /** Without a slash at its end: where the program is opened. */
  address: string;
  /** Where one says that no more are wanted. */
  stop: string;
}

/** Days that a letter looks ahead. */
const AHEAD = 14;
const MOST = 6;

/** The letter of the week: what is overdue and keeps people safe, and the visits of the next two weeks. */
export function digestOf({ view, overdue, address, stop }: DigestAsk): Digest {
  const { household, start, away } = view;
  const until = plusDays(start, AHEAD);
  const next = view.visits
    .filter(({ done, skipped, day }) => !done && skipped === undefined && day <= until)
    .slice(0, MOST);
  const going = away.filter(({ day }) => day <= until);
  const subject = overdue.length
    ? `${household.name}: ${many(overdue.length, 'task')} that ${overdue.length === 1 ? 'keeps' : 'keep'} people safe ${overdue.length === 1 ? 'is' : 'are'} due`
    : next.length
      ? `${household.name}: next ${sayWeekday(next[0]!.day)}, ${next[0]!.place}`
      : `${household.name}: nothing due for two weeks`;
  const parts: { heading: string; lines: string[] }[] = [
    ...(overdue.length ? [{ heading: 'Due, and keeps people safe', lines: [...overdue] }] : []),
    {
      heading: `Visits until ${sayDay(until)}`,
      lines: next.length ? next.map(sayVisit) : ['None.'],
    },
    ...going.map(({ day, kind, todo }) => ({
      heading: `${sayWeekday(day)}: ${kind === 'before' ? 'before you go' : 'back home'}`,
      lines: todo,
    })),
  ];
  const text = [
    household.name,
    '',
    ...parts.flatMap(({ heading, lines }) => [heading, ...lines.map((line) => `- ${line}`), '']),
    `The year: ${address}/plan`,
    `No more letters: ${stop}`,
  ].join('\n');
  const html = [
    `<h1>${escaped(household.name)}</h1>`,
    ...parts.map(
      ({ heading, lines }) =>
        `<h2>${escaped(heading)}</h2><ul>${lines.map((line) => `<li>${escaped(line)}</li>`).join('')}</ul>`,
    ),
    `<p><a href="${escaped(`${address}/plan`)}">The year ahead</a></p>`,
    `<p><a href="${escaped(stop)}">No more letters</a></p>`,
  ].join('\n');
  return { subject, text, html };
}

function sayVisit({ day, place, who, minutes, tasks }: PlannedVisitView): string {
  const work = tasks.map(({ name, machine }) => `${name} (${machine})`).join(', ');
  return `${sayWeekday(day)}, ${place}, ${minutes} min${who ? `, ${who}` : ''}: ${work}`;
}

const ENTITIES: Record<string, string> = {
  '&': '&amp;',
  '<': '&lt;',
  '>': '&gt;',
  '"': '&quot;',
};
const escaped = (text: string): string => text.replaceAll(/[&<>"]/g, (one) => ENTITIES[one]!);
