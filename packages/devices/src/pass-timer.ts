import type { PassTimes } from '@brelvin/core';

/** What a device does between passes. */
export const RESOLVE = 'samples averaged';
export const MIPS = 'blur behind glass';

/** A drawing that takes longer is not repeated. */
const LONG_MS = 400;
const REPEATS = 3;

/**
 * Times the passes of a drawing where the device has no clock for them: by waiting for each, where the device can be waited for
 * on the spot; else it is drawn again and again with more and more of its passes, and what each adds is its time.
 */
export class PassTimer {
  /** While passes are timed: how many groups of passes of one label run, and which was met last. */
  private run?: { readonly most: number; readonly labels: string[] };
  /** While passes are waited for: told the label of the next one. */
  private next?: (label: string) => void;

  constructor(private readonly finished: () => Promise<void>) {}

  /** Whether a pass runs. */
  takes(label = ''): boolean {
    const { run } = this;
    this.next?.(label);
    if (!run) return true;
    if (run.labels.at(-1) !== label) run.labels.push(label);
    return run.labels.length <= run.most;
  }

  /** @param wait comes back when everything given to the device so far is done */
  async byWaiting(draw: () => void, wait: () => void): Promise<PassTimes> {
    // The first drawing may make the driver ready.
    draw();
    await this.finished();
    const quickest = this.waitedFor(draw, wait);
    const whole = (): number => [...quickest.values()].reduce((sum, each) => sum + each, 0);
    for (let again = 1; again < REPEATS && whole() < LONG_MS; again++)
      for (const [label, milliseconds] of this.waitedFor(draw, wait))
        quickest.set(label, Math.min(milliseconds, quickest.get(label) ?? Infinity));
    return { by: 'waiting', passes: [...quickest].map(([label, milliseconds]) => ({ label, milliseconds })) };
  }

  private waitedFor(draw: () => void, wait: () => void): Map<string, number> {
    const times = new Map<string, number>();
    let [label, since]: [string | undefined, number] = [undefined, 0];
    const end = (): void => {
      wait();
      const now = performance.now();
      if (label !== undefined) times.set(label, (times.get(label) ?? 0) + now - since);
      since = now;
    };
    this.next = (next) => {
      if (next === label) return;
      end();
      label = next;
    };
    try {
      draw();
    } finally {
      this.next = undefined;
    }
    end();
    return times;
  }

  async byDifference(draw: () => void): Promise<PassTimes> {
    const { labels } = await this.drawn(draw, Infinity);
    const passes = new Map<string, number>();
    let before = (await this.quickest(draw, 0)).milliseconds;
    for (const [index, label] of labels.entries()) {
      const { milliseconds } = await this.quickest(draw, index + 1);
      passes.set(label, (passes.get(label) ?? 0) + Math.max(0, milliseconds - before));
      before = Math.max(before, milliseconds);
    }
    return { by: 'difference', passes: [...passes].map(([label, milliseconds]) => ({ label, milliseconds })) };
  }

  private async quickest(draw: () => void, most: number): Promise<{ readonly milliseconds: number }> {
    let best = await this.drawn(draw, most);
    for (let again = 1; again < REPEATS && best.milliseconds < LONG_MS; again++) {
      const next = await this.drawn(draw, most);
      if (next.milliseconds < best.milliseconds) best = next;
    }
    return best;
  }

  private async drawn(draw: () => void, most: number): Promise<{ readonly milliseconds: number; readonly labels: readonly string[] }> {
    await this.finished();
    const run = (this.run = { most, labels: [] });
    const started = performance.now();
    try {
      draw();
    } finally {
      this.run = undefined;
    }
    await this.finished();
    return { milliseconds: performance.now() - started, labels: run.labels };
  }
}
