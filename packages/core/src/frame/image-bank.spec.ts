import type { MaterialImage } from '@brelvin/contract';
import type { RowPlace } from '../device/device';
import { cubeChain, mipChain, type MipChain } from '../image/mips';
import { RecordingDevice } from '../testing/recording-device';
import { ImageBank } from './image-bank';

const image = (asset: string, faces?: readonly string[]): MaterialImage => ({
  name: asset,
  asset,
  faces,
  width: 4,
  height: 4,
  role: 'data',
  wrapX: 'repeat',
  wrapY: 'repeat',
  filter: 'smooth',
  uvSet: 0,
});
/** Every pixel tells its row. */
function rowsOf(width: number, height: number): MipChain {
  const data = new Uint8Array(width * height * 4);
  for (let row = 0; row < height; row++) data.fill(row % 251, row * width * 4, (row + 1) * width * 4);
  return mipChain({ width, height, data }, 'data');
}

interface Write extends RowPlace {
  readonly level: number;
  readonly bytes: Uint8Array;
}

/** A bank, what was written to the device, and how often it paused. */
function bankOf(chain: MipChain): { bank: ImageBank; writes: Write[]; pauses: () => number } {
  const device = new RecordingDevice();
  const writes: Write[] = [];
  const create = device.createTexture.bind(device);
  device.createTexture = (descriptor) => ({
    ...create(descriptor),
    write: (level, pixels, place) => void writes.push({ level, bytes: Uint8Array.from(pixels), ...place }),
  });
  const bank = new ImageBank(device);
  let pauses = 0;
  bank.load = async ({ faces }) => (faces ? cubeChain(faces.map(() => chain)) : chain);
  bank.next = async () => void pauses++;
  return { bank, writes, pauses: () => pauses };
}
const arrival = (bank: ImageBank): Promise<void> => new Promise((resolve) => (bank.onArrival = resolve));

describe('Images on the device', () => {
  it('are asked for once, and there when all of their levels are', async () => {
    const { bank, writes, pauses } = bankOf(rowsOf(8, 8));
    const come = arrival(bank);
    expect(bank.awaits).toBeFalse();
    expect([bank.find(image('a')), bank.find(image('a'))]).toEqual([undefined, undefined]);
    expect(bank.awaits).toBeTrue();
    await come;
    expect(bank.awaits).toBeFalse();
    expect(bank.find(image('a'))?.width).toBe(8);
    expect(writes.map(({ level }) => level)).toEqual([0, 1, 2, 3]);
    expect(pauses()).toBe(1);
  });

  it('go there in bands of rows where they are large, with time between, and whole', async () => {
    const chain = rowsOf(1536, 1500);
    const { bank, writes, pauses } = bankOf(chain);
    const come = arrival(bank);
    bank.find(image('large'));
    await come;
    const bands = writes.filter(({ level }) => level === 0);
    expect(bands.map(({ firstRow }) => firstRow)).toEqual([0, 682, 1364]);
    const whole = new Uint8Array(1536 * 1500 * 4);
    for (const { bytes, firstRow = 0 } of bands) whole.set(bytes, firstRow * 1536 * 4);
    expect(whole.every((byte, at) => byte === chain.levels[0]![at])).toBeTrue();
    expect(Math.max(...writes.map(({ bytes }) => bytes.length))).toBeLessThanOrEqual(4 * 1024 * 1024);
    // Three bands of the largest, its rest with what is left of a turn, and small levels together.
    expect(pauses()).toBeGreaterThan(2);
    expect(pauses()).toBeLessThan(6);
  });

  it('come one after the other, whatever their size', async () => {
    const { bank, writes } = bankOf(rowsOf(1024, 1500));
    const first = arrival(bank);
    bank.find(image('first'));
    bank.find(image('second'));
    await first;
    expect([bank.find(image('first')) !== undefined, bank.find(image('second'))]).toEqual([true, undefined]);
    await arrival(bank);
    const starts = writes.flatMap(({ level, firstRow }, index) => (level === 0 && firstRow === 0 ? [index] : []));
    expect(starts).toEqual([0, writes.length / 2]);
  });

  it('write every face of a cube', async () => {
    const { bank, writes } = bankOf(rowsOf(4, 4));
    await bank.bring([image('', ['a', 'b', 'c', 'd', 'e', 'f'])], bank.load);
    expect(writes.filter(({ level }) => level === 0).map(({ face }) => face)).toEqual([0, 1, 2, 3, 4, 5]);
  });

  it('that cannot be had are not asked for again', async () => {
    const { bank } = bankOf(rowsOf(4, 4));
    let asked = 0;
    bank.load = async () => {
      asked++;
      throw new Error('gone');
    };
    const told = arrival(bank);
    bank.find(image('gone'));
    expect(bank.awaits).toBeTrue();
    await told;
    expect(bank.find(image('gone'))).toBeUndefined();
    expect([asked, bank.awaits]).toEqual([1, false]);
    expect(bank.lacks).toEqual([{ name: 'gone', asset: 'gone', reason: 'gone', again: false }]);
  });

  it('are tried again where they could not be had, later each time, and not for ever', async () => {
    const { bank } = bankOf(rowsOf(4, 4));
    const { load } = bank;
    const waits: number[] = [];
    let asked = 0;
    bank.later = async (milliseconds) => void waits.push(milliseconds);
    bank.load = (wanted) => (++asked < 3 ? Promise.reject(new Error('away')) : load(wanted));
    for (let turn = 0; turn < 3; turn++) {
      const come = arrival(bank);
      expect(bank.find(image('a'))).toBeUndefined();
      await come;
      if (turn < 2) expect(bank.lacks).toEqual([{ name: 'a', asset: 'a', reason: 'away', again: true }]);
    }
    expect(bank.find(image('a'))?.width).toBe(4);
    expect(bank.lacks).toEqual([]);
    expect(waits).toEqual([1000, 2000]);
    bank.load = async () => undefined;
    for (let turn = 0; turn < 6; turn++) {
      const come = arrival(bank);
      bank.find(image('gone'));
      await come;
    }
    expect(waits.slice(2)).toEqual([1000, 2000, 4000, 8000, 16_000]);
    bank.load = load;
    expect(bank.find(image('gone'))).toBeUndefined();
    expect(bank.awaits).toBeFalse();
  });

  it('that the device refuses hold up none behind them', async () => {
    const device = new RecordingDevice();
    const create = device.createTexture.bind(device);
    device.createTexture = (descriptor) => {
      if (descriptor.width === 16) throw new RangeError('too large');
      return create(descriptor);
    };
    const bank = new ImageBank(device);
    bank.load = async ({ asset }) => rowsOf(asset === 'large' ? 16 : 4, 4);
    let come = arrival(bank);
    bank.find(image('large'));
    await come;
    come = arrival(bank);
    bank.find(image('small'));
    await come;
    expect(bank.find(image('small'))?.width).toBe(4);
  });
});
