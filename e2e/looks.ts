import type { Page } from '@playwright/test';
import axe, { type RunOptions } from 'axe-core';

/** What axe finds wrong with a page, a line each. */
export async function axeFaults(page: Page, options: RunOptions = {}): Promise<string[]> {
  if (!(await page.evaluate(() => 'axe' in window))) await page.evaluate(axe.source);
  // The field at the top may be coming just now: it is whole a moment after it is there.
  await page.waitForFunction(
    () => !document.querySelector('[role="combobox"]:not([aria-expanded])'),
  );
  return page.evaluate(async (given) => {
    const { violations } = await (window as unknown as { axe: typeof axe }).axe.run(document, {
      resultTypes: ['violations'],
      // WCAG 2.2, 2.5.8: 24 px, or room around.
      rules: { 'target-size': { enabled: true } },
      ...given,
    });
    return violations.map(({ id, nodes }) => `${id}: ${nodes.map(({ html }) => html).join(' | ')}`);
  }, options as object);
}

/** The smallest text that is read at arm's length, CSS px; a hair less for rounding. */
const LEAST_TEXT = 12;

/** Words that are drawn smaller than they can be read, in a drawing as it is scaled on the page; single marks are not words. */
const smallTexts = (page: Page): Promise<string[]> =>
  page.evaluate((least) => {
    const words = (one: Element) =>
      [...one.childNodes]
        .filter((node) => node.nodeType === Node.TEXT_NODE)
        .map((node) => node.textContent!.trim())
        .join(' ')
        .trim();
    return [...document.body.querySelectorAll('*')]
      .filter((one) => words(one).length > 1 && one.checkVisibility({ visibilityProperty: true }))
      .flatMap((one) => {
        const scale =
          one instanceof SVGGraphicsElement
            ? Math.hypot(one.getScreenCTM()!.a, one.getScreenCTM()!.b)
            : 1;
        const size = parseFloat(getComputedStyle(one).fontSize) * scale;
        return size < least - 0.05 ? [`${size.toFixed(1)} px: ${words(one).slice(0, 40)}`] : [];
      });
  }, LEAST_TEXT);

/** Buttons whose words are cut or that stick out, how far the page is wider than its window, and words too small. */
export const layoutFaults = async (page: Page): Promise<string[]> => [
  ...(await cutOrWide(page)),
  ...(await smallTexts(page)),
];

const cutOrWide = (page: Page): Promise<string[]> =>
  page.evaluate(() => {
    const { clientWidth, scrollWidth } = document.documentElement;
    const cut = [...document.querySelectorAll<HTMLElement>('button.btn, a.btn')]
      .filter((one) => one.checkVisibility({ visibilityProperty: true }))
      .filter(
        (one) =>
          one.scrollWidth > one.clientWidth + 1 || one.getBoundingClientRect().right > clientWidth,
      )
      .map((one) => `cut: ${one.textContent?.trim()}`);
    return scrollWidth > clientWidth ? [...cut, `${scrollWidth - clientWidth} px too wide`] : cut;
  });

/** One way to look at a page: the second size checks what differs there, and so does the dark theme. */
export interface Look {
  theme: 'light' | 'dark';
  width: number;
  height: number;
  /** Which of axe's rules: contrast is all that differs between the themes. */
  rules: 'all' | 'contrast' | 'none';
}

export const LOOKS: readonly Look[] = [
  { theme: 'light', width: 1280, height: 800, rules: 'all' },
  { theme: 'dark', width: 1280, height: 800, rules: 'contrast' },
  { theme: 'dark', width: 390, height: 844, rules: 'none' },
  { theme: 'light', width: 390, height: 844, rules: 'all' },
  // The smallest phone, and a desk at 200 %: WCAG 1.4.10 and 1.4.4.
  { theme: 'light', width: 320, height: 640, rules: 'none' },
  { theme: 'light', width: 640, height: 400, rules: 'none' },
];

const CONTRAST: RunOptions = { runOnly: { type: 'rule', values: ['color-contrast'] } };

/**
 * Looks at the page as it stands, in each way; the page is loaded once.
 * @param more what else is looked for in each
 */
export async function faultsIn(
  page: Page,
  looks: readonly Look[],
  more: () => Promise<string[]> = () => Promise.resolve([]),
): Promise<string[]> {
  const faults: string[] = [];
  for (const { theme, width, height, rules } of looks) {
    await page.setViewportSize({ width, height });
    await page.evaluate(
      (name) => document.documentElement.setAttribute('data-bs-theme', name),
      theme,
    );
    // What follows the size of the page does so within two frames.
    await page.evaluate(
      () => new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done))),
    );
    const found = [...(await layoutFaults(page)), ...(await more())];
    if (rules !== 'none') {
      found.push(...(await axeFaults(page, rules === 'contrast' ? CONTRAST : {})));
    }
    faults.push(...found.map((fault) => `${theme}, ${width} px: ${fault}`));
  }
  return faults;
}

/** Pages that stand by themselves follow what the device says of its theme. */
export async function plainFaults(page: Page): Promise<string[]> {
  const faults: string[] = [];
  for (const colorScheme of ['light', 'dark'] as const) {
    await page.emulateMedia({ colorScheme });
    for (const width of [320, 390, 1280]) {
      await page.setViewportSize({ width, height: 844 });
      const found = [...(await axeFaults(page)), ...(await layoutFaults(page))];
      faults.push(...found.map((fault) => `${colorScheme}, ${width} px: ${fault}`));
    }
  }
  return faults;
}
