/** For so long pictures stay small while the first programs are on their way: a whole one would hold them up. */
const PATIENT_MS = 3000;
/** One part in so many of the time may go into pictures meanwhile. */
const SHARE = 3;

/** The first moments of a Stage: what is drawn then is soon drawn anew, so little is spent on it. */
export class Opening {
  private until = 0;

  /** @param waits whether programs are on their way @param now milliseconds */
  constructor(
    private readonly waits: () => boolean,
    private readonly now = (): number => performance.now(),
  ) {}

  begin(): void {
    this.until = this.now() + PATIENT_MS;
  }

  /** A whole picture is drawn. */
  end(): void {
    this.until = 0;
  }

  get lasts(): boolean {
    return this.left > 0 && this.waits();
  }

  /** Milliseconds for which it may still last. */
  get left(): number {
    return this.until - this.now();
  }

  /** Milliseconds until the next picture, after one that was begun at `last` and took `cost`. */
  pause(now: number, last: number, cost: number): number {
    return this.lasts ? last + SHARE * cost - now : 0;
  }
}
