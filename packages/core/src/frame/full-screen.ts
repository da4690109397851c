import { libraryProgram } from '../catalogue/library';
import type { FrameGlobals } from '../compile/material-values';
import type { Device, DevicePipeline, DeviceProgram, DeviceTexture, DrawCall, PassDescriptor, PassFormats } from '../device/device';
import { formatsOf } from '../device/pass-faults';
import { BINDING_GROUPS } from '../emit/bindings';
import { blockLayout, type BlockLayout } from '../ir/layout';
import { ownProgram } from './own-program';
import { OwnValues } from './own-values';
import { writeBlock } from './uniforms';

type Textures = Readonly<Record<string, DeviceTexture>>;

/**
 * One program of the library, drawn over a whole target; its own uniform block is named in the program. It is written and
 * compiled when it is first drawn: most pictures need few of the frame's programs.
 */
export class FullScreen {
  private readonly pipelines = new Map<string, DevicePipeline>();
  private readonly layout: BlockLayout;
  private made?: DeviceProgram;

  constructor(
    private readonly device: Device,
    private readonly name: string,
    block: string,
    /** What its passes are called. */
    private readonly label: string,
    private readonly blend?: 'over' | 'under' | 'gather',
  ) {
    const declared = libraryProgram(`${name}.frag`).blocks.get(block);
    if (!declared) throw new RangeError(`${name} has no block ${block}`);
    this.layout = blockLayout(declared);
  }

  private get program(): DeviceProgram {
    const { device, name } = this;
    return (this.made ??= device.createOwnProgram({
      label: name,
      code: ownProgram(device, libraryProgram('full_screen.vert'), libraryProgram(`${name}.frag`)),
      vertexBuffers: [],
    }));
  }

  /** Numbers for one place where the program is drawn; two places of one picture need two. */
  createValues(): OwnValues {
    return new OwnValues(this.device, this.layout.words);
  }

  /** Fills a target, or a level or face of it. */
  draw(
    colour: DeviceTexture | 'canvas',
    values: OwnValues,
    numbers: FrameGlobals,
    textures?: Textures,
    part?: Pick<PassDescriptor, 'level' | 'face'>,
  ): void {
    this.device.runPass({ ...part, label: this.label, colour, draws: [this.drawCall(values, numbers, textures, formatsOf({ colour }))] });
  }

  /** The drawing, to stand in a pass. */
  drawCall(values: OwnValues, numbers: FrameGlobals, textures: Textures = {}, into: PassFormats): DrawCall {
    writeBlock(this.layout, numbers, values.words);
    values.upload();
    const own = { block: () => values.buffer, texture: (name: string) => textures[name] };
    return {
      pipeline: this.pipelineFor(into),
      bindings: this.program.layout.map((layout, group) => (group === OWN ? values.groups.find(layout, own) : undefined)),
      vertexBuffers: [],
      first: 0,
      count: 3,
      instances: 1,
    };
  }

  private pipelineFor(into: PassFormats): DevicePipeline {
    const key = `${into.colour} ${into.depth} ${into.samples}`;
    const known = this.pipelines.get(key);
    if (known) return known;
    const made = this.device.createPipeline({
      program: this.program,
      into,
      depth: 'none',
      cull: 'none',
      blend: this.blend,
    });
    this.pipelines.set(key, made);
    return made;
  }
}

const OWN = BINDING_GROUPS.indexOf('own');
