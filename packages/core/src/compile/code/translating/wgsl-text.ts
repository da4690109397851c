import type { Global, IrFunction } from '../../../ir/ir';
import { typeName, type StructType, type Type } from '../../../ir/types';
import { NotInWgsl, printWgslValue, WgslStatementWriter, wgslName, wgslTypeName } from '../../../language';
import { TextWriter } from './text-writer';

/** A text of GLSL in WGSL. */
export class WgslText extends TextWriter {
  protected readonly singleNames = true;

  protected clean(name: string): string {
    return wgslName(name);
  }

  protected type(type: Type): string {
    return wgslTypeName(type, ({ name }) => this.plain(name));
  }

  protected uniform(name: string, type: Type): void {
    // Both stages have it from one declaration.
    if (this.isDeclared(name, this.type(type))) return;
    const place = (): string => `@group(0) @binding(${this.table.bindings++})`;
    const own = this.namesOf(name);
    if (type.kind === 'sampler') {
      this.out.line(`${place()} var ${own}: ${this.type(type)};`);
      this.out.line(`${place()} var ${own}_sampler: sampler;`);
    } else if (typeName(type) === 'bool') this.out.line(`override ${own}: bool = false;`);
    else this.out.line(`${place()} var<uniform> ${own}: ${this.type(type)};`);
  }

  protected struct({ name, fields }: StructType): void {
    if (this.isDeclared(name, fields.map((field) => `${field.name}: ${this.type(field.type)}`).join())) return;
    this.out.line(`struct ${this.plain(name)} {`);
    this.out.indented(() => fields.forEach((field) => this.out.line(`${this.namesOf(field.name)}: ${this.type(field.type)},`)));
    this.out.line('}');
  }

  protected variable({ name, type, storage, value, origin }: Global): void {
    if (this.isDeclared(name, this.type(type))) return;
    if (storage === 'const' && value) {
      const words = printWgslValue(value, new WgslStatementWriter(EMPTY, this.context, this.out));
      this.out.line(`const ${this.plain(name)}: ${this.type(type)} = ${words};${this.commentBehind(origin)}`);
      return;
    }
    const start = value ? ` = ${printWgslValue(value, new WgslStatementWriter(EMPTY, this.context, this.out))}` : '';
    this.out.line(`var<${storage}> ${this.plain(name)}: ${this.type(type)}${start};`);
  }

  /** @throws NotInWgsl where the other stage has something else by the same name */
  private isDeclared(name: string, words: string): boolean {
    const before = this.table.declared.get(name);
    if (before !== undefined && before !== words)
      throw new NotInWgsl(`“${name}”, which is one thing in one stage and another in the other`);
    this.table.declared.set(name, words);
    return before !== undefined;
  }

  protected function(declared: IrFunction): void {
    new WgslStatementWriter(declared, this.context, this.out).write();
  }

  protected get context(): ConstructorParameters<typeof WgslStatementWriter>[1] {
    return {
      names: this.names,
      functions: this.functions,
      samplerOf: (image) => `${this.samplerName(image)}_sampler`,
      before: this.before,
    };
  }

  private samplerName(image: string): string {
    const uniform = this.from.read.uniforms.find(({ irName }) => irName === image);
    return this.namesOf(uniform?.name ?? image);
  }
}

const EMPTY: IrFunction = { signature: '', name: '', parameters: [], result: { kind: 'void' }, body: [], origin: { path: '' } };
