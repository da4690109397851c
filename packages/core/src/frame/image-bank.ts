import type { MaterialImage } from '@brelvin/contract';
import { LruCache } from '../cache/lru-cache';
import type { EmittedMaterial } from '../emit/emitted-material';
import type { Device, DeviceTexture, RowPlace } from '../device/device';
import type { MaterialSource } from '../document/material';
import { mipLevelCount, type CubeChain, type MipChain } from '../image/mips';

/** Pixels with all their mips. */
type Load = (image: MaterialImage) => Promise<MipChain | CubeChain | undefined>;

const MOST_TEXTURES = 48;
/** How often an image that could not be had is asked for, and milliseconds after which first; then twice as long each time. */
const MOST_TRIES = 6;
const FIRST_RETRY_MS = 1000;
/** Bytes that go to the device at a time; more would keep the page from answering. */
const MOST_AT_ONCE = 4 * 1024 * 1024;

/** An image that could not be had. */
export interface ImageLack {
  readonly name: string;
  readonly asset: string;
  /** In words, as far as it is known. */
  readonly reason: string;
  /** Whether it is asked for again by itself. */
  readonly again: boolean;
}

/**
 * Images on the device. One that is not here yet shows a grey check; `load` is asked for it, a few times where it fails, and
 * `onArrival` told when it came, or could not be had.
 */
export class ImageBank {
  private readonly textures = new LruCache<DeviceTexture>(MOST_TEXTURES, (texture) => texture.destroy());
  private readonly waiting = new Set<string>();
  /** For images, and for those of a cube. */
  private readonly placeholders = new Map<boolean, DeviceTexture>();
  load: Load = async () => undefined;
  onArrival: () => void = () => undefined;
  /** What could not be had is something else than before. */
  onLack: () => void = () => undefined;
  /** Comes back when more pixels may be put on the device. */
  next: () => Promise<void> = async () => undefined;
  /** Comes back after so many milliseconds, to try again what failed; without it nothing is. */
  later?: (milliseconds: number) => Promise<void>;
  private turn: Promise<void> = Promise.resolve();
  private readonly failed = new Map<string, number>();
  private readonly lacking = new Map<string, ImageLack>();
  private coming = 0;

  constructor(private readonly device: Device) {}

  /** Whether an image that was asked for is still on its way. */
  get awaits(): boolean {
    return this.coming > 0;
  }

  /** What could not be had so far: grey checks stand in its place. */
  get lacks(): readonly ImageLack[] {
    return [...this.lacking.values()];
  }

  /** A texture for every sampler of a program. */
  texturesFor(samplers: EmittedMaterial['images'], images: MaterialSource['images']): Record<string, DeviceTexture> {
    return Object.fromEntries(
      samplers.map(({ sampler, image, cube = false }) => {
        const found = images[image ?? ''];
        // An image of the other kind cannot be read here.
        const fits = found && (found.faces !== undefined) === cube ? found : undefined;
        return [sampler, (fits && this.find(fits)) ?? this.missing(cube)];
      }),
    );
  }

  /** Puts images on the device before a picture is drawn. @returns those that cannot be had: they stay placeholders */
  async bring(images: readonly MaterialImage[], load: Load): Promise<MaterialImage[]> {
    const missing: MaterialImage[] = [];
    for (const image of images) {
      const key = keyOf(image);
      if (this.textures.has(key)) continue;
      const pixels = await load(image).catch(() => undefined);
      if (pixels) await this.put(key, image, pixels);
      else missing.push(image);
    }
    return missing;
  }

  /** An image's texture once it has come; until then it is asked for. */
  find(image: MaterialImage): DeviceTexture | undefined {
    const key = keyOf(image);
    const known = this.textures.get(key);
    if (known) return known;
    if (!this.waiting.has(key)) void this.fetch(key, image);
    return undefined;
  }

  private async fetch(key: string, image: MaterialImage): Promise<void> {
    this.waiting.add(key);
    this.coming++;
    const reason = await this.have(key, image);
    const came = reason === undefined;
    const tries = came ? 0 : (this.failed.get(key) ?? 0) + 1;
    const again = !came && this.later !== undefined && tries < MOST_TRIES;
    if (came) {
      this.failed.delete(key);
      if (this.lacking.delete(key)) this.onLack();
    } else {
      this.failed.set(key, tries);
      this.lacking.set(key, { name: image.name, asset: image.asset, reason, again });
      this.onLack();
    }
    if (again) await this.later?.(FIRST_RETRY_MS * 2 ** (tries - 1));
    // One that cannot be had stays among the waiting: asking again at every picture would not help.
    if (came || again) this.waiting.delete(key);
    this.coming--;
    this.onArrival();
  }

  /** Loads an image and puts it on the device. @returns why that could not be, in words as far as it is known */
  private async have(key: string, image: MaterialImage): Promise<string | undefined> {
    try {
      const pixels = await this.load(image);
      if (!pixels) return '';
      // Images that come together go to the device one after the other; one that it refuses holds up none behind it.
      const put = this.turn.then(() => this.put(key, image, pixels));
      this.turn = put.catch(() => undefined);
      await put;
      return undefined;
    } catch (error) {
      return error instanceof Error ? error.message : '';
    }
  }

  /** Puts an image on the device piece by piece, so that the page answers in between. */
  private async put(key: string, { role, wrapX, wrapY, filter }: MaterialImage, pixels: MipChain | CubeChain): Promise<void> {
    const cube = 'faces' in pixels;
    const chains = cube ? pixels.faces : [pixels];
    const { width = 1, height = 1 } = chains[0] ?? {};
    const mipLevels = mipLevelCount(width, height);
    const texture = this.device.createTexture({
      width,
      height,
      samples: 1,
      format: role === 'colour' ? 'rgba8unorm-srgb' : 'rgba8unorm',
      mipLevels,
      sampling: cube ? { wrapX: 'clamp', wrapY: 'clamp', filter } : { wrapX, wrapY, filter },
      cube,
    });
    let room = 0;
    for (const { level, rows, place } of piecesOf(chains)) {
      if (rows.length > room) {
        await this.next();
        room = MOST_AT_ONCE;
      }
      texture.write(level, rows, place);
      room -= rows.length;
    }
    if (chains.some(({ levels }) => levels.length < mipLevels)) this.device.fillMips(texture);
    this.textures.set(key, texture);
  }

  private missing(cube: boolean): DeviceTexture {
    const known = this.placeholders.get(cube);
    if (known) return known;
    const sampling = { wrapX: 'repeat', wrapY: 'repeat', filter: 'sharp' } as const;
    const texture = this.device.createTexture({ width: 2, height: 2, samples: 1, format: 'rgba8unorm', sampling, cube });
    const [dark, light] = [
      [96, 96, 96, 255],
      [144, 144, 144, 255],
    ];
    const check = new Uint8Array([...dark, ...light, ...light, ...dark]);
    for (let face = 0; face < (cube ? 6 : 1); face++) texture.write(0, check, { face });
    this.placeholders.set(cube, texture);
    return texture;
  }
}

/** Levels, and of large ones bands of rows. */
function* piecesOf(chains: readonly MipChain[]): Generator<{ level: number; rows: Uint8Array<ArrayBuffer>; place: RowPlace }> {
  for (const [face, { width, levels }] of chains.entries()) {
    for (const [level, pixels] of levels.entries()) {
      const row = Math.max(1, width >> level) * 4;
      const most = Math.max(1, Math.floor(MOST_AT_ONCE / row)) * row;
      for (let at = 0; at < pixels.length; at += most)
        yield { level, rows: pixels.subarray(at, at + most), place: { face, firstRow: at / row } };
    }
  }
}

function keyOf({ asset, faces, role, wrapX, wrapY, filter }: MaterialImage): string {
  return [faces?.join('-') ?? asset, role, wrapX, wrapY, filter].join(' ');
}
