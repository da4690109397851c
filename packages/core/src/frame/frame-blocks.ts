import type { FrameGlobals } from '../compile/material-values';
import type { Device, DeviceBuffer } from '../device/device';
import type { BlockLayout } from '../ir/layout';
import { inspectGlobals, type Inspection } from './inspection';
import { UniformBuffer } from './uniform-buffer';
import { libraryBlock, writeBlock } from './uniforms';

class Block {
  readonly buffer: UniformBuffer;

  constructor(
    device: Device,
    readonly layout: BlockLayout,
  ) {
    this.buffer = new UniformBuffer(device, layout.words);
  }

  write(globals: FrameGlobals): void {
    writeBlock(this.layout, globals, this.buffer.words);
    this.buffer.upload();
  }
}

/** The blocks that all programs of a picture share. */
export class FrameBlocks {
  private readonly frame: Block;
  private readonly lights: Block;
  private readonly inspect: Block;

  constructor(device: Device) {
    [this.frame, this.lights, this.inspect] = [
      new Block(device, libraryBlock('Frame')),
      new Block(device, libraryBlock('Lights')),
      new Block(device, libraryBlock('Inspect')),
    ];
  }

  /** By the names that programs give them. */
  get buffers(): ReadonlyMap<string, DeviceBuffer> {
    return new Map([this.frame, this.lights, this.inspect].map(({ layout, buffer }) => [layout.name, buffer.buffer]));
  }

  /** @param globals the members of `Frame` and `Lights` */
  write(globals: FrameGlobals): void {
    this.frame.write(globals);
    this.lights.write(globals);
  }

  inspectBy(inspection: Inspection): void {
    this.inspect.write(inspectGlobals(inspection));
  }
}
