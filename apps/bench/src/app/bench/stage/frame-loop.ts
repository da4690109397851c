import { firstValueFrom, Subject } from 'rxjs';
import type { Opening } from './opening';

/** Time as pictures see it: that of the screen, or in specs one that is told. Milliseconds. */
export interface FrameClock {
  now(): number;
  /** Before the next picture of the screen. @returns how it is called off */
  nextFrame(run: (now: number) => void): () => void;
  /** @returns how it is called off */
  after(milliseconds: number, run: () => void): () => void;
}

export const SCREEN_CLOCK: FrameClock = {
  now: () => performance.now(),
  nextFrame: (run) => {
    const handle = requestAnimationFrame(run);
    return () => cancelAnimationFrame(handle);
  },
  after: (milliseconds, run) => {
    const timer = setTimeout(run, milliseconds);
    return () => clearTimeout(timer);
  },
};

/** What draws when the loop says so. */
export interface FramePainter {
  /**
   * Goes on by so many seconds.
   *
   * @returns whether something moves by hand, and whether a clock runs; nothing where there is nothing to draw with
   */
  advance(elapsed: number): { readonly moved: boolean; readonly runs: boolean } | undefined;
  /** Draws. @param small another picture comes soon @returns milliseconds; nothing where the device went meanwhile */
  paint(small: boolean): Promise<number | undefined>;
  /** A picture was drawn. @param rests nothing was asked for meanwhile, and it is whole */
  painted(rests: boolean): void;
  /** Whether something is on its way by itself: the camera, what follows the pointer. */
  goesOn(): boolean;
  /** What is shown is not what is wanted any more. */
  outdated(): void;
}

/** For so long nothing has moved before a picture is drawn whole. */
const QUIET_MS = 160;
/** A pause is no motion: whoever comes back does not jump. Seconds. */
const LONGEST_STEP = 0.1;

/** When pictures are drawn: on demand only, one at a time, small while something moves, whole when it rests. */
export class FrameLoop {
  private dirty = false;
  private drawing = false;
  private stopped = false;
  private halted = false;
  /** Of each device its own: what comes back to another one is late. */
  private turn = 0;
  private lastMoved = -Infinity;
  private lastFrame = 0;
  /** Milliseconds that the last picture took. */
  private cost = 0;
  private callOff?: () => void;
  private callOffRest?: () => void;
  private readonly freed = new Subject<void>();

  constructor(
    private readonly clock: FrameClock,
    private readonly opening: Opening,
    private readonly painter: FramePainter,
  ) {}

  /** Something is moved by hand, or by what has come: pictures are small for a moment. */
  moved(): void {
    this.lastMoved = this.clock.now();
    this.request();
  }

  /** Asks for another picture. */
  request(): void {
    this.dirty = true;
    this.painter.outdated();
    if (!this.drawing && !this.callOff && !this.stopped && !this.halted) this.callOff = this.clock.nextFrame((now) => void this.frame(now));
  }

  /** Draws something else between two pictures: reading it back would wait for one that was begun meanwhile. */
  async between<T>(work: () => Promise<T>): Promise<T | undefined> {
    while (this.drawing && !this.halted) await firstValueFrom(this.freed);
    if (this.halted) return undefined;
    this.drawing = true;
    const { turn } = this;
    try {
      return await work();
    } finally {
      if (turn === this.turn) {
        this.free();
        if (this.dirty) this.request();
      }
    }
  }

  /** The device is gone: nothing is drawn until `resume`. */
  halt(): void {
    this.halted = true;
    this.cancel();
    this.freed.next();
  }

  /** Another device is there; what the one before has begun is not waited for. */
  resume(): void {
    this.turn++;
    this.halted = false;
    this.drawing = false;
  }

  stop(): void {
    this.stopped = true;
    this.cancel();
    this.callOffRest?.();
  }

  private cancel(): void {
    this.callOff?.();
    this.callOff = undefined;
  }

  private free(): void {
    this.drawing = false;
    this.freed.next();
  }

  private async frame(now: number): Promise<void> {
    this.callOff = undefined;
    // Something else is drawn at the moment; after it comes the next picture.
    if (this.drawing) return;
    const pause = this.opening.pause(now, this.lastFrame, this.cost);
    if (pause > 0) {
      this.requestAfter(pause);
      return;
    }
    const elapsed = Math.min((now - this.lastFrame) / 1000, LONGEST_STEP);
    this.lastFrame = now;
    const { turn } = this;
    const motion = this.painter.advance(elapsed);
    if (!motion) return;
    this.dirty = false;
    this.drawing = true;
    if (motion.moved) this.lastMoved = now;
    const small = motion.runs || now - this.lastMoved < QUIET_MS || this.opening.lasts;
    if (!small) this.opening.end();
    const cost = await this.painter.paint(small);
    // Another device draws now.
    if (cost === undefined || turn !== this.turn) return;
    this.cost = cost;
    const rests = !small && !this.dirty;
    this.free();
    this.painter.painted(rests);
    this.afterFrame(motion.runs, small);
  }

  private afterFrame(runs: boolean, small: boolean): void {
    if (this.stopped) return;
    if (this.dirty || runs || this.painter.goesOn()) {
      this.request();
      return;
    }
    if (small) this.requestAfter((this.opening.lasts ? this.opening.left : QUIET_MS) + 10);
    else this.callOffRest?.();
  }

  private requestAfter(milliseconds: number): void {
    this.callOffRest?.();
    this.callOffRest = this.clock.after(milliseconds, () => this.request());
  }
}
