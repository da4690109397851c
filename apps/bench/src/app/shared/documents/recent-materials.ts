import { Injectable } from '@angular/core';

const KEY = 'brelvin-recent';
const MOST = 20;

/** Which materials were opened in this browser, newest first. */
@Injectable({ providedIn: 'root' })
export class RecentMaterials {
  ids(): readonly string[] {
    try {
      const stored: unknown = JSON.parse(localStorage.getItem(KEY) ?? '[]');
      return Array.isArray(stored) ? stored.filter((each): each is string => typeof each === 'string') : [];
    } catch {
      return [];
    }
  }

  opened(id: string): void {
    try {
      localStorage.setItem(KEY, JSON.stringify([id, ...this.ids().filter((each) => each !== id)].slice(0, MOST)));
    } catch {
      // A browser that keeps nothing only loses a convenience.
    }
  }
}
