import { bindingsOf, type BoundResources, type DeviceBindGroup, type GroupLayout } from '@brelvin/core';
import { Samplers, type GpuBuffer, type GpuTexture } from './gpu-resources';

/** Resources that stay bound together, as WebGPU holds them. */
export interface GpuBindGroup extends DeviceBindGroup {
  readonly handle: GPUBindGroup;
}

/** Layouts of bind groups, equal ones once, and groups made by them. */
export class BindGroups {
  private readonly layouts = new Map<string, GPUBindGroupLayout>();
  private readonly samplers: Samplers;
  private nothing?: GPUBindGroup;

  constructor(private readonly gpu: GPUDevice) {
    this.samplers = new Samplers(gpu);
  }

  layoutOf(layout: GroupLayout): GPUBindGroupLayout {
    const known = this.layouts.get(layout.key);
    if (known) return known;
    const made = this.gpu.createBindGroupLayout({ entries: entriesOf(layout) });
    this.layouts.set(layout.key, made);
    return made;
  }

  create(layout: GroupLayout, { blocks, textures }: BoundResources): GpuBindGroup {
    const places = bindingsOf([layout]);
    const entries = [
      ...layout.blocks.map((name, index) => ({
        binding: places.get(name)?.binding ?? index,
        resource: { buffer: (blocks[index] as GpuBuffer).handle },
      })),
      ...layout.textures.flatMap(({ name }, index): GPUBindGroupEntry[] => {
        const { binding = 0, sampler } = places.get(name) ?? {};
        const texture = textures[index] as GpuTexture;
        const read = sampler === undefined ? [] : [{ binding: sampler, resource: this.samplers.of(texture.sampling) }];
        return [{ binding, resource: texture.read }, ...read];
      }),
    ];
    return { layout, blocks, textures, handle: this.gpu.createBindGroup({ layout: this.layoutOf(layout), entries }) };
  }

  /** Stands where a program reads nothing. */
  get empty(): GPUBindGroup {
    this.nothing ??= this.gpu.createBindGroup({ layout: this.layoutOf({ key: '', blocks: [], textures: [] }), entries: [] });
    return this.nothing;
  }
}

function entriesOf(layout: GroupLayout): GPUBindGroupLayoutEntry[] {
  const visibility = GPUShaderStage.VERTEX | GPUShaderStage.FRAGMENT;
  const places = bindingsOf([layout]);
  return [
    ...layout.blocks.map((name, index) => ({ binding: places.get(name)?.binding ?? index, visibility, buffer: {} })),
    ...layout.textures.flatMap(({ name, cube, fetched }): GPUBindGroupLayoutEntry[] => {
      const { binding = 0, sampler } = places.get(name) ?? {};
      const texture = { sampleType: fetched ? 'unfilterable-float' : 'float', viewDimension: cube ? 'cube' : '2d' } as const;
      return [{ binding, visibility, texture }, ...(sampler === undefined ? [] : [{ binding: sampler, visibility, sampler: {} }])];
    }),
  ];
}
