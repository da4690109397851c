import { local, swizzle } from '../../ir/build';
import type { Expression } from '../../ir/ir';
import type { Range } from '../../ir/origin';
import { LanguageError, write, type CodeMend } from '../diagnostics';
import type { ReadsWgsl, WgslContext } from './wgsl-context';
import type { WgslScope } from './wgsl-scope';
import type { WgslExpression } from './wgsl-syntax';

type Named = Extract<WgslExpression, { op: 'name' }>;

const LETTERS = ['xyzw', 'rgba'];

/** What can be assigned to, and what pointers point to. */
export class WgslPlaces {
  constructor(
    private readonly expressions: ReadsWgsl,
    private readonly context: WgslContext,
    private readonly scope: WgslScope | undefined,
  ) {}

  /** What a pointer points to. */
  pointed(syntax: WgslExpression): Expression {
    if (syntax.op === 'unary' && syntax.operator === '&') return this.place(syntax.value);
    const variable = syntax.op === 'name' ? this.scope?.names.find(syntax.name) : undefined;
    const place = variable && this.scope?.pointers.get(variable.name);
    if (!place || !variable)
      throw new LanguageError('Only a pointer has something behind it: a parameter ptr<function, …>, or “let p = &name;”.', syntax);
    variable.read = true;
    if (syntax.op === 'name') this.expressions.value(syntax);
    return place;
  }

  /** Something that can be assigned to; marks the variable as changing. */
  place(syntax: WgslExpression): Expression {
    switch (syntax.op) {
      case 'unary':
        if (syntax.operator === '*') return this.changing(this.pointed(syntax.value));
        break;
      case 'name':
        return this.placeNamed(syntax);
      case 'member': {
        if (this.expressions.blockMember(syntax)) throw new LanguageError('Uniforms can only be read.', syntax);
        const object = this.place(syntax.object);
        if (object.type.kind === 'struct') {
          const found = object.type.fields.find((each) => each.name === syntax.field);
          if (found) return { op: 'member', object, field: found.name, type: found.type };
        }
        const size = object.type.kind === 'vector' ? object.type.size : 0;
        const set = LETTERS.find((each) => [...syntax.field].every((letter) => each.includes(letter)));
        const components = [...syntax.field].map((letter) => set?.indexOf(letter) ?? size);
        if (components.some((each) => each >= size)) {
          this.expressions.value(syntax);
          break;
        }
        if (new Set(components).size < components.length)
          throw new LanguageError('A component may stand only once in what is assigned to.', syntax.fieldRange);
        return swizzle(object, components);
      }
      case 'index': {
        const object = this.place(syntax.object);
        const read = this.expressions.value(syntax).value;
        return read.op === 'index' ? { ...read, object } : read;
      }
    }
    throw new LanguageError('Only a variable can be assigned to.', syntax);
  }

  private placeNamed(syntax: Named): Expression {
    const { name } = syntax;
    const variable = this.scope?.names.find(name);
    if (variable) {
      const pointed = this.scope?.pointers.get(variable.name);
      if (pointed) return this.changing(pointed);
      if (variable.readOnly) {
        const mends = this.varMend(variable.declared);
        throw new LanguageError(`"${name}" keeps its value; “var” would let it change.`, syntax, { mends, declared: variable.declared });
      }
      const read = variable.read;
      this.expressions.value(syntax);
      variable.read = read;
      return this.changing(local(variable.name, variable.type));
    }
    const place = this.expressions.value(syntax).value;
    const found = place.op === 'reference' ? this.context.environment.globals.get(place.name) : undefined;
    if (!found || !this.context.environment.isWritable(found)) throw new LanguageError(`"${name}" can only be read.`, syntax);
    return place;
  }

  private varMend({ from }: Range): CodeMend[] {
    const { text } = this.context.source;
    const word = /\b(let|const)\s+$/.exec(text.slice(Math.max(0, from - 40), from));
    const at = word?.[1] ? from - word[0].length : -1;
    return at >= 0 && word?.[1] ? [write('var', { from: at, to: at + word[1].length })] : [];
  }

  private changing(place: Expression): Expression {
    let root = place;
    while (root.op === 'member' || root.op === 'swizzle' || root.op === 'index') root = root.object;
    const variable = root.op === 'reference' && root.scope === 'local' ? this.scope?.names.ofIr(root.name) : undefined;
    if (variable) {
      variable.assigned = true;
      variable.uniform = false;
    }
    return place;
  }
}
