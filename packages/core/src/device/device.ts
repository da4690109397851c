import type { GroupLayout, ProgramLayout } from '../emit/bindings';
import type { Target, TargetCode } from '../emit/target';

/**
 * What a frame needs of a graphics device, in the shape of WebGPU: immutable pipelines that know the formats they draw
 * into, bind groups made by layouts, passes described as a whole, explicit resolve, asynchronous readback. Row 0 of every
 * target is the top of the picture and clip space z goes 0…1; a device hides what differs.
 *
 * Order: writes, passes, resolves, mips and reads take effect one after the other, as they were asked for. A pass reads what
 * was written before `runPass`, and nothing that is written afterwards. A drawing holds buffers, not their contents: all
 * drawings of a pass find the same in the same buffer.
 *
 * A pass that WebGPU would refuse is refused by every device; see `passFault`.
 */
export interface Device {
  /** What programs are written in. */
  readonly target: Target;
  readonly statistics: DeviceStatistics;
  createBuffer(descriptor: BufferDescriptor): DeviceBuffer;
  createTexture(descriptor: TextureDescriptor): DeviceTexture;
  /**
   * Compiles and links; equal programs are compiled once.
   *
   * @throws ProgramRefused when the driver does not take the program
   */
  createProgram(descriptor: ProgramDescriptor): Promise<DeviceProgram>;
  /** A program of the frame's own, which every driver takes: comes back at once, and its first drawing waits for the driver. */
  createOwnProgram(descriptor: ProgramDescriptor): DeviceProgram;
  /** A way of drawing with a program. Comes back at once; its first drawing may wait for the driver. */
  createPipeline(descriptor: PipelineDescriptor): DevicePipeline;
  /**
   * Binds resources for every program that has a group of this layout.
   *
   * @throws RangeError for resources that are not what the layout says
   */
  createBindGroup(layout: GroupLayout, resources: BoundResources): DeviceBindGroup;
  /** @throws PassRefused */
  runPass(pass: PassDescriptor): void;
  /** Averages the samples of `from` into `to`, which has the same size and format and one sample. */
  resolve(from: DeviceTexture, to: DeviceTexture): void;
  /** Fills the smaller levels of a colour texture from its largest, each pixel the mean of those it stands for. */
  fillMips(texture: DeviceTexture): void;
  /** The rows of an `rgba8unorm` texture from the top. */
  readPixels(texture: DeviceTexture): Promise<Uint8Array<ArrayBuffer>>;
  /** The rows of a level of an `rgba16float` or `rgba32float` texture, of a cube of a face, from the top, four numbers a pixel. */
  readFloats(texture: DeviceTexture, level?: number, face?: number): Promise<Float32Array<ArrayBuffer>>;
  /**
   * Has the driver make ready all that `draw` draws with, out of the way of what is drawn meanwhile where it can; comes back
   * when that is done. Of what `draw` draws, that which is not ready yet may be left out.
   *
   * @throws ProgramRefused
   */
  makeReady(draw: () => void): Promise<void>;
  /**
   * Draws, maybe several times, and tells how long each part of that takes.
   *
   * @param draw asks for the same passes whenever it is called
   */
  timePasses(draw: () => void): Promise<PassTimes>;
  /** Comes back when everything given to the device so far is done. */
  finished(): Promise<void>;
  destroy(): void;
}

/** How long passes take, by their label, in the order in which they come first. */
export interface PassTimes {
  /** By the device’s own clock; by waiting for each; or by leaving passes out and looking at the difference. */
  readonly by: 'timestamps' | 'waiting' | 'difference';
  readonly passes: readonly { readonly label: string; readonly milliseconds: number }[];
}

export interface DeviceStatistics {
  /** Programs that went through the driver's compiler since the device was made, without the frame's own. */
  readonly compiledPrograms: number;
  readonly passes: number;
}

export interface BufferDescriptor {
  readonly usage: 'vertex' | 'index' | 'uniform';
  /** Bytes. */
  readonly size: number;
}
export interface DeviceBuffer {
  readonly size: number;
  write(data: Float32Array<ArrayBuffer> | Uint32Array<ArrayBuffer>): void;
  destroy(): void;
}

export type TextureFormat = 'rgba16float' | 'rgba32float' | 'rgba8unorm' | 'rgba8unorm-srgb' | 'depth24plus';
/** How a texture is read between its pixels and beyond its edges. */
export interface Sampling {
  readonly wrapX: 'repeat' | 'mirror' | 'clamp';
  readonly wrapY: 'repeat' | 'mirror' | 'clamp';
  readonly filter: 'smooth' | 'sharp';
}
export interface TextureDescriptor {
  readonly width: number;
  readonly height: number;
  readonly format: TextureFormat;
  readonly samples: 1 | 4;
  /** 1 when absent. */
  readonly mipLevels?: number;
  /** Smooth and clamped when absent. */
  readonly sampling?: Sampling;
  /** A depth texture that programs read by `texelFetch`. */
  readonly fetched?: boolean;
  /** Six square faces, +X −X +Y −Y +Z −Z, read by direction; rows of a face as OpenGL ES 3.0 orders them (section 3.8.10). */
  readonly cube?: boolean;
}
/** Which face of a cube, and from which row on; the first when absent. */
export interface RowPlace {
  readonly face?: number;
  readonly firstRow?: number;
}
export interface DeviceTexture extends TextureDescriptor {
  /**
   * Fills rows of a level, of a cube of one face of it, with RGBA from the top: bytes, or half floats for `rgba16float`.
   * As many rows are written as there are pixels for.
   */
  write(level: number, pixels: Uint8Array<ArrayBuffer> | Uint16Array<ArrayBuffer>, place?: RowPlace): void;
  destroy(): void;
}

export interface VertexAttribute {
  readonly name: string;
  readonly components: 1 | 2 | 3 | 4;
  /** Bytes from the start of the element. */
  readonly offset: number;
}
export interface VertexBufferLayout {
  /** Bytes from one element to the next. */
  readonly stride: number;
  readonly step: 'vertex' | 'instance';
  readonly attributes: readonly VertexAttribute[];
}

export interface ProgramDescriptor {
  readonly label: string;
  /** In the text of the device's target. */
  readonly code: TargetCode;
  readonly vertexBuffers: readonly VertexBufferLayout[];
}
/** A program that the driver has taken. */
export interface DeviceProgram {
  readonly label: string;
  readonly layout: ProgramLayout;
  readonly vertexBuffers: readonly VertexBufferLayout[];
  destroy(): void;
}

export type ColourFormat = Exclude<TextureFormat, 'depth24plus'>;
/** What the device's canvas holds. */
export const CANVAS_FORMAT: ColourFormat = 'rgba8unorm';

/** What passes draw into. */
export interface PassFormats {
  /** Nothing where only depth is kept. */
  readonly colour?: ColourFormat;
  readonly depth: boolean;
  readonly samples: 1 | 4;
}

export interface PipelineDescriptor {
  readonly program: DeviceProgram;
  readonly into: PassFormats;
  /** `test` leaves what it keeps as it is. */
  readonly depth: 'none' | 'test' | 'test and write';
  /**
   * How a pixel's colour `src` meets the colour `dst` that is there; it takes its place when absent.
   *
   * | | rgb | a |
   * | --- | --- | --- |
   * | `over` (`src.rgb` is weighed by `src.a` already) | src + dst × (1 − src.a) | the same |
   * | `add` | src + dst | src + dst |
   * | `gather` | src + dst | dst.a × (1 − src.a) |
   * | `under` | src × (1 − dst.a) + dst | the same |
   * | `keep` | dst × src.a | the same |
   */
  readonly blend?: 'over' | 'add' | 'gather' | 'under' | 'keep';
  readonly cull: 'none' | 'back' | 'front';
  /** Which way round triangles go that face the eye; a mirrored mesh's go clockwise. Counter-clockwise when absent. */
  readonly front?: 'ccw' | 'cw';
  /** Pushes depths away: by so much of the slope, and so many of the smallest steps. */
  readonly depthBias?: { readonly slope: number; readonly steps: number };
  /** What indices make; triangles when absent. */
  readonly topology?: 'triangles' | 'lines';
}
export interface DevicePipeline {
  readonly descriptor: PipelineDescriptor;
}

/** In the order of a layout's blocks and textures. */
export interface BoundResources {
  readonly blocks: readonly DeviceBuffer[];
  readonly textures: readonly DeviceTexture[];
}
/** Resources that stay bound together. It does not own them. */
export interface DeviceBindGroup extends BoundResources {
  readonly layout: GroupLayout;
}

export interface DrawCall {
  readonly pipeline: DevicePipeline;
  /** One for each of the program's groups, at its number; groups of which the program reads nothing may be left out. */
  readonly bindings: readonly (DeviceBindGroup | undefined)[];
  readonly vertexBuffers: readonly DeviceBuffer[];
  readonly indices?: DeviceBuffer;
  /** Indices, or vertices when there are none. */
  readonly first: number;
  readonly count: number;
  readonly instances: number;
}

/** A rectangle of a target: pixels from its top left. */
export interface TargetPart {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

export interface PassDescriptor {
  /** What it does for the picture, in a word; several passes may do one thing together. */
  readonly label?: string;
  /** A texture, or the device's canvas; nothing where only depth is kept. */
  readonly colour?: DeviceTexture | 'canvas';
  /** The level of the texture that is drawn into; the largest when absent. */
  readonly level?: number;
  /** The face of a cube that is drawn into. */
  readonly face?: number;
  readonly depth?: DeviceTexture;
  /** Scene-linear for float targets. Without it the target keeps what it holds. */
  readonly clear?: readonly [number, number, number, number];
  /** Only the colour is cleared: depth stays as it is. */
  readonly keepsDepth?: boolean;
  /** Where the picture lies on the target, pixels from its top left, also beyond its edges; all of it when absent. */
  readonly viewport?: TargetPart;
  /** The only part of the target that is drawn into; all of it when absent. */
  readonly scissor?: TargetPart;
  readonly draws: readonly DrawCall[];
}

/** The device went while it was asked for something. Another one has to be opened. */
export class DeviceLost extends Error {}

/** The driver refused a program that our compiler let through: a defect of ours, told with the driver's words. */
export class ProgramRefused extends Error {
  constructor(
    readonly stage: 'vertex' | 'fragment' | 'link',
    readonly log: string,
    /** Line of the stage's text, from 1. */
    readonly line?: number,
  ) {
    super(`the graphics driver refused the ${stage} program: ${log.trim().split('\n')[0] ?? ''}`);
  }
}
