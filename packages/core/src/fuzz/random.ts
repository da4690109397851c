/** Numbers that look random and are the same for the same seed (Vigna, "An experimental exploration of Marsaglia's xorshift generators"; here the 32-bit mixer of splitmix). */
export class Random {
  constructor(private state: number) {}

  /** 0 ≤ x < 1 */
  next(): number {
    this.state = (this.state + 0x9e3779b9) | 0;
    let mixed = this.state ^ (this.state >>> 16);
    mixed = Math.imul(mixed, 0x21f0aaad);
    mixed ^= mixed >>> 15;
    mixed = Math.imul(mixed, 0x735a2d97);
    return ((mixed ^ (mixed >>> 15)) >>> 0) / 2 ** 32;
  }

  /** A whole number from 0 to `below` − 1. */
  whole(below: number): number {
    return Math.floor(this.next() * below);
  }

  chance(share: number): boolean {
    return this.next() < share;
  }

  /** @throws RangeError when there is nothing to choose from */
  of<T>(list: readonly T[]): T {
    const found = list[this.whole(list.length)];
    if (found === undefined) throw new RangeError('nothing to choose from');
    return found;
  }
}
