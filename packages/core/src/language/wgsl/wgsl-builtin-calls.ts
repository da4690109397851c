import { constant } from '../../ir/build';
import { needsNeighbours } from '../../ir/builtins/table';
import type { Expression, IrFunction } from '../../ir/ir';
import { fold } from '../../ir/passes';
import { componentCount, FLOAT, ofSize, scalarOf, type Type } from '../../ir/types';
import type { ControlFlow } from '../control-flow';
import { KnownTrouble, LanguageError, write, type CodeMend } from '../diagnostics';
import { nearestMend } from '../nearest-name';
import { bitcast, builtinFor, IMAGE_READS, imageRead, overloadsOf, select, WGSL_BUILTIN_NAMES } from './wgsl-calls';
import type { ReadsWgsl, WgslContext } from './wgsl-context';
import type { WgslScope } from './wgsl-scope';
import type { WgslExpression } from './wgsl-syntax';
import { as, concrete, settled, type WgslValue } from './wgsl-value';

type Call = Extract<WgslExpression, { op: 'call' }>;

const NO_FUNCTIONS = { functions: new Map<string, IrFunction>() };

/** Words of other languages for what WGSL calls otherwise. */
const FOREIGN: Readonly<Record<string, string>> = {
  texture: 'textureSample',
  inversesqrt: 'inverseSqrt',
  rsqrt: 'inverseSqrt',
  dFdx: 'dpdx',
  dFdy: 'dpdy',
  ddx: 'dpdx',
  ddy: 'dpdy',
  lerp: 'mix',
  frac: 'fract',
  faceforward: 'faceForward',
  float: 'f32',
  int: 'i32',
  uint: 'u32',
  vec2: 'vec2f',
  float2: 'vec2f',
  float3: 'vec3f',
  float4: 'vec4f',
};

/** Calls of built-in functions (section 17). */
export class WgslBuiltinCalls {
  constructor(
    private readonly expressions: ReadsWgsl,
    private readonly context: WgslContext,
    private readonly scope: WgslScope | undefined,
    private readonly flow?: ControlFlow,
  ) {}

  call(syntax: Call): WgslValue {
    const { name, nameRange } = syntax.callee;
    if (Object.hasOwn(IMAGE_READS, name)) return this.image(syntax);
    if (!WGSL_BUILTIN_NAMES.includes(name)) throw this.unknown(syntax);
    const given = syntax.args.map((arg) => this.expressions.value(arg));
    const made = this.made(syntax, given);
    if (made) return made;
    const [first] = given;
    // Unsigned numbers have no sign to take away.
    if (name === 'abs' && given.length === 1 && first && scalarOf(first.value.type) === 'uint') return first;
    const found = builtinFor(name, given);
    if (!found) {
      const forms = [
        ...new Set(
          overloadsOf(name).map(({ parameters }) => `${name}(${parameters.map((each) => this.expressions.words(each)).join(', ')})`),
        ),
      ].slice(0, 4);
      throw new LanguageError(
        `"${name}" does not take (${given.map((each) => this.expressions.wordsOf(each)).join(', ')}). It takes ${forms.join(' or ')}.`,
        syntax,
      );
    }
    const { parameters, result } = found.overload;
    const args = given.map((each, index) => as(each, parameters[index] ?? each.value.type) ?? each.value);
    this.context.environment.note(nameRange, () => ({
      kind: 'builtin',
      name,
      signature: `${name}(${parameters.map((each) => this.expressions.words(each)).join(', ')}) -> ${this.expressions.words(result)}`,
    }));
    if (needsNeighbours(found.name)) this.flow?.call(name, undefined, syntax);
    const value: Expression = { op: 'builtin', name: found.name, args, type: result };
    return concrete(args.every(({ op }) => op === 'constant') ? fold(value, NO_FUNCTIONS) : value);
  }

  private unknown({ callee: { name, nameRange } }: Call): LanguageError {
    if (this.context.environment.troubled.has(name) || this.context.module.isTroubled(name)) return new KnownTrouble(nameRange);
    const today = Object.hasOwn(FOREIGN, name) ? FOREIGN[name] : undefined;
    if (today)
      return new LanguageError(`“${name}” is from another language; in WGSL it is “${today}”.`, nameRange, {
        mends: [write(today, nameRange)],
      });
    if ([...(this.context.environment.options.importer?.names ?? [])].includes(name)) {
      const mend: CodeMend = { label: `Import “${name}” from the Library`, edits: [{ from: 0, to: 0, text: `import ${name};\n` }] };
      return new LanguageError(`"${name}" is a function of the Library that is not imported here.`, nameRange, { mends: [mend] });
    }
    const names = [...WGSL_BUILTIN_NAMES, ...this.context.environment.callableNames()];
    return new LanguageError(`There is no function "${name}".`, nameRange, { mends: [nearestMend(name, nameRange, names)] });
  }

  /** Functions that are made of others. */
  private made(syntax: Call, given: readonly WgslValue[]): WgslValue | undefined {
    const { name, nameRange } = syntax.callee;
    const counts: Readonly<Record<string, number>> = { select: 3, saturate: 1, fma: 3, modf: 1 };
    const wanted = Object.hasOwn(counts, name) ? counts[name] : undefined;
    if (wanted === undefined) return undefined;
    if (given.length !== wanted) throw new LanguageError(`"${name}" takes ${wanted} values, ${given.length} are given.`, syntax);
    const [a, b, c] = given;
    if (!a) return undefined;
    this.context.environment.note(nameRange, () => ({ kind: 'builtin', name, signature: `${name}( … )` }));
    if (name === 'select' && b && c) {
      const [no, yes] = this.expressions.alike(a, b, syntax);
      const value = select(no, yes, settled(c));
      if (!value)
        throw new LanguageError(
          `"select" takes a bool, or one for each component, but this is ${this.expressions.wordsOf(c)}.`,
          syntax.args[2] ?? syntax,
        );
      return concrete(value);
    }
    const x = as(a, a.value.type.kind === 'vector' ? ofSize('float', componentCount(a.value.type)) : FLOAT);
    if (!x)
      throw new LanguageError(
        `"${name}" takes f32 or a vector of it, but this is ${this.expressions.wordsOf(a)}.`,
        syntax.args[0] ?? syntax,
      );
    const { type } = x;
    if (name === 'saturate') return concrete({ op: 'builtin', name: 'clamp', args: [x, spread(type, 0), spread(type, 1)], type });
    if (name === 'fma' && b && c) {
      const [y, z] = [as(b, type), as(c, type)];
      if (!y || !z) throw new LanguageError('"fma" takes three values of one type.', syntax);
      return concrete({ op: 'binary', operator: '+', left: { op: 'binary', operator: '*', left: x, right: y, type }, right: z, type });
    }
    throw new LanguageError('Take a part of what “modf” gives: modf(x).fract or modf(x).whole.', syntax);
  }

  private image(syntax: Call): WgslValue {
    const { name, nameRange } = syntax.callee;
    const read = IMAGE_READS[name];
    const given: WgslValue[] = [];
    syntax.args.forEach((arg, index) => {
      if (read?.sampled && index === 1) {
        if (!this.expressions.isSampler(arg)) throw new LanguageError(`"${name}" takes a sampler here.`, arg);
        if (arg.op === 'name')
          this.context.environment.note(arg, () => ({
            kind: 'variable',
            name: arg.name,
            signature: `${arg.name}: sampler`,
            declared: this.context.module.samplers.get(arg.name),
          }));
        return;
      }
      given.push(this.expressions.value(arg));
    });
    const value = imageRead(name, given);
    if (!value) {
      const words = given.map((each) => this.expressions.wordsOf(each)).join(', ');
      throw new LanguageError(
        `"${name}" does not read this: (${words}). It takes the image${read?.sampled ? ', its sampler' : ''}, and the place in it.`,
        syntax,
      );
    }
    this.context.environment.note(nameRange, () => ({
      kind: 'builtin',
      name,
      signature: `${name}( … ) -> ${this.expressions.words(value.type)}`,
    }));
    if (value.op === 'builtin' && needsNeighbours(value.name)) this.flow?.call(name, undefined, syntax, this.explicitLevel(syntax));
    return concrete(value);
  }

  private explicitLevel({ callee: { name, nameRange }, to }: Call): CodeMend | undefined {
    if (name !== 'textureSample') return undefined;
    return {
      label: 'Read the finest size: textureSampleLevel( … , 0.0)',
      edits: [
        { from: nameRange.from, to: nameRange.to, text: 'textureSampleLevel' },
        { from: to - 1, to: to - 1, text: ', 0.0' },
      ],
    };
  }

  bitcast(syntax: Call): WgslValue {
    const [wanted] = syntax.callee.args;
    const type = wanted && this.context.module.typeOf(wanted, this.scope);
    const [arg] = syntax.args;
    if (!type || !arg || syntax.args.length !== 1) throw new LanguageError('“bitcast” is written bitcast<f32>(value).', syntax);
    const value = bitcast(this.expressions.settledValue(arg), type);
    if (!value)
      throw new LanguageError(
        `The bits of ${this.expressions.wordsOf(this.expressions.value(arg))} cannot be ${this.expressions.words(type)}.`,
        syntax,
      );
    return concrete(value);
  }
}

function spread(type: Type, value: number): Expression {
  return constant(type, Array<number>(componentCount(type)).fill(value));
}
