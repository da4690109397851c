import type { RigEnvironment } from '../document/light-rig';
import type { EnvironmentPixels } from '../image/environment/environment-pixels';
import type { EnvironmentPasses, ReadyEnvironment } from './environment-passes';

type Load = (assets: readonly string[]) => Promise<EnvironmentPixels | undefined>;

/** A day and a night and what was tried in between. */
const MOST_ENVIRONMENTS = 4;

/**
 * Environments on the device, by what they are made of. While one is on its way the one before it stays in the picture, so
 * that a swap does not flash.
 */
export class EnvironmentBank {
  private readonly ready = new Map<string, ReadyEnvironment>();
  private readonly waiting = new Set<string>();
  private last?: string;
  load: Load = async () => undefined;
  onArrival: () => void = () => undefined;
  /** Told the part of the filtering that is done, 0…1. */
  onProgress: (share: number) => void = () => undefined;
  /** Comes back when there is time for the next piece of work. */
  next: () => Promise<void> = async () => undefined;

  constructor(private readonly passes: EnvironmentPasses) {}

  /** What was found last. */
  get current(): ReadyEnvironment | undefined {
    return this.last === undefined ? undefined : this.ready.get(this.last);
  }

  /** The rig's environment, or until it has come the last one; it is asked for once. */
  find(environment: Pick<RigEnvironment, 'assets'> | undefined): ReadyEnvironment | undefined {
    if (!environment) {
      this.last = undefined;
      return undefined;
    }
    const key = environment.assets.join(' ');
    const known = this.ready.get(key);
    if (known) {
      this.ready.delete(key);
      this.ready.set(key, known);
      this.last = key;
      return known;
    }
    if (!this.waiting.has(key)) void this.fetch(key, environment.assets);
    return this.current;
  }

  /** Whether the rig's own environment can be drawn. */
  has(environment: Pick<RigEnvironment, 'assets'>): boolean {
    return this.ready.has(environment.assets.join(' '));
  }

  /** Puts an environment on the device before a picture is drawn; one that can not be had is left out. */
  async bring({ assets }: Pick<RigEnvironment, 'assets'>, load: Load): Promise<void> {
    const key = assets.join(' ');
    const pixels = this.ready.has(key) ? undefined : await load(assets).catch(() => undefined);
    if (pixels) this.put(key, await this.passes.prepare(pixels, this.next));
  }

  private async fetch(key: string, assets: readonly string[]): Promise<void> {
    this.waiting.add(key);
    this.onProgress(0);
    const pixels = await this.load(assets).catch(() => undefined);
    // Without pixels it stays among the waiting: asking again at every picture would not help.
    if (!pixels) return this.onProgress(1);
    const made = await this.passes.prepare(pixels, this.next, this.onProgress);
    this.waiting.delete(key);
    this.put(key, made);
    this.onArrival();
  }

  private put(key: string, made: ReadyEnvironment): void {
    this.ready.set(key, made);
    for (const [old, each] of this.ready) {
      if (this.ready.size <= MOST_ENVIRONMENTS) return;
      if (old === this.last || old === key) continue;
      this.passes.destroy(each);
      this.ready.delete(old);
    }
  }
}
