import { statfs } from 'node:fs/promises';
import type { DatabaseConnection } from './store/database';

/** Bytes below which PostgreSQL is about to stop: it needs room to write down what it is told. */
const LEAST_ROOM = 256 * 1024 * 1024;

export interface Room {
  /** Bytes that are free, and of the whole disk. */
  readonly free: number;
  readonly size: number;
}

/** What tells whether the server can go on serving. */
export interface Vitals {
  /** Connections to the database: those that are open, those that are idle, and requests that wait for one. */
  readonly pool: DatabaseConnection['pool'];
  /** Files that are being checked, and that wait for it. */
  readonly files: () => { readonly checked: number; readonly waiting: number };
  /** The disk with the database; nothing where that is on another machine. */
  readonly disk: () => Promise<Room | undefined>;
}

/** The disk under a folder; nothing where there is no such folder, or none is named. */
export async function roomIn(folder: string | undefined): Promise<Room | undefined> {
  if (folder === undefined) return undefined;
  try {
    const { bavail, blocks, bsize } = await statfs(folder);
    return { free: bavail * bsize, size: blocks * bsize };
  } catch {
    return undefined;
  }
}

/** Whether there is room for what will be saved next. */
export function isRoomy(room: Room | undefined): boolean {
  return room === undefined || room.free >= LEAST_ROOM;
}
