interface Entry<T> {
  readonly taken: Promise<T>;
  users: number;
}

/** What a driver made of programs: of equal ones once, as long as somebody uses it. */
export class SharedPrograms<T> {
  private readonly entries = new Map<string, Entry<T>>();
  private made = 0;

  /** @param drop called with what nobody uses any more */
  constructor(private readonly drop: (made: T) => void = () => undefined) {}

  /** How many went through the driver. */
  get count(): number {
    return this.made;
  }

  /** Resolves to what was made, and to what gives it back; rejects as `make` does. */
  async take(key: string, make: () => Promise<T>): Promise<{ readonly made: T; readonly release: () => void }> {
    let entry = this.entries.get(key);
    if (!entry) {
      this.made++;
      entry = { taken: make(), users: 0 };
      this.entries.set(key, entry);
    }
    entry.users++;
    const release = (): void => this.release(key);
    try {
      return { made: await entry.taken, release };
    } catch (error) {
      release();
      throw error;
    }
  }

  private release(key: string): void {
    const entry = this.entries.get(key);
    if (!entry || --entry.users > 0) return;
    this.entries.delete(key);
    void entry.taken.then(this.drop, () => undefined);
  }
}
