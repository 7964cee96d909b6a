import type { HousePlan } from '@needlecase/core/views/plan';
import { sayDay, sayWeekday } from '@needlecase/core';
import type { Content } from 'pdfmake/interfaces.js';
import { PAPER, stitch } from './drawings.js';
import { printer } from './print.js';
import { PAGE, tick, type Paper } from './wall.js';

const month = new Intl.DateTimeFormat('en-GB', { month: 'long', year: 'numeric', timeZone: 'UTC' });

/** What of a year is printed. */
export type YearToPrint = Pick<HousePlan, 'household' | 'start' | 'end' | 'visits' | 'minutes'>;

/** Prints the year as boxes to tick: each visit with its work, month by month. */
export async function printYear(view: YearToPrint, paper: Paper): Promise<Buffer> {
  const open = view.visits.filter(({ done, skipped }) => !done && skipped === undefined);
  const months = [...new Set(open.map(({ day }) => day.slice(0, 7)))];
  const rowOf = ({ day, place, who, minutes, tasks }: YearToPrint['visits'][number]): Content => ({
    unbreakable: true,
    columns: [
      { width: 16, ...tick(9) },
      { width: 84, text: sayWeekday(day), bold: true },
      { width: 80, text: `${place}\n${[who, `${minutes} min`].filter(Boolean).join(', ')}` },
      {
        width: '*',
        stack: tasks.map(({ name: task, machine, line, safety }): Content => ({
          columns: [
            { width: 12, svg: stitch(line, safety), fit: [7, 11] },
            { width: '*', text: [task, { text: `, ${machine}`, color: PAPER.soft }] },
          ],
        })),
      },
    ],
    margin: [0, 2, 0, 3],
  });
  const content: Content[] = months.flatMap((name): Content[] => {
    const [first, ...rest] = open.filter(({ day }) => day.startsWith(name)).map(rowOf);
    const heading: Content = {
      text: month.format(new Date(`${name}-15T12:00:00Z`)),
      fontSize: 13,
      bold: true,
      margin: [0, 9, 0, 3],
    };
    // A month’s name never stands alone at the foot.
    return [{ unbreakable: true, stack: [heading, first!] }, ...rest];
  });
  return (await printer())
    .createPdf({
      pageSize: PAGE[paper],
      pageMargins: [40, 40, 40, 44],
      info: { title: `${view.household.name}: the year ahead`, creator: 'Needlecase' },
      defaultStyle: { font: 'Roboto', fontSize: 9.5, color: PAPER.ink, lineHeight: 1.1 },
      footer: (page, pages) => ({
        text: `Needlecase · ${view.household.name} · ${page} of ${pages}`,
        alignment: 'center',
        fontSize: 8,
        margin: [0, 14, 0, 0],
      }),
      content: [
        { text: 'The year ahead', fontSize: 22, bold: true },
        {
          text: `${view.household.name}, ${sayDay(view.start)} to ${sayDay(view.end)}: ${open.length} visits, ${Math.round(view.minutes / 60)} hours`,
          color: PAPER.soft,
        },
        ...content,
      ],
    })
    .getBuffer();
}
