import { Injectable, signal } from '@angular/core';

export type Theme = 'dark' | 'mid' | 'light';
export const THEMES: readonly { readonly id: Theme; readonly label: string }[] = [
  { id: 'dark', label: 'Dark' },
  { id: 'mid', label: 'Mid' },
  { id: 'light', label: 'Light' },
];
const KEY = 'brelvin.room';

/** The grey surroundings in which colours are judged; remembered in this browser. */
@Injectable({ providedIn: 'root' })
export class Themes {
  private readonly chosen = signal<Theme>('dark');
  readonly current = this.chosen.asReadonly();

  restore(): void {
    const stored = localStorage.getItem(KEY);
    this.choose(THEMES.find(({ id }) => id === stored)?.id ?? 'dark');
  }

  choose(theme: Theme): void {
    this.chosen.set(theme);
    document.documentElement.dataset['room'] = theme;
    localStorage.setItem(KEY, theme);
  }
}
