import { FrameLoop, type FrameClock } from './frame-loop';
import { Opening } from './opening';

/** A clock that is told what time it is. */
class ToldClock implements FrameClock {
  private time = 1000;
  private frame?: (now: number) => void;
  private timers: { readonly at: number; readonly run: () => void }[] = [];

  now(): number {
    return this.time;
  }
  nextFrame(run: (now: number) => void): () => void {
    this.frame = run;
    return () => (this.frame = undefined);
  }
  after(milliseconds: number, run: () => void): () => void {
    const timer = { at: this.time + milliseconds, run };
    this.timers.push(timer);
    return () => (this.timers = this.timers.filter((each) => each !== timer));
  }
  get waits(): boolean {
    return this.frame !== undefined;
  }
  /** Lets time pass, with its timers, and then the screen ask for a picture. */
  async pass(milliseconds: number): Promise<void> {
    this.time += milliseconds;
    const due = this.timers.filter(({ at }) => at <= this.time);
    this.timers = this.timers.filter(({ at }) => at > this.time);
    for (const { run } of due) run();
    const { frame } = this;
    this.frame = undefined;
    frame?.(this.time);
    for (let turn = 0; turn < 5; turn++) await Promise.resolve();
  }
}

describe('The loop of pictures', () => {
  let clock: ToldClock;
  let waits: boolean;
  let loop: FrameLoop;
  let ready: boolean;
  let motion: { moved: boolean; runs: boolean };
  let goesOn: boolean;
  /** What was drawn, in a word each. */
  let drawn: string[];
  let elapsed: number[];
  let rested: boolean[];
  let finish: (() => void) | undefined;
  let holds: boolean;

  beforeEach(() => {
    clock = new ToldClock();
    [waits, ready, goesOn, holds] = [false, true, false, false];
    motion = { moved: false, runs: false };
    [drawn, elapsed, rested] = [[], [], []];
    loop = new FrameLoop(
      clock,
      new Opening(
        () => waits,
        () => clock.now(),
      ),
      {
        advance: (seconds) => {
          if (!ready) return undefined;
          elapsed.push(seconds);
          return motion;
        },
        paint: async (small) => {
          drawn.push(small ? 'small' : 'whole');
          if (holds) await new Promise<void>((resolve) => (finish = resolve));
          return 20;
        },
        painted: (rests) => void rested.push(rests),
        goesOn: () => goesOn,
        outdated: () => undefined,
      },
    );
  });

  it('draws small while something moves, whole when it is quiet, and then no more', async () => {
    loop.moved();
    await clock.pass(16);
    expect(drawn).toEqual(['small']);
    await clock.pass(100);
    expect(drawn).withContext('not quiet for long enough').toEqual(['small']);
    await clock.pass(80);
    await clock.pass(16);
    expect(drawn).toEqual(['small', 'whole']);
    expect(rested).toEqual([false, true]);
    for (let turn = 0; turn < 10; turn++) await clock.pass(1000);
    expect(drawn.length).toBe(2);
    expect(clock.waits).toBeFalse();
  });

  it('draws on while a clock runs, small, and by no longer steps than a tenth of a second', async () => {
    motion = { moved: false, runs: true };
    loop.request();
    await clock.pass(16);
    await clock.pass(50);
    await clock.pass(5000);
    expect(drawn).toEqual(['small', 'small', 'small']);
    expect(elapsed.slice(1)).toEqual([0.05, 0.1]);
    motion = { moved: false, runs: false };
    await clock.pass(16);
    expect(drawn.at(-1)).toBe('whole');
  });

  it('draws one picture at a time, and once more for all that was asked for meanwhile', async () => {
    holds = true;
    loop.request();
    await clock.pass(200);
    loop.moved();
    loop.moved();
    loop.request();
    await clock.pass(16);
    expect(drawn.length).toBe(1);
    holds = false;
    finish?.();
    await clock.pass(0);
    expect(rested).withContext('more was asked for').toEqual([false]);
    await clock.pass(16);
    expect(drawn).toEqual(['whole', 'small']);
  });

  it('keeps pictures small and few while the first programs are on their way, but not for ever', async () => {
    const opening = new Opening(
      () => waits,
      () => clock.now(),
    );
    waits = true;
    const sizes: string[] = [];
    const first = new FrameLoop(clock, opening, {
      advance: () => motion,
      paint: async (small) => {
        sizes.push(small ? 'small' : 'whole');
        return 300;
      },
      painted: () => undefined,
      goesOn: () => false,
      outdated: () => undefined,
    });
    opening.begin();
    first.request();
    await clock.pass(10);
    first.request();
    await clock.pass(400);
    expect(sizes).withContext('one part in three of the time').toEqual(['small']);
    await clock.pass(600);
    await clock.pass(16);
    expect(sizes).toEqual(['small', 'small']);
    await clock.pass(3100);
    await clock.pass(16);
    expect(sizes.at(-1)).toBe('whole');
  });

  it('draws something else only between two pictures', async () => {
    holds = true;
    loop.request();
    await clock.pass(200);
    const done: string[] = [];
    const between = loop.between(async () => void done.push('still'));
    await clock.pass(0);
    expect(done).toEqual([]);
    finish?.();
    await between;
    expect(done).toEqual(['still']);
    holds = false;
    loop.request();
    await clock.pass(200);
    expect(drawn.length).toBe(2);
  });

  it('draws nothing without a device, and goes on with another one', async () => {
    holds = true;
    loop.request();
    await clock.pass(200);
    const waiting = loop.between(async () => 'still');
    loop.halt();
    expect(await waiting).toBeUndefined();
    loop.request();
    expect(clock.waits).toBeFalse();
    loop.resume();
    holds = false;
    loop.request();
    await clock.pass(200);
    expect(drawn).toEqual(['whole', 'whole']);
    // What the device before had begun comes too late.
    finish?.();
    await clock.pass(0);
    expect(rested).toEqual([true]);
  });

  it('draws nothing where there is nothing to draw with, nor once it was stopped', async () => {
    ready = false;
    loop.request();
    await clock.pass(16);
    expect([drawn.length, clock.waits]).toEqual([0, false]);
    ready = true;
    loop.stop();
    loop.request();
    expect(clock.waits).toBeFalse();
  });
});
