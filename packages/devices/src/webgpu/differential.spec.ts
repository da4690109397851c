import { evaluatePacked, fullScreenCode, packFunctions, WGSL_TARGET } from '@brelvin/core';
import { openGpu } from '../testing/open-device';
import { computeRow } from './compute-row';

/** Programs of one shader, each for one pixel. */
const PACK = 10;
/** More are run by hand when the language or the target changes: `brelvin fuzz --targets wgsl,cpu --count …`. */
const PROGRAMS = 300;

describe('Computing on the CPU and as WGSL', () => {
  let gpu: GPUDevice;

  beforeAll(async () => {
    gpu = await openGpu();
  });

  afterAll(() => gpu?.destroy());

  it(`comes to the same, bit by bit, in ${PROGRAMS} programs`, async () => {
    let compared = 0;
    for (let first = 0; first < PROGRAMS; first += PACK) {
      const packed = packFunctions(first, PACK);
      const [theirs, ours] = [await computeRow(gpu, fullScreenCode(WGSL_TARGET, packed.fragment), PACK), evaluatePacked(packed)];
      packed.functions.forEach(({ text }, index) => {
        const [a, b] = [theirs, ours].map((each) => each.subarray(index * 4, index * 4 + 4).join());
        compared++;
        if (a !== b) fail(`seed ${first + index}: ${b} on the CPU, ${a} by the driver\n${text}`);
      });
      expect(new Set(ours).size).toBeGreaterThan(PACK);
    }
    expect(compared).toBe(PROGRAMS);
  }, 400_000);
});
