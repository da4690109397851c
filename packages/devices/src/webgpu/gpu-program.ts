import { ProgramRefused, type DeviceProgram, type ProgramDescriptor, type ProgramLayout } from '@brelvin/core';

/** Both stages as modules, and where their attributes come from. */
export interface GpuModules {
  readonly vertex: GPUShaderModule;
  readonly fragment: GPUShaderModule;
}

export class GpuProgram implements DeviceProgram {
  readonly label: string;
  readonly layout: ProgramLayout;
  readonly vertexBuffers: ProgramDescriptor['vertexBuffers'];
  readonly attributes: readonly string[];

  constructor(
    { label, code, vertexBuffers }: ProgramDescriptor,
    readonly modules: GpuModules,
    readonly destroy: () => void,
    /** Of the frame, which every driver takes. */
    readonly isOwn = false,
  ) {
    this.label = label;
    this.layout = code.layout;
    this.attributes = code.attributes;
    this.vertexBuffers = vertexBuffers;
  }
}

export function createModules(gpu: GPUDevice, { label, code }: ProgramDescriptor): GpuModules {
  return {
    vertex: gpu.createShaderModule({ label, code: code.vertex.text }),
    fragment: gpu.createShaderModule({ label, code: code.fragment.text }),
  };
}

/**
 * Waits until the driver has read a program.
 *
 * @throws ProgramRefused with what it says
 */
export async function takenModules(gpu: GPUDevice, descriptor: ProgramDescriptor): Promise<GpuModules> {
  // What is wrong with a module is told here, and need not be told as a fault of the device.
  gpu.pushErrorScope('validation');
  const modules = createModules(gpu, descriptor);
  const quiet = gpu.popErrorScope();
  for (const stage of ['vertex', 'fragment'] as const) {
    const { messages } = await modules[stage].getCompilationInfo();
    const [first] = messages.filter(({ type }) => type === 'error');
    if (first) throw new ProgramRefused(stage, first.message, first.lineNum || undefined);
  }
  await quiet;
  return modules;
}
