import { PIXEL_PLACE } from '../../ir/builtin-variables';
import type { IrFunction } from '../../ir/ir';
import type { StageProgram } from '../../ir/program';
import { walkStatements } from '../../ir/walk';
import { writtenGlobal, writtenName } from '../../language';
import { NameTable } from '../name-table';
import { DEVICE_TARGET } from './legalise';

/** The names of one stage: what stands outside functions, and in each function its locals. */
export class StageNames {
  private readonly outer: NameTable;
  private readonly globals = new Map<string, string>();
  private readonly functions = new Map<string, string>();
  private readonly structs = new Map<string, string>();
  private readonly fields = new Map<string, NameTable>();

  constructor(stage: Pick<StageProgram, 'structs' | 'blocks' | 'inputs' | 'outputs' | 'samplers' | 'privates' | 'functions'>) {
    // What both stages share must be called the same in both: these come first, and never collide.
    this.outer = new NameTable(writtenName, ['programMain', 'deviceFragCoord', DEVICE_TARGET]);
    const shared = [...stage.blocks.flatMap(({ members }) => members), ...stage.inputs, ...stage.outputs, ...stage.samplers];
    for (const { name } of [...stage.blocks, ...shared]) this.globals.set(name, this.outer.of(name));
    for (const { name } of stage.privates) this.globals.set(name, this.outer.of(name, 'private'));
    for (const { name, fields } of stage.structs) {
      this.structs.set(name, this.outer.of(name, 'struct'));
      for (const field of fields) this.field(name, field.name);
    }
    // Overloads keep one name, as GLSL allows.
    for (const { signature, name } of stage.functions)
      this.functions.set(signature, name === 'main' ? 'programMain' : this.outer.of(name, 'function'));
  }

  global(name: string): string {
    if (name === PIXEL_PLACE) return 'deviceFragCoord()';
    if (name === DEVICE_TARGET) return name;
    const builtin = writtenGlobal(name);
    return builtin === name ? (this.globals.get(name) ?? writtenName(name)) : builtin;
  }

  functionOf(signature: string): string {
    return this.functions.get(signature) ?? writtenName(signature.slice(0, signature.indexOf('(')));
  }

  struct(name: string): string {
    return this.structs.get(name) ?? writtenName(name);
  }

  field(struct: string, name: string): string {
    const known = this.fields.get(struct) ?? new NameTable(writtenName);
    this.fields.set(struct, known);
    return known.of(name);
  }

  /** Names of a function's locals: none hides what the function may call. */
  locals({ parameters, body }: IrFunction): (name: string) => string {
    const table = new NameTable(writtenName, this.outer.all);
    for (const { name } of parameters) table.of(name);
    walkStatements(body, (statement) => {
      if (statement.op === 'declare') table.of(statement.name);
    });
    return (name) => table.of(name);
  }
}
