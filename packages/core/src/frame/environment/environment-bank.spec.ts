import { panoramaPixels, type EnvironmentPixels } from '../../image/environment/environment-pixels';
import { toldHarmonics } from '../../image/environment/harmonics';
import { RecordingDevice } from '../../testing/recording-device';
import { EnvironmentBank } from './environment-bank';
import { environmentGlobals } from './environment-globals';
import { levelOfRoughness, LEVELS, roughnessOfLevel } from './environment-levels';
import { EnvironmentPasses } from './environment-passes';
import { FIRST_ENVIRONMENT } from '../../document/rig-edits';

const pixels = (value: number): EnvironmentPixels => panoramaPixels({ width: 8, height: 4, data: new Float32Array(96).fill(value) });
const of = (name: string): { assets: string[] } => ({ assets: [name] });

describe('Environments on the device', () => {
  async function bankOf(
    load: (assets: readonly string[]) => Promise<EnvironmentPixels | undefined>,
  ): Promise<{ bank: EnvironmentBank; device: RecordingDevice }> {
    const device = new RecordingDevice();
    const bank = new EnvironmentBank(new EnvironmentPasses(device));
    bank.load = load;
    return { bank, device };
  }
  const arrival = (bank: EnvironmentBank): Promise<void> => new Promise((resolve) => (bank.onArrival = resolve));

  it('are asked for once, and are there when they have come', async () => {
    const asked: string[] = [];
    const { bank } = await bankOf(async ([name]) => (asked.push(name ?? ''), pixels(1)));
    const come = arrival(bank);
    expect([bank.find(of('day')), bank.find(of('day')), bank.current]).toEqual([undefined, undefined, undefined]);
    await come;
    expect(bank.find(of('day'))?.harmonics[0]?.[0]).toBeGreaterThan(3);
    expect(bank.current).toBe(bank.find(of('day')));
    expect(asked).toEqual(['day']);
  });

  it('stay in the picture until the next one has come; without one there is nothing', async () => {
    const { bank } = await bankOf(async ([name]) => pixels(name === 'day' ? 1 : 0.1));
    await bank.bring(of('day'), async () => pixels(1));
    const day = bank.find(of('day'));
    const come = arrival(bank);
    expect(bank.find(of('night'))).toBe(day);
    await come;
    expect(bank.find(of('night'))).not.toBe(day);
    expect([bank.find(undefined), bank.current]).toEqual([undefined, undefined]);
    expect(bank.find(of('day'))).toBe(day);
  });

  it('say how far they are, level by level, and leave time between', async () => {
    const { bank, device } = await bankOf(async () => pixels(1));
    const shares: number[] = [];
    let pauses = 0;
    bank.onProgress = (share) => shares.push(Math.round(share * 100));
    bank.next = async () => void pauses++;
    const come = arrival(bank);
    bank.find(of('day'), { sharp: false, filtered: true });
    await come;
    expect(shares).toEqual([0, 14, 29, 43, 57, 71, 86, 100]);
    expect(pauses)
      .withContext('before the cube, and before each level of it')
      .toBe(1 + LEVELS);
    const levels = device.passes.filter(({ face }) => face === 2).map(({ level }) => level);
    expect(levels).toEqual([undefined, 0, 1, 2, 3, 4, 5]);
  });

  it('bring to the device only what a picture needs, and more when it needs more', async () => {
    const { bank, device } = await bankOf(async () => pixels(1));
    const first = arrival(bank);
    bank.find(of('day'));
    await first;
    expect([device.passes.length, bank.find(of('day'))?.sharp]).toEqual([0, undefined]);
    const second = arrival(bank);
    const light = bank.find(of('day'), { sharp: true, filtered: false });
    expect(light?.harmonics[0]?.[0]).toBeGreaterThan(3);
    await second;
    const seen = bank.find(of('day'), { sharp: true, filtered: false });
    expect([seen?.sharp !== undefined, seen?.filtered]).toEqual([true, undefined]);
    const third = arrival(bank);
    bank.find(of('day'), { sharp: false, filtered: true });
    bank.find(of('day'), { sharp: false, filtered: true });
    await third;
    expect(bank.find(of('day'), { sharp: true, filtered: true })?.filtered).toBeDefined();
    expect(device.passes.filter(({ level }) => level === 5).length).toBe(6);
  });

  it('need no file where a document tells their light, and only light is wanted', async () => {
    const asked: string[] = [];
    const { bank } = await bankOf(async ([name]) => (asked.push(name ?? ''), pixels(1)));
    const told = { assets: ['day'], light: toldHarmonics(pixels(0.5).harmonics) };
    expect(bank.find(told)?.harmonics[0]?.[0]).toBeCloseTo(pixels(0.5).harmonics[0]?.[0] ?? NaN, 5);
    expect(asked).toEqual([]);
    const come = arrival(bank);
    bank.find(told, { sharp: true, filtered: false });
    await come;
    expect([asked, bank.find(told)?.sharp !== undefined]).toEqual([['day'], true]);
    const environment = { ...FIRST_ENVIRONMENT, name: 'day', ...told };
    expect((environmentGlobals({ environment }).get('environmentTurn') as readonly number[])[2]).toBe(1);
  });

  it('are not asked for again when they cannot be had', async () => {
    let asked = 0;
    const { bank } = await bankOf(async () => {
      asked++;
      throw new Error('gone');
    });
    bank.find(of('day'));
    // One turn for the answer, one for what comes of it.
    for (let turn = 0; turn < 4; turn++) await Promise.resolve();
    expect([bank.find(of('day')), asked]).toEqual([undefined, 1]);
  });

  it('give their memory back when many were tried', async () => {
    const { bank, device } = await bankOf(async () => pixels(1));
    await bank.bring(of('0'), bank.load);
    const first = bank.find(of('0'));
    const alone = device.alive;
    for (let count = 1; count < 9; count++) await bank.bring(of(String(count)), bank.load);
    expect(device.alive - alone).toBeLessThan(12);
    expect(first).toBeDefined();
    expect(bank.find(of('0'))).toBe(first);
  });

  it('are numbers of the block of lights: turned, as strong as wanted, dark where they are not to light', () => {
    const { harmonics } = pixels(0.5);
    const environment = { ...FIRST_ENVIRONMENT, name: 'day', assets: ['day'], turn: Math.PI / 2, intensity: 3 };
    const lit = environmentGlobals({ environment }, harmonics);
    const [cosine = NaN, sine, strength, last] = lit.get('environmentTurn') as readonly number[];
    expect(cosine).toBeCloseTo(0, 9);
    expect([sine, strength, last]).toEqual([1, 3, LEVELS - 1]);
    for (const dark of [
      environmentGlobals({ environment: { ...environment, lights: false } }, harmonics),
      environmentGlobals({ environment }),
      environmentGlobals({}),
    ])
      expect((dark.get('environmentTurn') as readonly number[])[2]).toBe(0);
  });

  it('have levels that stand for roughnesses, there and back', () => {
    expect([roughnessOfLevel(0), roughnessOfLevel(LEVELS - 1)]).toEqual([0, 1]);
    for (const roughness of [0.1, 0.35, 0.8]) expect(roughnessOfLevel(levelOfRoughness(roughness))).toBeCloseTo(roughness, 9);
  });
});
