/** What was used last, by a key: at most so many. What was used longest ago makes room. */
export class LruCache<V> {
  /** The one that was used last at the end. */
  private readonly kept = new Map<string, V>();

  /** @param letGo told each that leaves, also one that another takes the place of */
  constructor(
    private readonly most: number,
    private readonly letGo: (value: V) => void = () => undefined,
  ) {}

  get size(): number {
    return this.kept.size;
  }

  /** Whether it is kept; that is no use of it. */
  has(key: string): boolean {
    return this.kept.has(key);
  }

  get(key: string): V | undefined {
    const value = this.kept.get(key);
    if (value === undefined) return undefined;
    this.kept.delete(key);
    this.kept.set(key, value);
    return value;
  }

  set(key: string, value: V): void {
    const before = this.kept.get(key);
    this.kept.delete(key);
    this.kept.set(key, value);
    if (before !== undefined && before !== value) this.letGo(before);
    this.trim(this.most);
  }

  delete(key: string): void {
    const value = this.kept.get(key);
    this.kept.delete(key);
    if (value !== undefined) this.letGo(value);
  }

  /** Lets go of all but so many. */
  trim(most: number): void {
    for (const key of [...this.kept.keys()].slice(0, Math.max(0, this.kept.size - most))) this.delete(key);
  }
}
