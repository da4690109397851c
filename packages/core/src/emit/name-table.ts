/** Hands out names, none twice. */
export class NameTable {
  private readonly taken: Set<string>;
  private readonly byName = new Map<string, string>();

  /** @param clean makes a name one that the language may use */
  constructor(
    private readonly clean: (name: string) => string,
    taken: Iterable<string> = [],
  ) {
    this.taken = new Set(taken);
  }

  /** The same name of the same sort gets the same one again. */
  of(name: string, sort = ''): string {
    const key = `${sort} ${name}`;
    const known = this.byName.get(key);
    if (known !== undefined) return known;
    const wanted = this.clean(name);
    let free = wanted;
    for (let count = 2; this.taken.has(free); count++) free = `${wanted}_${count}`;
    this.taken.add(free);
    this.byName.set(key, free);
    return free;
  }

  get all(): ReadonlySet<string> {
    return this.taken;
  }
}
