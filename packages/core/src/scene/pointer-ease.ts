/** How far the pointer counts as over a part: runs to 1 while it is there, back to 0 when it is not, smoothly at both ends. */
export class PointerEase {
  /** Linear progress by the seconds a whole way takes. */
  private readonly progress = new Map<number, number>();
  inside = false;

  /** 0…1 for a live input that takes this many seconds. */
  value(period: number): number {
    const known = this.progress.get(period);
    if (known === undefined) this.progress.set(period, this.inside ? 1 : 0);
    const t = known ?? (this.inside ? 1 : 0);
    return t * t * (3 - 2 * t);
  }

  /** Lets time pass; true while something is still on its way. */
  advance(seconds: number): boolean {
    const goal = this.inside ? 1 : 0;
    let moving = false;
    for (const [period, at] of this.progress) {
      if (at === goal) continue;
      const step = period > 0 ? seconds / period : 1;
      const next = goal > at ? Math.min(at + step, 1) : Math.max(at - step, 0);
      this.progress.set(period, next);
      moving ||= next !== goal;
    }
    return moving;
  }

  /** Whether anything is on its way. */
  get moving(): boolean {
    const goal = this.inside ? 1 : 0;
    return [...this.progress.values()].some((at) => at !== goal);
  }
}
