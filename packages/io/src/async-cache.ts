/**
 * The last few things that were asked for, by a key, as many as weigh no more than a limit; the last one is always kept. What
 * fails is forgotten.
 */
export class AsyncCache<V> {
  private readonly kept = new Map<string, { readonly promise: Promise<V>; here?: { readonly value: V; readonly weight: number } }>();

  /** @param weigh of what has come; one each when absent */
  constructor(
    private readonly most: number,
    private readonly weigh: (value: V) => number = () => 1,
  ) {}

  get(key: string, make: () => Promise<V>): Promise<V> {
    const known = this.kept.get(key);
    if (!known) return this.keep(key, make());
    this.kept.delete(key);
    this.kept.set(key, known);
    return known.promise;
  }

  /** What has come already. */
  now(key: string): V | undefined {
    return this.kept.get(key)?.here?.value;
  }

  keep(key: string, promise: Promise<V>): Promise<V> {
    const entry = { promise, here: undefined as { value: V; weight: number } | undefined };
    this.kept.delete(key);
    this.kept.set(key, entry);
    promise.then(
      (value) => {
        entry.here = { value, weight: this.weigh(value) };
        this.forget(key);
      },
      () => {
        if (this.kept.get(key) === entry) this.kept.delete(key);
      },
    );
    return promise;
  }

  private forget(last: string): void {
    let weight = 0;
    for (const { here } of this.kept.values()) weight += here?.weight ?? 0;
    for (const [key, { here }] of this.kept) {
      if (weight <= this.most) return;
      if (key === last || !here) continue;
      this.kept.delete(key);
      weight -= here.weight;
    }
  }
}
