import { libraryProgram } from '../catalogue/library';
import type { Device, DeviceBindGroup, DeviceTexture, DrawCall, PassFormats } from '../device/device';
import { formatsOf } from '../device/pass-faults';
import { blockLayout } from '../ir/layout';
import { BoundBlock } from './bound-block';
import type { FrameItem } from './frame-item';
import { PLACE, peekGlobals, type Lens } from './lens';
import type { PictureContext } from './picture-context';
import { writeBlock } from './uniforms';
import type { PictureSize } from './picture-part';

/** What the passes need of the renderer. */
export interface OutletScene {
  /**
   * Brings the frame's numbers up to date for a picture of this size.
   *
   * @param corner what is added to a place in the target to get the one in the picture
   */
  readonly frame: (size: PictureSize, corner?: readonly [x: number, y: number]) => PictureContext;
  /** An item's drawing by the program of its surface that gives an outlet; in plain grey without one. */
  readonly drawCall: (item: FrameItem, context: PictureContext, into: PassFormats, outlet?: number) => DrawCall;
}

/** What is seen at a pixel. */
export interface ProbedPoint {
  /** World space, metres. */
  readonly position: readonly number[];
  readonly copy: number;
  /** Four numbers for each outlet that was asked for. */
  readonly values: readonly (readonly number[])[];
}

/** A small picture of an outlet. */
export type OutletCell = Pick<Lens, 'outlet' | 'mode'> & Partial<Pick<Lens, 'low' | 'high' | 'component'>>;

/** Cells of an atlas beside each other. */
export const ATLAS_COLUMNS = 8;

const PROBED: PictureSize = { width: 128, height: 2 };
/** Pixels are computed two by two: so are those of the whole picture, which derivatives show. */
const QUAD = 2;

/** Draws outlets one by one: small pictures into an atlas, values of a pixel. */
export class OutletPasses {
  private readonly peek: BoundBlock;
  /** Surfaces whose programs the driver has made ready for the atlas. */
  private readonly ready = new WeakSet<object>();
  private probed?: { readonly colour: DeviceTexture; readonly depth: DeviceTexture };
  private atlas?: { readonly colour: DeviceTexture; readonly depth: DeviceTexture };

  constructor(private readonly device: Device) {
    const block = libraryProgram('outlets.frag').blocks.get('Peek');
    if (!block) throw new RangeError('the program for outlets has no block Peek');
    this.peek = new BoundBlock(device, blockLayout(block));
  }

  /** The block `Peek`. */
  get group(): DeviceBindGroup {
    return this.peek.group;
  }

  look(lens: Parameters<typeof peekGlobals>[0]): void {
    writeBlock(this.peek.layout, peekGlobals(lens), this.peek.words);
    this.peek.upload();
  }

  /**
   * Small square pictures of outlets, `ATLAS_COLUMNS` beside each other: 8-bit sRGB RGBA rows from the top, empty where
   * nothing stands.
   *
   * @param side of a cell, pixels
   */
  async draw(item: FrameItem, cells: readonly OutletCell[], side: number, scene: OutletScene): Promise<Uint8Array<ArrayBuffer>> {
    const { colour, depth } = this.atlasFor(Math.ceil(cells.length / ATLAS_COLUMNS), side);
    const into = formatsOf({ colour, depth });
    const drawCells = (size: number): void =>
      cells.forEach((cell, index) => {
        const viewport = { x: (index % ATLAS_COLUMNS) * size, y: Math.floor(index / ATLAS_COLUMNS) * size, width: size, height: size };
        const context = scene.frame(viewport, [-viewport.x, -viewport.y]);
        this.look(cell);
        this.device.runPass({ label: 'outlets', colour, depth, viewport, draws: [scene.drawCall(item, context, into, cell.outlet)] });
      });
    if (item.surface && !this.ready.has(item.surface)) {
      // Several programs at once, out of the way of what is drawn meanwhile.
      await this.device.makeReady(() => drawCells(1));
      this.ready.add(item.surface);
    }
    this.device.runPass({ label: 'outlets', colour, depth, clear: [0, 0, 0, 0], draws: [] });
    drawCells(side);
    return this.device.readPixels(colour);
  }

  /**
   * The values of outlets at a pixel of a picture of this size; nothing where what is seen there has not this surface.
   *
   * @param pixel from the top left
   */
  async probe(
    items: readonly FrameItem[],
    surface: Lens['surface'],
    outlets: readonly number[],
    pixel: { readonly x: number; readonly y: number },
    size: PictureSize,
    scene: OutletScene,
  ): Promise<ProbedPoint | undefined> {
    const { colour, depth } = (this.probed ??= this.targets(PROBED, 'rgba32float'));
    const into = formatsOf({ colour, depth });
    const corner = { x: Math.floor(pixel.x / QUAD) * QUAD, y: Math.floor(pixel.y / QUAD) * QUAD };
    const frame = (cell: number): PictureContext => scene.frame(size, [corner.x - cell * QUAD, corner.y]);
    // The whole picture, moved by whole pixels and cut to four of them: rasterised just as it is on the Stage.
    const pass = (cell: number, draws: readonly DrawCall[]): void =>
      this.device.runPass({
        label: 'outlets',
        colour,
        depth,
        viewport: { ...size, x: cell * QUAD - corner.x, y: -corner.y },
        scissor: { x: cell * QUAD, y: 0, width: QUAD, height: QUAD },
        draws,
      });
    const read = async (): Promise<(cell: number) => readonly number[]> => {
      const pixels = await this.device.readFloats(colour);
      const [x, y] = [Math.floor(pixel.x) - corner.x, Math.floor(pixel.y) - corner.y];
      return (cell) => [...pixels.subarray((y * PROBED.width + cell * QUAD + x) * 4).subarray(0, 4)];
    };
    const context = frame(0);
    this.device.runPass({ label: 'outlets', colour, depth, clear: [0, 0, 0, 0], draws: [] });
    this.look({ outlet: PLACE });
    pass(
      0,
      items.map((item) => scene.drawCall(item, context, into, item.surface === surface ? PLACE : undefined)),
    );
    const [x = 0, y = 0, z = 0, mark = 0] = (await read())(0);
    if (mark < 0.5) return undefined;
    const copy = Math.round(mark) - 1;
    // What else stands there hides nothing: it was not seen at this pixel. Of many copies only the seen one is drawn.
    const own = items.filter((item) => item.surface === surface).map((item) => onlyCopy(item, copy));
    const values: (readonly number[])[] = [];
    const most = PROBED.width / QUAD;
    for (let first = 0; first < outlets.length; first += most) {
      const some = outlets.slice(first, first + most);
      this.device.runPass({ label: 'outlets', colour, depth, clear: [0, 0, 0, 0], draws: [] });
      some.forEach((outlet, cell) => {
        frame(cell);
        this.look({ outlet });
        pass(
          cell,
          own.map((item) => scene.drawCall(item, context, into, outlet)),
        );
      });
      const at = await read();
      values.push(...some.map((_, cell) => at(cell)));
    }
    return { position: [x, y, z], copy, values };
  }

  /** The values of an outlet all over a small picture: four numbers for each pixel where its surface is seen. */
  async spread(
    items: readonly FrameItem[],
    surface: Lens['surface'],
    outlet: number,
    size: PictureSize,
    scene: OutletScene,
  ): Promise<(readonly number[])[]> {
    const { colour, depth } = this.targets(size, 'rgba32float');
    try {
      const context = scene.frame(size);
      this.look({ outlet });
      const own = items.filter((item) => item.surface === surface);
      const draws = own.map((item) => scene.drawCall(item, context, formatsOf({ colour, depth }), outlet));
      this.device.runPass({ label: 'outlets', colour, depth, clear: [NOWHERE, 0, 0, 0], draws });
      const pixels = await this.device.readFloats(colour);
      const values = Array.from({ length: size.width * size.height }, (_, index) => [...pixels.subarray(index * 4, index * 4 + 4)]);
      return values.filter(([first]) => first !== NOWHERE);
    } finally {
      colour.destroy();
      depth.destroy();
    }
  }

  private atlasFor(rows: number, side: number): { readonly colour: DeviceTexture; readonly depth: DeviceTexture } {
    const size = { width: ATLAS_COLUMNS * side, height: Math.max(1, rows) * side };
    const known = this.atlas;
    if (known?.colour.width === size.width && known.colour.height === size.height) return known;
    known?.colour.destroy();
    known?.depth.destroy();
    return (this.atlas = this.targets(size, 'rgba8unorm-srgb'));
  }

  private targets(size: PictureSize, format: DeviceTexture['format']): { readonly colour: DeviceTexture; readonly depth: DeviceTexture } {
    return {
      colour: this.device.createTexture({ ...size, format, samples: 1 }),
      depth: this.device.createTexture({ ...size, format: 'depth24plus', samples: 1 }),
    };
  }
}

/** A number that no value comes to: the largest power of two. */
const NOWHERE = 2 ** 127;

/** An item of which only one copy is drawn, where that can be told apart. */
function onlyCopy(item: FrameItem, copy: number): FrameItem {
  const alone = item.part?.instanceAlone?.(copy);
  return alone && item.part ? { ...item, part: { ...item.part, instances: alone, instanceCount: 1 } } : item;
}
