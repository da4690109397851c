import type { RigEnvironment } from '@brelvin/contract';
import type { EnvironmentPixels } from '../../image/environment/environment-pixels';
import { WHOLE_ENVIRONMENT, type EnvironmentNeed, type EnvironmentPasses, type ReadyEnvironment } from './environment-passes';

type Load = (assets: readonly string[]) => Promise<EnvironmentPixels | undefined>;

const ONLY_LIGHT: EnvironmentNeed = { sharp: false, filtered: false };
/** A day and a night and what was tried in between. */
const MOST_ENVIRONMENTS = 4;

/**
 * Environments on the device, by what they are made of, as far as pictures need them. While one is on its way the one before
 * it stays in the picture, so that a swap does not flash.
 */
export class EnvironmentBank {
  private readonly ready = new Map<string, ReadyEnvironment>();
  private readonly waiting = new Set<string>();
  private last?: string;
  private coming = 0;
  load: Load = async () => undefined;
  onArrival: () => void = () => undefined;
  /** Told the part of the work that is done, 0…1. */
  onProgress: (share: number) => void = () => undefined;
  /** Comes back when there is time for the next piece of work. */
  next: () => Promise<void> = async () => undefined;

  constructor(private readonly passes: EnvironmentPasses) {}

  /** Whether something of an environment that was asked for is still on its way. */
  get awaits(): boolean {
    return this.coming > 0;
  }

  /** What was found last. */
  get current(): ReadyEnvironment | undefined {
    return this.last === undefined ? undefined : this.ready.get(this.last);
  }

  /** The rig's environment, or until it has come the last one; what it lacks is asked for once. */
  find(environment: Pick<RigEnvironment, 'assets' | 'light'> | undefined, need = ONLY_LIGHT): ReadyEnvironment | undefined {
    if (!environment) {
      this.last = undefined;
      return undefined;
    }
    const key = keyOf(environment);
    const known = this.ready.get(key);
    const told = environment.light && !need.sharp && !need.filtered;
    if (told && !known) return { harmonics: environment.light };
    if (!known || !suffices(known, need)) this.ask(key, environment.assets, need);
    if (!known) return this.current;
    this.ready.delete(key);
    this.ready.set(key, known);
    this.last = key;
    return known;
  }

  /** Puts an environment on the device before a picture is drawn. @returns whether it is there; what cannot be had is left out */
  async bring(environment: Pick<RigEnvironment, 'assets'>, load: Load): Promise<boolean> {
    const key = keyOf(environment);
    const known = this.ready.get(key);
    if (known && suffices(known, WHOLE_ENVIRONMENT)) return true;
    const pixels = await load(environment.assets).catch(() => undefined);
    if (pixels) this.put(key, await this.passes.prepare(pixels, WHOLE_ENVIRONMENT, this.next));
    return pixels !== undefined;
  }

  private ask(key: string, assets: readonly string[], need: EnvironmentNeed): void {
    const question = `${key} ${need.sharp} ${need.filtered}`;
    if (this.waiting.has(question)) return;
    this.waiting.add(question);
    void this.fetch(key, assets, need, question);
  }

  private async fetch(key: string, assets: readonly string[], need: EnvironmentNeed, question: string): Promise<void> {
    this.onProgress(0);
    this.coming++;
    const pixels = await this.load(assets).catch(() => undefined);
    if (pixels) {
      this.put(key, await this.passes.prepare(pixels, need, this.next, this.onProgress));
      // Without pixels it stays among the waiting: asking again at every picture would not help.
      this.waiting.delete(question);
    }
    this.coming--;
    this.onArrival();
    this.onProgress(1);
  }

  /** Takes one up, unless what is there has more. */
  private put(key: string, made: ReadyEnvironment): void {
    const before = this.ready.get(key);
    const less = before !== undefined && suffices(before, { sharp: made.sharp !== undefined, filtered: made.filtered !== undefined });
    const gone = less ? made : before;
    if (!less) this.ready.set(key, made);
    if (gone) this.passes.destroy(gone);
    for (const [old, each] of this.ready) {
      if (this.ready.size <= MOST_ENVIRONMENTS) return;
      if (old === this.last || old === key) continue;
      this.passes.destroy(each);
      this.ready.delete(old);
    }
  }
}

function keyOf({ assets }: Pick<RigEnvironment, 'assets'>): string {
  return assets.join(' ');
}

function suffices({ sharp, filtered }: ReadyEnvironment, need: EnvironmentNeed): boolean {
  return (!need.sharp || sharp !== undefined) && (!need.filtered || filtered !== undefined);
}
