/** What was added to a map that stays as it is: nothing is copied. */
export class LayeredMap<K, V> implements ReadonlyMap<K, V> {
  private readonly own = new Map<K, V>();
  /** Keys of the base that have another value here. */
  private hidden = 0;

  constructor(private readonly base: ReadonlyMap<K, V>) {}

  get size(): number {
    return this.base.size + this.own.size - this.hidden;
  }

  get(key: K): V | undefined {
    return this.own.has(key) ? this.own.get(key) : this.base.get(key);
  }

  has(key: K): boolean {
    return this.own.has(key) || this.base.has(key);
  }

  set(key: K, value: V): this {
    if (!this.own.has(key) && this.base.has(key)) this.hidden++;
    this.own.set(key, value);
    return this;
  }

  /** The base first; what has another value here stands where it stood there. */
  *entries(): MapIterator<[K, V]> {
    for (const [key, value] of this.base) yield [key, this.own.has(key) ? (this.own.get(key) as V) : value];
    for (const entry of this.own) if (!this.base.has(entry[0])) yield entry;
  }

  *keys(): MapIterator<K> {
    for (const [key] of this.entries()) yield key;
  }

  *values(): MapIterator<V> {
    for (const [, value] of this.entries()) yield value;
  }

  forEach(each: (value: V, key: K, map: ReadonlyMap<K, V>) => void): void {
    for (const [key, value] of this.entries()) each(value, key, this);
  }

  [Symbol.iterator](): MapIterator<[K, V]> {
    return this.entries();
  }
}
