import { Injectable, signal } from '@angular/core';

export type Room = 'dark' | 'mid' | 'light';
export const ROOMS: readonly { readonly id: Room; readonly label: string }[] = [
  { id: 'dark', label: 'Dark' },
  { id: 'mid', label: 'Mid' },
  { id: 'light', label: 'Light' },
];
const KEY = 'brelvin.room';

/** The grey surroundings in which colours are judged; remembered in this browser. */
@Injectable({ providedIn: 'root' })
export class Rooms {
  private readonly chosen = signal<Room>('dark');
  readonly room = this.chosen.asReadonly();

  restore(): void {
    const stored = localStorage.getItem(KEY);
    this.choose(ROOMS.find((room) => room.id === stored)?.id ?? 'dark');
  }

  choose(room: Room): void {
    this.chosen.set(room);
    document.documentElement.dataset['room'] = room;
    localStorage.setItem(KEY, room);
  }
}
