import type { Global, IrFunction } from '../../../ir/ir';
import { typeName, type StructType, type Type } from '../../../ir/types';
import { functionHead, printDeclarator, printStatements, printValue, writtenName } from '../../../language';
import { TextWriter } from './text-writer';

/** A text of WGSL in GLSL. */
export class GlslText extends TextWriter {
  protected readonly singleNames = false;

  protected clean(name: string): string {
    return writtenName(name);
  }

  protected uniform(name: string, type: Type, _: number, fallback: readonly number[] | undefined): void {
    if (fallback) this.out.line(`/** @value ${typeName(type) === 'bool' ? (fallback[0] ? 'on' : 'off') : fallback.join(' ')} */`);
    this.out.line(`uniform ${printDeclarator(type, this.namesOf(name), this.names)};`);
  }

  protected declarator(type: Type, name: string): string {
    return printDeclarator(type, this.plain(name), this.names);
  }

  protected struct({ name, fields }: StructType): void {
    this.out.line(`struct ${this.plain(name)} {`);
    this.out.indented(() =>
      fields.forEach((field) => this.out.line(`${printDeclarator(field.type, this.namesOf(field.name), this.names)};`)),
    );
    this.out.line('};');
  }

  protected variable({ name, type, storage, flat, value, origin }: Global): void {
    const start = value && (storage === 'private' || storage === 'const') ? ` = ${printValue(value, this.names)}` : '';
    const before = `${flat ? 'flat ' : ''}${storage === 'out' || storage === 'const' ? `${storage} ` : ''}`;
    const behind = storage === 'const' ? this.commentBehind(origin) : '';
    this.out.line(`${before}${printDeclarator(type, this.plain(name), this.names)}${start};${behind}`);
  }

  protected function(declared: IrFunction): void {
    this.out.line(`${functionHead(declared, this.names)} {`);
    this.out.indented(() => printStatements(declared.body, this.names, this.out, this.before));
    this.out.line('}');
  }
}
