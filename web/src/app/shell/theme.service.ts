import { Injectable, signal } from '@angular/core';

const KEY = 'needlecase.theme';

/** Light or dark; theme.js has set it before the first paint. */
@Injectable({ providedIn: 'root' })
export class ThemeService {
  readonly #page = document.documentElement;
  readonly dark = signal(this.#page.getAttribute('data-bs-theme') === 'dark');

  turn(): void {
    const theme = this.dark() ? 'light' : 'dark';
    this.#page.setAttribute('data-bs-theme', theme);
    this.dark.set(theme === 'dark');
    try {
      localStorage.setItem(KEY, theme);
    } catch {
      /* private mode: it holds for this visit */
    }
  }
}
