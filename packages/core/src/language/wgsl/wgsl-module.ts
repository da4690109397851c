import { local, signatureOf, zeroOf } from '../../ir/build';
import type { Expression, Global, IrFunction } from '../../ir/ir';
import type { Origin, Range } from '../../ir/origin';
import {
  BOOL,
  FLOAT,
  matrix,
  NAMED_TYPES,
  sameType,
  scalarCount,
  scalarOf,
  vector,
  VOID,
  type StructField,
  type Type,
} from '../../ir/types';
import { alwaysReturns, markMutable } from '../finished-body';
import type { ControlFlow } from '../control-flow';
import type { DeclaredUniform } from '../declared-uniform';
import { KnownTrouble, LanguageError, write, type DiagnosticList } from '../diagnostics';
import { readDocumentation, type Documentation } from '../documentation';
import { arrayOf, type Environment } from '../environment';
import { importFunction } from '../import-function';
import { KnownBodies, type ReadBody } from '../known-bodies';
import { nearestMend } from '../nearest-name';
import { FunctionScope } from '../scope';
import type { SourceText } from '../source';
import { WgslEntry, type EntryModule, type WgslStage } from './wgsl-entry';
import type { WgslContext, WgslNames } from './wgsl-context';
import { WgslExpressions } from './wgsl-expressions';
import type { WgslScope } from './wgsl-scope';
import { WgslStatements } from './wgsl-statements';
import type { WgslDeclaration, WgslExpression, WgslFunction, WgslGlobal, WgslMember, WgslStruct, WgslType } from './wgsl-syntax';
import { IMAGES, plainType, wgslTypeName } from './wgsl-types';
import { settled } from './wgsl-value';

const REFUSED_SPACES: Readonly<Record<string, string>> = {
  storage: 'Storage buffers are for compute shaders; materials have uniforms and images.',
  workgroup: 'Memory of a work group is for compute shaders; materials have none.',
};

/** Reads the declarations of one text of WGSL, each when it is first named: they may stand in any order. */
export class WgslModule implements WgslNames, EntryModule {
  readonly documentation = new Map<string, Documentation>();
  readonly uniforms: DeclaredUniform[] = [];
  readonly own: string[] = [];
  readonly flows: ControlFlow[] = [];
  /** Samplers outside of functions, with where they are declared. */
  readonly samplers = new Map<string, Origin>();
  private readonly context: WgslContext;
  private readonly byName = new Map<string, WgslDeclaration>();
  private readonly state = new Map<string, 'open' | 'done' | 'troubled'>();
  private readonly abstracts = new Map<string, 'int' | 'float'>();

  constructor(
    private readonly source: SourceText,
    private readonly diagnostics: DiagnosticList,
    private readonly environment: Environment,
    private readonly declarations: readonly WgslDeclaration[],
    private readonly stage: WgslStage | undefined,
  ) {
    this.context = { source, diagnostics, environment, module: this };
    for (const each of declarations) {
      if (each.op === 'assert' || each.op === 'import') continue;
      const before = this.byName.get(each.name);
      if (before && 'nameRange' in before)
        this.diagnostics.add('error', `"${each.name}" is already defined.`, each.nameRange, { declared: before.nameRange });
      else this.byName.set(each.name, each);
    }
  }

  /** Reads all declarations but the bodies of functions; these are read by what comes back. */
  read(): () => void {
    for (const each of this.declarations) {
      if (each.op === 'import') this.diagnostics.guard(() => importFunction(each, this.environment), undefined);
    }
    for (const each of this.declarations) {
      if (each.op === 'struct' || each.op === 'global' || each.op === 'alias')
        this.diagnostics.guard(() => this.ready(each.name), undefined);
      else if (each.op === 'function') this.diagnostics.guard(() => this.ready(each.name), undefined);
    }
    return () => {
      const functions = this.declarations.filter((each) => each.op === 'function');
      const bodies = KnownBodies.of(this.source, this.diagnostics, this.environment, functions);
      for (const each of this.declarations) {
        if (each.op === 'assert') this.diagnostics.guard(() => this.assert(each.value), undefined);
        if (each.op === 'function' && this.byName.get(each.name) === each) this.diagnostics.guard(() => this.body(each, bodies), undefined);
      }
      const { stage } = this;
      if (stage) this.diagnostics.guard(() => new WgslEntry(this, this.context, this.declarations, stage).read(), undefined);
    };
  }

  isTroubled(name: string): boolean {
    return this.state.get(name) === 'troubled';
  }

  /** A variable or constant of the text, or one that it may use. */
  global(name: string): Global | undefined {
    const own = this.byName.get(name);
    if (own?.op === 'global') {
      this.ready(name);
      return this.environment.ownGlobal(name);
    }
    return this.environment.ownGlobal(name) ?? (name.startsWith('gl_') ? undefined : this.environment.global(name));
  }

  globalNames(): string[] {
    return [...this.byName.values()].flatMap((each) => (each.op === 'global' ? [each.name] : []));
  }

  /** Whether a constant is a number without a type of its own. */
  abstractOf(name: string): 'int' | 'float' | undefined {
    return this.abstracts.get(name);
  }

  /** Reads a function's head, should it not be known yet. */
  readFunction(name: string): void {
    if (this.byName.get(name)?.op === 'function') this.ready(name);
  }

  samplersTakenBy(name: string): number | undefined {
    const own = this.byName.get(name);
    if (own?.op !== 'function') return undefined;
    return own.parameters.length - this.parameterTypes(own.parameters).length;
  }

  /** The type of a call's head, where it is one. */
  typeNamed(syntax: WgslType, scope: WgslScope | undefined): Type | undefined {
    const { name, args } = syntax;
    const own = this.byName.get(name);
    const isType =
      own?.op === 'struct' || own?.op === 'alias' || plainType(name) !== undefined || this.environment.struct(name) !== undefined;
    if (isType || (args.length > 0 && (name === 'array' || /^(?:vec|mat)/.test(name)))) return this.resolve(syntax, scope);
    return undefined;
  }

  /** What a template's argument names. */
  typeOf(syntax: WgslExpression, scope: WgslScope | undefined): Type | undefined {
    if (syntax.op === 'type') return this.resolve(syntax.type, scope);
    if (syntax.op !== 'name') return undefined;
    return this.resolve({ name: syntax.name, nameRange: syntax, args: [], from: syntax.from, to: syntax.to }, scope);
  }

  /** @throws LanguageError for an unknown type, with the nearest right name */
  resolve(syntax: WgslType, scope: WgslScope | undefined): Type {
    const type = this.typeOrPointer(syntax, scope);
    if (type === 'sampler')
      throw new LanguageError('A sampler is declared outside of functions, and given to those that read images.', syntax);
    if ('pointsTo' in type) throw new LanguageError('A pointer is a parameter, or made by “let p = &name;”.', syntax);
    return type;
  }

  private typeOrPointer(syntax: WgslType, scope: WgslScope | undefined): Type | 'sampler' | { readonly pointsTo: Type } {
    const { name, nameRange, args } = syntax;
    const plain = plainType(name);
    if (plain && args.length === 0) {
      this.environment.note(nameRange, () => ({ kind: 'type', name, signature: name }));
      return plain;
    }
    if (name === 'sampler' || name === 'sampler_comparison') return 'sampler';
    const own = this.byName.get(name);
    if (own?.op === 'alias') {
      this.ready(name);
      return this.resolve(own.type, scope);
    }
    if (own?.op === 'struct') this.ready(name);
    const struct = this.environment.struct(name);
    if (struct) {
      const signature = `struct ${name} { ${struct.fields.map((field) => `${field.name}: ${wgslTypeName(field.type)}`).join(', ')} }`;
      this.environment.note(nameRange, () => ({ kind: 'struct', name, signature, declared: struct.origin }));
      return struct;
    }
    if (own?.op === 'struct') throw new KnownTrouble(nameRange);
    return this.templated(syntax, scope);
  }

  private templated(syntax: WgslType, scope: WgslScope | undefined): Type | { readonly pointsTo: Type } {
    const { name, args, nameRange } = syntax;
    const [first, second] = args;
    // The first of a pointer is no type but where it points to.
    const element = first && name !== 'ptr' ? this.typeOf(first, scope) : undefined;
    const vectorOf = /^vec([234])$/.exec(name);
    const matrixOf = /^mat([234])x([234])$/.exec(name);
    if (vectorOf) {
      if (element?.kind !== 'scalar')
        throw new LanguageError(`Say of what it is: ${name}<f32>, or ${name}f.`, syntax, {
          mends: args.length === 0 ? [write(`${name}f`, nameRange)] : [],
        });
      return vector(Number(vectorOf[1]), element.scalar);
    }
    if (matrixOf) {
      if (!element || !sameType(element, FLOAT))
        throw new LanguageError(`A matrix is of f32: ${name}<f32>, or ${name}f.`, syntax, {
          mends: args.length === 0 ? [write(`${name}f`, nameRange)] : [],
        });
      return matrix(Number(matrixOf[1]), Number(matrixOf[2]));
    }
    if (name === 'array') {
      if (!element) throw new LanguageError('Say of what it is, and how long: array<f32, 4>.', syntax);
      if (!second)
        throw new LanguageError('An array whose length is left open is for storage buffers. Give it a length: array<f32, 4>.', syntax);
      return arrayOf(element, new WgslExpressions(this.context, scope).constantLength(second), second);
    }
    if (name === 'ptr') {
      const pointsTo = second && this.typeOf(second, scope);
      if (!pointsTo || (first?.op !== 'type' && first?.op !== 'name'))
        throw new LanguageError('A pointer is written ptr<function, f32>.', syntax);
      return { pointsTo };
    }
    if (name === 'atomic') throw new LanguageError('Atomics are for compute shaders; materials have none.', syntax);
    if (/^texture_(?:storage|multisampled|external)/.test(name))
      throw new LanguageError(`“${name}” cannot be brought into a material. Take texture_2d<f32>.`, syntax);
    if (Object.hasOwn(IMAGES, name)) {
      const kind = element ? scalarOf(element) : undefined;
      const prefix = kind === 'int' ? 'i' : kind === 'uint' ? 'u' : '';
      const type = NAMED_TYPES.get(`${prefix}${IMAGES[name] ?? ''}`);
      if (!element || !type) throw new LanguageError(`Say of what it is: ${name}<f32>.`, syntax);
      return type;
    }
    if (name === 'f16' || (/h$/.test(name) && plainType(name.replace(/h$/, 'f'))))
      throw new LanguageError('f16 is an extension that not every device has. Take f32.', nameRange);
    const foreign: Readonly<Record<string, string>> = {
      float: 'f32',
      int: 'i32',
      uint: 'u32',
      float2: 'vec2f',
      float3: 'vec3f',
      float4: 'vec4f',
      mat2: 'mat2x2f',
      mat3: 'mat3x3f',
      mat4: 'mat4x4f',
      sampler2D: 'texture_2d<f32>',
      samplerCube: 'texture_cube<f32>',
    };
    const today = Object.hasOwn(foreign, name) ? foreign[name] : undefined;
    if (today)
      throw new LanguageError(`“${name}” is from another language; in WGSL it is “${today}”.`, nameRange, {
        mends: [write(today, nameRange)],
      });
    const names = ['f32', 'i32', 'u32', 'bool', 'vec2f', 'vec3f', 'vec4f', 'mat3x3f', 'mat4x4f', 'array', ...this.byName.keys()];
    throw new LanguageError(`There is no type "${name}".`, nameRange, { mends: [nearestMend(name, nameRange, names)] });
  }

  /** Reads a declaration once. @throws KnownTrouble where that failed before */
  private ready(name: string): void {
    const declared = this.byName.get(name);
    if (!declared || !('nameRange' in declared)) return;
    const state = this.state.get(name);
    if (state === 'done') return;
    if (state === 'troubled') throw new KnownTrouble(declared.nameRange);
    if (state === 'open') throw new LanguageError(`"${name}" is made of itself.`, declared.nameRange);
    this.state.set(name, 'open');
    try {
      if (declared.op === 'struct') this.struct(declared);
      else if (declared.op === 'global') this.variable(declared);
      else if (declared.op === 'alias') this.resolve(declared.type, undefined);
      else if (declared.op === 'function') this.head(declared);
      this.state.set(name, 'done');
    } catch (error) {
      this.state.set(name, 'troubled');
      throw error;
    }
  }

  private struct({ name, nameRange, members }: WgslStruct): void {
    const fields = members.map((member): StructField => ({ name: member.name, type: this.resolve(member.type, undefined) }));
    if (fields.length === 0) throw new LanguageError('A struct needs at least one member.', nameRange);
    const twice = members.find((member, index) => members.findIndex((each) => each.name === member.name) < index);
    if (twice) throw new LanguageError(`The struct has two members "${twice.name}".`, twice.nameRange);
    const odd = members.find((_, index) => fields[index]?.type.kind === 'sampler');
    if (odd) throw new LanguageError('An image stands outside of structs.', odd.type);
    const size = fields.reduce((sum, field) => sum + scalarCount(field.type), 0);
    if (size > 16_384) throw new LanguageError(`This struct holds ${size} numbers; at most 16384 are possible.`, nameRange);
    const origin = { path: this.source.path, range: nameRange };
    this.environment.addStruct(name, (irName) => ({ kind: 'struct', name: irName, fields, origin }));
    this.environment.note(nameRange, () => ({ kind: 'struct', name, signature: `struct ${name}`, declared: origin }));
  }

  private expressions(): WgslExpressions {
    return new WgslExpressions(this.context, undefined);
  }

  private assert(syntax: WgslExpression): void {
    const value = this.expressions().known(this.expressions().wanted(syntax, BOOL, 'What is asserted'));
    if (value.op !== 'constant') throw new LanguageError('Only what is known beforehand can be asserted.', syntax);
    if (!value.value[0]) throw new LanguageError('This does not hold.', syntax);
  }

  private variable(syntax: WgslGlobal): void {
    const { name, nameRange, kind, space } = syntax;
    const origin: Origin = { path: this.source.path, range: nameRange };
    if (space !== undefined && Object.hasOwn(REFUSED_SPACES, space)) throw new LanguageError(REFUSED_SPACES[space] ?? '', nameRange);
    const written = syntax.type && this.typeOrPointer(syntax.type, undefined);
    if (written === 'sampler') {
      this.samplers.set(name, origin);
      this.environment.note(nameRange, () => ({ kind: 'variable', name, signature: `${name}: sampler`, declared: origin }));
      return;
    }
    if (written && 'pointsTo' in written)
      throw new LanguageError('A pointer is a parameter, or made inside of a function.', syntax.type ?? nameRange);
    if (kind === 'var' && (space === 'uniform' || written?.kind === 'sampler')) {
      this.uniform(syntax, written, origin);
      return;
    }
    const given = syntax.value && this.expressions().value(syntax.value);
    const value =
      syntax.value && given && (written ? this.expressions().wanted(syntax.value, written, `The value of "${name}"`) : settled(given));
    const type = written ?? value?.type;
    if (!type) throw new LanguageError(`"${name}" needs a type or a value.`, nameRange);
    this.note(name, nameRange, type, origin);
    if (kind === 'override') {
      this.override(syntax, type, value, origin);
      return;
    }
    const known = value && this.expressions().known(value);
    if (known && known.op !== 'constant' && known.op !== 'construct')
      throw new LanguageError('This must be known beforehand: numbers, constants and built-in functions.', syntax.value ?? nameRange);
    if (kind === 'const') {
      if (!known || !given) throw new LanguageError(`The constant "${name}" needs a value.`, nameRange);
      const abstract = written ? undefined : given.abstract;
      if (abstract) this.abstracts.set(name, abstract);
      const kept = abstract ? given.value : known;
      this.environment.addGlobal(name, (irName) => ({ name: irName, type, storage: 'const', value: kept, origin }));
      return;
    }
    if (space === 'out') {
      if (syntax.value) throw new LanguageError('What is handed on is given its value by “shape”.', syntax.value);
      const flat = scalarOf(type) !== 'float' || undefined;
      this.environment.addGlobal(name, (irName) => ({ name: irName, type, storage: 'out', flat, origin }));
      return;
    }
    if (space !== 'private') {
      const at = { from: syntax.from, to: syntax.from };
      throw new LanguageError(
        `Say where "${name}" is kept: var<private> for a variable, var<uniform> for a parameter, var<out> for what goes from “shape” to “paint”.`,
        nameRange,
        {
          mends: this.source.text.startsWith('var', syntax.from) ? [write('var<private>', { from: at.from, to: at.from + 3 })] : [],
        },
      );
    }
    if (!this.environment.options.parameters)
      throw new LanguageError('Variables outside of functions have no place here. Take a const.', nameRange);
    this.environment.addGlobal(name, (irName) => ({ name: irName, type, storage: 'private', value: known ?? zeroOf(type), origin }));
  }

  private note(name: string, range: Range, type: Type, declared: Origin): void {
    const words = wgslTypeName(type);
    this.environment.note(range, () => ({ kind: 'variable', name, signature: `${name}: ${words}`, type: words, declared }));
  }

  private comment(documentation: Range | undefined): DeclaredUniform['comment'] {
    return documentation && { text: this.source.slice(documentation), range: documentation };
  }

  /** A uniform or image: a parameter, or of a struct one for each of its members. */
  private uniform(syntax: WgslGlobal, type: Type | undefined, origin: Origin): void {
    const { name, nameRange, documentation } = syntax;
    if (!type) throw new LanguageError(`"${name}" needs a type.`, nameRange);
    if (!this.environment.options.parameters)
      throw new LanguageError('Uniforms and images have no place here: what a function reads it is given.', nameRange);
    if (syntax.value)
      throw new LanguageError(
        'A uniform is given its value from outside. Write its default in a comment before it: /** @value … */',
        syntax.value,
      );
    if (type.kind !== 'struct') {
      const storage = type.kind === 'sampler' ? 'sampler' : 'uniform';
      const added = this.environment.addGlobal(name, (irName) => ({ name: irName, type, storage, origin }));
      this.note(name, nameRange, type, origin);
      this.uniforms.push({ name, irName: added.name, type, nameRange, comment: this.comment(documentation) });
      return;
    }
    const members = new Map<string, Global>();
    const written = this.structSyntax(syntax.type);
    for (const field of type.fields) {
      const member = written?.members.find((each) => each.name === field.name);
      const range = member?.nameRange ?? nameRange;
      const place = { path: this.source.path, range };
      const known = this.environment.options.systemUniforms?.has(field.name) === true;
      const unique = known ? field.name : `${name}_${field.name}`;
      const added = this.environment.addGlobal(unique, (irName) => ({ name: irName, type: field.type, storage: 'uniform', origin: place }));
      members.set(field.name, added);
      this.uniforms.push({
        name: unique,
        irName: added.name,
        type: field.type,
        nameRange: range,
        comment: this.comment(member?.documentation),
      });
    }
    this.environment.instances.set(name, members);
    this.note(name, nameRange, type, origin);
  }

  structSyntax(type: WgslType | undefined): WgslStruct | undefined {
    const declared = type && this.byName.get(type.name);
    return declared?.op === 'alias' ? this.structSyntax(declared.type) : declared?.op === 'struct' ? declared : undefined;
  }

  /** `override`: a parameter whose value stands in the text. */
  private override(
    { name, nameRange, documentation, value: syntax }: WgslGlobal,
    type: Type,
    value: Expression | undefined,
    origin: Origin,
  ): void {
    if (type.kind !== 'scalar') throw new LanguageError(`An “override” is f32, i32, u32 or bool, not ${wgslTypeName(type)}.`, nameRange);
    if (!this.environment.options.parameters)
      throw new LanguageError('An “override” is a parameter of a material; a function takes what it needs.', nameRange);
    const known = value && this.expressions().known(value);
    if (syntax && known?.op !== 'constant') throw new LanguageError('This must be known beforehand.', syntax);
    const added = this.environment.addGlobal(name, (irName) => ({ name: irName, type, storage: 'uniform', origin }));
    this.uniforms.push({
      name,
      irName: added.name,
      type,
      nameRange,
      comment: this.comment(documentation),
      fallback: known?.op === 'constant' ? known.value : undefined,
    });
  }

  parameterTypes(parameters: readonly WgslMember[]): { readonly member: WgslMember; readonly type: Type; readonly isPointer: boolean }[] {
    return parameters.flatMap((member) => {
      const type = this.typeOrPointer(member.type, undefined);
      // An image brings its own sampler; who hands one on hands on nothing.
      if (type === 'sampler') return [];
      return [{ member, type: 'pointsTo' in type ? type.pointsTo : type, isPointer: 'pointsTo' in type }];
    });
  }

  private head(syntax: WgslFunction): void {
    const { name, nameRange, parameters, result: written } = syntax;
    const compute = syntax.attributes.find((each) => each.name === 'compute');
    if (compute) throw new LanguageError('Compute shaders have no place in a material.', compute);
    const twice = parameters.find((each, index) => parameters.findIndex((other) => other.name === each.name) < index);
    if (twice) throw new LanguageError(`Two parameters are called "${twice.name}".`, twice.nameRange);
    const list = this.parameterTypes(parameters).map(({ member, type, isPointer }) => ({
      name: member.name,
      type,
      direction: isPointer ? ('inout' as const) : ('in' as const),
    }));
    const result = written ? this.resolve(written, undefined) : VOID;
    if (result.kind === 'sampler') throw new LanguageError('A function cannot return an image.', written ?? nameRange);
    const types = list.map(({ type }) => type);
    const library = this.environment.functionOf(name, types);
    if (!this.environment.options.names && library && library.body.length > 0)
      throw new LanguageError(`"${name}" is already defined.`, nameRange);
    const irName = this.environment.irName(name === 'main' ? 'mainEntry' : name, Boolean(library));
    const declared: IrFunction = {
      signature: signatureOf(irName, types),
      name: irName,
      parameters: list,
      result,
      body: [],
      origin: { path: this.source.path, range: { from: syntax.from, to: syntax.to } },
      nameRange: { from: nameRange.from, to: nameRange.to },
    };
    this.environment.addFunction(name, declared);
    this.environment.defined.add(declared.signature);
    this.own.push(declared.signature);
    const words = `fn ${name}(${list.map((each) => `${each.name}: ${wgslTypeName(each.type)}`).join(', ')})${result.kind === 'void' ? '' : ` -> ${wgslTypeName(result)}`}`;
    this.environment.note(nameRange, () => ({
      kind: 'function',
      name,
      signature: words,
      declared: { path: this.source.path, range: declared.nameRange },
    }));
    if (syntax.documentation) this.documentation.set(declared.signature, readDocumentation(this.source.slice(syntax.documentation)));
  }

  private body(syntax: WgslFunction, bodies: KnownBodies | undefined): void {
    this.ready(syntax.name);
    const types = this.parameterTypes(syntax.parameters);
    const declared = this.environment.ownFunction(
      syntax.name,
      types.map(({ type }) => type),
    );
    if (!declared) return;
    const read = (): ReadBody => this.statements(syntax, types, declared);
    const { body, callsAhead } = bodies?.body(syntax, read) ?? read();
    this.environment.callsAhead ||= callsAhead;
    this.environment.addFunction(syntax.name, { ...declared, body });
  }

  private statements(syntax: WgslFunction, types: ReturnType<typeof this.parameterTypes>, declared: IrFunction): ReadBody {
    const names = new FunctionScope(syntax.to);
    const samplers = new Set(syntax.parameters.filter((each) => !types.some(({ member }) => member === each)).map(({ name }) => name));
    const scope: WgslScope = { names, pointers: new Map(), samplers };
    for (const { member, type, isPointer } of types) {
      const variable = names.declare(member.name, type, !isPointer, member.nameRange);
      if (isPointer) {
        variable.assigned = true;
        scope.pointers.set(variable.name, local(variable.name, type));
      }
      const words = isPointer ? `ptr<function, ${wgslTypeName(type)}>` : wgslTypeName(type);
      const origin = { path: this.source.path, range: member.nameRange };
      this.environment.note(member.nameRange, () => ({
        kind: 'variable',
        name: member.name,
        signature: `${member.name}: ${words}`,
        type: words,
        declared: origin,
      }));
      this.environment.options.index?.visible({ name: member.name, type: words, from: member.to, to: syntax.to });
    }
    const statements = new WgslStatements(this.context, scope, declared.result);
    const { flow } = statements;
    const read = statements.list(syntax.body);
    this.flows.push(flow);
    const falls = !this.diagnostics.hasErrorIn(syntax) && declared.result.kind !== 'void' && !alwaysReturns(read);
    if (falls)
      this.diagnostics.add(
        'error',
        `"${syntax.name}" must return a ${wgslTypeName(declared.result)} on every way through.`,
        syntax.nameRange,
      );
    statements.advise(syntax);
    return { body: markMutable(read, statements.assigned()), dependsOnOthers: flow.divided.length > 0, callsAhead: flow.callsAhead };
  }
}
