import type { IrFunction } from '../../ir/ir';
import type { StageProgram } from '../../ir/program';
import type { Type } from '../../ir/types';
import { walkStatements } from '../../ir/walk';
import { WGSL_BUILTIN_NAMES, wgslName, wgslTypeName, type PrintedNames } from '../../language';
import { NameTable } from '../name-table';
import { ENTRY_NAMES } from './entry-names';

/** A name that the writer of statements may make itself is left to it. */
function cleanName(name: string): string {
  const own = wgslName(name);
  return /^copy\d+$|^given_/.test(own) ? `${own}_` : own;
}

/** The names of one stage: in WGSL each stands for one thing, and built-in functions keep theirs. */
export class WgslStageNames {
  private readonly outer = new NameTable(cleanName, [...WGSL_BUILTIN_NAMES, ...ENTRY_NAMES]);
  private readonly members = new Map<string, string>();
  private readonly globals = new Map<string, string>();
  private readonly functions = new Map<string, string>();

  constructor(stage: StageProgram) {
    for (const { name, members } of stage.blocks) {
      const block = this.outer.of(name, 'block');
      this.globals.set(name, block);
      for (const member of members) this.members.set(member.name, `${block}.${wgslName(member.name)}`);
    }
    for (const { name } of [...stage.samplers, ...stage.inputs, ...stage.outputs, ...stage.privates])
      this.globals.set(name, this.outer.of(name, 'variable'));
    for (const { name } of stage.samplers) this.outer.of(samplerName(name), 'variable');
    for (const { name } of stage.structs) this.outer.of(name, 'struct');
    for (const { signature, name } of stage.functions)
      this.functions.set(signature, name === 'main' ? this.outer.of('programMain', 'main') : this.outer.of(name, `function ${signature}`));
  }

  /** Of a built-in variable, or of what is no input, output or uniform of this stage. */
  variable(name: string): string {
    return this.members.get(name) ?? this.globals.get(name) ?? this.outer.of(name.replace('builtin.', ''), 'variable');
  }

  /** The type of a uniform block. */
  blockType(name: string): string {
    return this.outer.of(`${name}Block`, 'struct');
  }

  struct(name: string): string {
    return this.outer.of(name, 'struct');
  }

  typeOf(type: Type): string {
    return wgslTypeName(type, ({ name }) => this.struct(name));
  }

  sampler(image: string): string {
    return this.outer.of(samplerName(image), 'variable');
  }

  get main(): string {
    return this.functions.get('main()') ?? '';
  }

  /** Names outside of functions, or inside of one. */
  written(inside?: IrFunction): PrintedNames {
    const locals = inside && this.locals(inside);
    return {
      functionOf: (signature) => this.functions.get(signature) ?? signature,
      global: (name) => this.variable(name),
      local: (name) => locals?.of(name) ?? name,
      struct: (name) => this.struct(name),
      field: (_, name) => wgslName(name),
    };
  }

  /** Locals of a function: none hides what the function may call. */
  private locals({ parameters, body }: IrFunction): NameTable {
    const table = new NameTable(cleanName, this.outer.all);
    for (const { name, type } of parameters) {
      table.of(name);
      if (type.kind === 'sampler') table.of(samplerName(name));
    }
    walkStatements(body, (statement) => {
      if (statement.op === 'declare') table.of(statement.name);
    });
    return table;
  }
}

/** Of the sampler by which an image is read. */
export function samplerName(image: string): string {
  return `${image}Sampler`;
}
