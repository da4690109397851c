import { computed, Injectable, signal } from '@angular/core';
import type { ProbedOutlets } from '../stage/outlet-lens';
import type { StageEngine } from '../stage/stage-engine';

/** A point whose values are read. */
export interface Pin {
  /** 1…3; 0 follows the pointer. */
  readonly number: number;
  /** World space, metres. */
  readonly position: readonly number[];
  readonly copy: number;
  readonly values: ProbedOutlets['values'];
  /** Something else is seen there now; the values are the last ones. */
  readonly hidden: boolean;
}

export const MOST_PINS = 3;
const LONGEST_WAIT_MS = 10_000;
const POLL_MS = 50;
/** Something nearer to a pin than this part of its distance from the eye is the pin's own point. */
const SAME_PLACE = 0.05;

interface Reading {
  readonly kind: 'press' | 'pointer' | 'refresh';
  readonly task: () => Promise<void>;
}

/** Points of the picture whose values are read: up to three that stay, and one that follows the pointer. */
@Injectable()
export class Probes {
  private readonly placed = signal<readonly Pin[]>([]);
  private readonly pointed = signal<Pin | undefined>(undefined);
  private busy = false;
  private waiting: readonly Reading[] = [];

  readonly pins = this.placed.asReadonly();
  /** Everything whose values are shown, those that stay first. */
  readonly points = computed((): readonly Pin[] => {
    const follower = this.pointed();
    return follower ? [...this.placed(), follower] : this.placed();
  });
  /** What was clicked where the material is not seen. */
  readonly refusal = signal<string | undefined>(undefined);

  /** Places a pin, CSS pixels from the picture's top left; the oldest makes room for a fourth. */
  async pin(engine: StageEngine, x: number, y: number): Promise<void> {
    await this.alone('press', async () => {
      // Whoever presses before the program is there waits for it.
      for (let waited = 0; !engine.canProbe && waited < LONGEST_WAIT_MS; waited += POLL_MS)
        await new Promise((resolve) => setTimeout(resolve, POLL_MS));
      const found = await engine.probe(x, y);
      this.refusal.set(found ? undefined : 'No part there has this material: there are no values.');
      if (!found) return;
      const kept = this.placed().length >= MOST_PINS ? this.placed().slice(1) : this.placed();
      const free = [1, 2, 3].find((number) => kept.every((pin) => pin.number !== number)) ?? MOST_PINS;
      this.placed.set([...kept, { number: free, ...found, hidden: false }]);
    });
  }

  async followPointer(engine: StageEngine, x: number, y: number): Promise<void> {
    await this.alone('pointer', async () => {
      const found = await engine.probe(x, y);
      this.pointed.set(found && { number: 0, ...found, hidden: false });
    });
  }

  leavePointer(): void {
    this.pointed.set(undefined);
  }

  remove(number: number): void {
    this.placed.update((pins) => pins.filter((pin) => pin.number !== number));
  }

  clear(): void {
    this.placed.set([]);
    this.pointed.set(undefined);
    this.refusal.set(undefined);
  }

  /** Reads all pins again. */
  async refresh(engine: StageEngine | undefined): Promise<void> {
    if (!engine || this.placed().length === 0) return;
    await this.alone('refresh', async () => {
      const read: Pin[] = [];
      for (const pin of this.placed()) read.push(await this.read(engine, pin));
      this.placed.update((pins) =>
        pins.map((pin) => read.find((each) => each.number === pin.number && each.position === pin.position) ?? pin),
      );
    });
  }

  private async read(engine: StageEngine, pin: Pin): Promise<Pin> {
    const at = engine.placeOf(pin.position);
    const found = at && (await engine.probe(at.x, at.y));
    const away = found ? Math.hypot(...found.position.map((each, axis) => each - (pin.position[axis] ?? 0))) : Infinity;
    const same = found?.copy === pin.copy && away < SAME_PLACE * Math.max(1, Math.hypot(...pin.position));
    return found && same ? { ...pin, values: found.values, hidden: false } : { ...pin, hidden: true };
  }

  /** One reading at a time. Of pointer moves and refreshes that come meanwhile only the last is done; no press is lost. */
  private async alone(kind: Reading['kind'], task: Reading['task']): Promise<void> {
    if (this.busy) {
      this.waiting = [...this.waiting.filter((each) => kind === 'press' || each.kind !== kind), { kind, task }];
      return;
    }
    this.busy = true;
    try {
      await task();
    } finally {
      this.busy = false;
      const [next, ...rest] = this.waiting;
      this.waiting = rest;
      if (next) void this.alone(next.kind, next.task);
    }
  }
}
