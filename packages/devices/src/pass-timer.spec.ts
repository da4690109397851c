import { PassTimer } from './pass-timer';

/** A device of which each pass takes so long by a clock of its own. */
describe('A timer of passes', () => {
  const COSTS: Readonly<Record<string, number>> = { shadows: 500, surfaces: 900, view: 20 };
  let now = 0;
  let runs: string[] = [];
  const timer = new PassTimer(async () => undefined);
  const draw = (): void => {
    for (const label of ['shadows', 'surfaces', 'surfaces', 'view']) {
      if (!timer.takes(label)) continue;
      runs.push(label);
      now += COSTS[label] ?? 0;
    }
  };

  beforeEach(() => {
    [now, runs] = [0, []];
    spyOn(performance, 'now').and.callFake(() => now);
  });

  const TIMES = [
    { label: 'shadows', milliseconds: 500 },
    { label: 'surfaces', milliseconds: 1800 },
    { label: 'view', milliseconds: 20 },
  ];

  it('tells what each adds, by leaving out those behind', async () => {
    expect(await timer.byDifference(draw)).toEqual({ by: 'difference', passes: TIMES });
  });

  it('tells what each takes, by waiting for it', async () => {
    expect(await timer.byWaiting(draw, () => undefined)).toEqual({ by: 'waiting', passes: TIMES });
  });

  it('lets all passes run when nothing is timed any more, also after a drawing that failed', async () => {
    const fails = (): void => {
      timer.takes('shadows');
      throw new RangeError('no picture');
    };
    await expectAsync(timer.byDifference(fails)).toBeRejectedWithError(RangeError);
    await expectAsync(timer.byWaiting(fails, () => undefined)).toBeRejectedWithError(RangeError);
    runs = [];
    draw();
    expect(runs).toEqual(['shadows', 'surfaces', 'surfaces', 'view']);
  });
});
