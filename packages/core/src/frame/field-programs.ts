import { libraryProgram } from '../catalogue/library';
import { plainVertexModule } from '../compile/surface-programs';
import type { Device } from '../device/device';
import type { FieldProgram } from '../field/read-field';
import type { Module } from '../ir/ir';
import { ProgramPipelines } from './program-pipelines';

/**
 * Programs that trace a field: as the eye sees it, as a light does, and by the steps that it takes. All are written and compiled
 * when they are first drawn.
 */
export interface FieldPrograms {
  /** Into the record that its parts are drawn from. */
  readonly trace: ProgramPipelines;
  readonly caster: ProgramPipelines;
  readonly steps: ProgramPipelines;
}

export function fieldPrograms(device: Device, field: FieldProgram): FieldPrograms {
  return {
    trace: ProgramPipelines.own(
      device,
      'field',
      () => plainVertexModule('field_box.vert'),
      () => withField('field_trace.frag', field),
    ),
    caster: ProgramPipelines.own(
      device,
      'field caster',
      () => plainVertexModule('field_caster.vert'),
      () => withField('field_caster.frag', field),
    ),
    steps: ProgramPipelines.own(
      device,
      'field steps',
      () => plainVertexModule('field_box.vert'),
      () => withField('field_steps.frag', field),
    ),
  };
}

function withField(name: 'field_trace.frag' | 'field_caster.frag' | 'field_steps.frag', { module, fieldAt }: FieldProgram): Module {
  const program = libraryProgram(name);
  return {
    structs: new Map([...module.structs, ...program.structs]),
    globals: new Map([...module.globals, ...program.globals]),
    blocks: new Map([...module.blocks, ...program.blocks]),
    functions: new Map([...module.functions, ...program.functions, [fieldAt.signature, fieldAt]]),
  };
}
