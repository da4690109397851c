import type { Device, FrameRenderer, Picture, PictureSize, MaterialPipelines } from '@brelvin/core';
import { BEARABLE, gauge, ProgramGauges, type FrameCost } from './program-gauge';

const WHOLE: PictureSize = { width: 640, height: 480 };

/** A device whose drawings take so long by a clock of its own, and what was drawn on it. */
function deviceThatTakes(
  milliseconds: (size: PictureSize, drawing: number) => number,
  others: (drawing: number) => number = () => 0,
): {
  readonly sizes: PictureSize[];
  pace(): ReturnType<typeof gauge>;
} {
  const sizes: PictureSize[] = [];
  let now = 0;
  let targets = 0;
  let queued = 0;
  spyOn(performance, 'now').and.callFake(() => now);
  const device = {
    createTexture: () => {
      targets += 1;
      queued += others(sizes.length + 1);
      return { destroy: () => (targets -= 1) };
    },
    finished: async () => {
      now += queued;
      queued = 0;
    },
  } as unknown as Device;
  const renderer = {
    draw: (_: Picture, { size }: { readonly size: PictureSize }) => {
      sizes.push(size);
      now += milliseconds(size, sizes.length);
    },
  } as unknown as FrameRenderer;
  return {
    sizes,
    pace: async () => {
      const pace = await gauge(device, renderer, () => ({}) as Picture, WHOLE);
      expect(targets).withContext('targets left').toBe(0);
      return pace;
    },
  };
}

const pixels = ({ width, height }: PictureSize): number => width * height;

describe('how long a whole picture takes', () => {
  it('is bearable after one small drawing of a quick program', async () => {
    const { sizes, pace } = deviceThatTakes(() => 4);
    expect((await pace()).scale).toBe(1);
    expect(sizes.length).toBe(1);
  });

  it('does not count what is the same for every size', async () => {
    const { sizes, pace } = deviceThatTakes((size) => 300 + pixels(size) / 1000);
    expect((await pace()).scale).toBe(1);
    expect(sizes.map(pixels)).toEqual([64 * 48, 192 * 144]);
  });

  it('is told in milliseconds for a slow program, and how small it is drawn instead', async () => {
    const { pace } = deviceThatTakes((size) => pixels(size) / 100);
    const { milliseconds, scale } = await pace();
    expect(milliseconds).toBeCloseTo(3072, 6);
    expect(scale * scale * milliseconds).toBeCloseTo(500, 6);
  });

  it('does not blame a program for a moment in which the machine did something else', async () => {
    const { sizes, pace } = deviceThatTakes((size, drawing) => 40 + pixels(size) / 1000 + (drawing === 2 ? 400 : 0));
    expect((await pace()).scale).toBe(1);
    expect(sizes.length).toBe(3);
  });

  it('does not blame a program for a long moment either, in which other programs came onto the device', async () => {
    const { sizes, pace } = deviceThatTakes((size, drawing) => 40 + pixels(size) / 1000 + (drawing === 2 ? 1300 : 0));
    expect((await pace()).scale).toBe(1);
    expect(sizes.length).toBe(3);
  });

  it('does not count what others have asked of the device before', async () => {
    const { sizes, pace } = deviceThatTakes(
      () => 4,
      () => 900,
    );
    expect((await pace()).scale).toBe(1);
    expect(sizes.length).toBe(1);
  });

  it('does not draw a hopeless program again, nor smaller than can be seen', async () => {
    const { sizes, pace } = deviceThatTakes((size) => pixels(size));
    expect((await pace()).scale).toBe(0.05);
    expect(sizes.length).toBe(2);
  });

  it('is taken back where pictures at rest are quicker than was thought, and not where they are not', async () => {
    const [gauges, surface] = [new ProgramGauges(), {} as MaterialPipelines];
    expect(gauges.knows(surface)).toBeFalse();
    await gauges.take(surface, () => Promise.resolve({ milliseconds: 8000, scale: 0.25 }));
    expect([gauges.doubts(surface), gauges.doubts(surface)]).toEqual([true, false]);
    expect(gauges.learn(surface, 500)).toBeFalse();
    expect(gauges.paceOf(surface).scale).toBe(0.25);
    expect(gauges.learn(surface, 100)).toBeTrue();
    expect(gauges.paceOf(surface).scale).toBe(1);
    expect(gauges.learn(surface, 100)).toBeFalse();
  });
});

describe('while programs are gauged', () => {
  it('what else wants the device waits until the last of them is through', async () => {
    const gauges = new ProgramGauges();
    const order: string[] = [];
    const ends: (() => void)[] = [];
    const work = (): Promise<FrameCost> => new Promise((resolve) => ends.push(() => resolve(BEARABLE)));
    const taken = [gauges.take({} as MaterialPipelines, work), gauges.take({} as MaterialPipelines, work)];
    const other = gauges.idle().then(() => order.push('other'));
    for (const each of taken) {
      await new Promise((resolve) => setTimeout(resolve, 5));
      order.push('gauged');
      ends.shift()?.();
      await each;
    }
    await other;
    expect(order).toEqual(['gauged', 'gauged', 'other']);
    await gauges.idle();
  });
});
