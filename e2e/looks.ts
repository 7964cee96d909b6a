import type { Page } from '@playwright/test';
import axe, { type RunOptions } from 'axe-core';

/** What axe finds wrong with a page, a line each. */
export async function axeFaults(page: Page, options: RunOptions = {}): Promise<string[]> {
  if (!(await page.evaluate(() => 'axe' in window))) await page.evaluate(axe.source);
  return page.evaluate(async (given) => {
    const { violations } = await (window as unknown as { axe: typeof axe }).axe.run(document, {
      resultTypes: ['violations'],
      ...given,
    });
    return violations.map(({ id, nodes }) => `${id}: ${nodes.map(({ html }) => html).join(' | ')}`);
  }, options as object);
}

/** Buttons whose words are cut or that stick out, and how far the page is wider than its window. */
export const layoutFaults = (page: Page): Promise<string[]> =>
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
  { theme: 'light', width: 360, height: 640, rules: 'none' },
];

const CONTRAST: RunOptions = { runOnly: { type: 'rule', values: ['color-contrast'] } };

/** Looks at the page as it stands, in each way; the page is loaded once. */
export async function faultsIn(page: Page, looks: readonly Look[]): Promise<string[]> {
  const faults: string[] = [];
  for (const { theme, width, height, rules } of looks) {
    await page.setViewportSize({ width, height });
    await page.evaluate(
      (name) => document.documentElement.setAttribute('data-bs-theme', name),
      theme,
    );
    const found = await layoutFaults(page);
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
