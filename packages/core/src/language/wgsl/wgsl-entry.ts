import { constant, construct, global, local, zeroOf } from '../../ir/build';
import { CLIP_POSITION, FRONT_FACING, INSTANCE_NUMBER, PIXEL_DEPTH, PIXEL_PLACE, VERTEX_NUMBER } from '../../ir/builtin-variables';
import type { Expression, IrFunction, Statement } from '../../ir/ir';
import type { Range } from '../../ir/origin';
import { BOOL, componentCount, FLOAT, INT, sameType, scalarOf, UINT, VEC4, VOID, type StructType, type Type } from '../../ir/types';
import { LanguageError } from '../diagnostics';
import type { WgslContext } from './wgsl-context';
import { WgslExpressions } from './wgsl-expressions';
import type { WgslAttribute, WgslDeclaration, WgslFunction, WgslMember, WgslStruct, WgslType } from './wgsl-syntax';
import { wgslTypeName } from './wgsl-types';
import { settled } from './wgsl-value';

/** Which entry point of a whole program is read as `main`. */
export type WgslStage = 'vertices' | 'pixels';

/** What stands at a location where nothing is known by its name. */
const BY_LOCATION = ['position', 'normal', 'uv', 'tangent'];

/** What an entry point asks of its text. */
export interface EntryModule {
  readonly own: string[];
  isTroubled(name: string): boolean;
  parameterTypes(parameters: readonly WgslMember[]): readonly { readonly member: WgslMember; readonly type: Type }[];
  structSyntax(type: WgslType | undefined): WgslStruct | undefined;
}

/** The entry point of one stage, with what comes in and goes out. */
export class WgslEntry {
  constructor(
    private readonly module: EntryModule,
    private readonly context: WgslContext,
    private readonly declarations: readonly WgslDeclaration[],
    private readonly stage: WgslStage,
  ) {}

  /** The entry point of the stage that is asked for, as `main`. */
  read(): void {
    const word = this.stage === 'pixels' ? 'fragment' : 'vertex';
    const found = this.declarations.filter(
      (each): each is WgslFunction => each.op === 'function' && each.attributes.some(({ name }) => name === word),
    );
    const [first, second] = found;
    if (!first) return;
    if (second) throw new LanguageError(`A material has one function with “@${word}”.`, second.nameRange, { declared: first.nameRange });
    if (this.module.isTroubled(first.name)) return;
    const types = this.module.parameterTypes(first.parameters);
    const declared = this.context.environment.ownFunction(
      first.name,
      types.map(({ type }) => type),
    );
    if (!declared) return;
    const args = types.map(({ member, type }) => this.taken(member, type));
    const call: Expression = { op: 'call', callee: declared.signature, args, type: declared.result };
    const body: Statement[] = [];
    if (declared.result.kind === 'void') body.push({ op: 'evaluate', value: call });
    else {
      body.push({ op: 'declare', name: 'given', type: declared.result, value: call, mutable: false });
      body.push(...this.given(first, declared.result, local('given', declared.result)));
    }
    const main: IrFunction = {
      signature: 'main()',
      name: 'main',
      parameters: [],
      result: VOID,
      body,
      origin: declared.origin,
      nameRange: declared.nameRange,
    };
    this.context.environment.addFunction('main', main);
    this.module.own.push(main.signature);
  }

  /** What an entry point takes: from outside, whole or member by member. */
  private taken(member: WgslMember, type: Type): Expression {
    const struct =
      type.kind === 'struct' && !member.attributes.some(({ name }) => name === 'location' || name === 'builtin') ? type : undefined;
    if (!struct) return this.takenOne(member, type);
    return construct(
      struct,
      this.membersOf(member.type, struct).map(({ member: each, type: inner }) => (each ? this.takenOne(each, inner) : zeroOf(inner))),
    );
  }

  private membersOf(written: WgslType, struct: StructType): { readonly member?: WgslMember; readonly type: Type }[] {
    const syntax = this.module.structSyntax(written);
    return struct.fields.map(({ name, type }) => ({ member: syntax?.members.find((each) => each.name === name), type }));
  }

  private takenOne(member: WgslMember, type: Type): Expression {
    const { attributes, name, nameRange } = member;
    const builtin = wordOf(attributes, 'builtin');
    if (builtin) return this.builtinInput(builtin, type, nameRange);
    const at = this.locationOf(attributes);
    if (at === undefined) throw new LanguageError(`Say where "${name}" comes from: @location(0) or @builtin(…).`, nameRange);
    const between = this.stage === 'pixels' && this.hasVertices;
    const known = this.context.environment.options.systemInputs?.(this.stage).has(name) ? name : (BY_LOCATION[at] ?? name);
    const called = between ? `at${at}` : known;
    const flat = attributes.some(({ name: each, args }) => each === 'interpolate' && args[0]?.op === 'name' && args[0].name === 'flat');
    const added =
      this.context.environment.ownGlobal(called) ??
      this.context.environment.addGlobal(called, (irName) => ({
        name: irName,
        type,
        storage: 'in',
        flat: flat || undefined,
        called,
        origin: { path: this.context.source.path, range: nameRange },
      }));
    return global(added.name, type);
  }

  private builtinInput(name: string, type: Type, range: Range): Expression {
    const fits = (wanted: Type, value: Expression): Expression => {
      if (!sameType(type, wanted)) throw new LanguageError(`“${name}” is ${wgslTypeName(wanted)}, not ${wgslTypeName(type)}.`, range);
      return value;
    };
    const pixels = this.stage === 'pixels';
    if (pixels && name === 'position') return fits(VEC4, global(PIXEL_PLACE, VEC4));
    if (pixels && name === 'front_facing') return fits(BOOL, global(FRONT_FACING, BOOL));
    if (!pixels && name === 'vertex_index') return fits(UINT, construct(UINT, [global(VERTEX_NUMBER, INT)]));
    if (!pixels && name === 'instance_index') return fits(UINT, construct(UINT, [global(INSTANCE_NUMBER, INT)]));
    if (name === 'sample_index' || name === 'sample_mask') return fits(UINT, constant(UINT, [name === 'sample_mask' ? 1 : 0]));
    throw new LanguageError(`There is no “@builtin(${name})” to take in here.`, range);
  }

  /** What an entry point gives: assignments to what goes out. */
  private given(syntax: WgslFunction, type: Type, value: Expression): Statement[] {
    if (type.kind !== 'struct' || !syntax.result) return [this.givenOne(syntax.resultAttributes, syntax.nameRange, type, value)];
    return this.membersOf(syntax.result, type).map(({ member, type: inner }, index) => {
      const field = type.fields[index]?.name ?? '';
      return this.givenOne(member?.attributes ?? [], member?.nameRange ?? syntax.nameRange, inner, {
        op: 'member',
        object: value,
        field,
        type: inner,
      });
    });
  }

  private givenOne(attributes: readonly WgslAttribute[], range: Range, type: Type, value: Expression): Statement {
    const builtin = wordOf(attributes, 'builtin');
    const vertices = this.stage === 'vertices';
    const target =
      builtin === 'position' && vertices
        ? global(CLIP_POSITION, VEC4)
        : builtin === 'frag_depth' && !vertices
          ? global(PIXEL_DEPTH, FLOAT)
          : undefined;
    if (target) {
      if (!sameType(type, target.type))
        throw new LanguageError(`“${builtin}” is ${wgslTypeName(target.type)}, not ${wgslTypeName(type)}.`, range);
      return { op: 'assign', target, value };
    }
    if (builtin) throw new LanguageError(`There is no “@builtin(${builtin})” to give here.`, range);
    const at = this.locationOf(attributes);
    if (at === undefined) throw new LanguageError('Say where this goes: @location(0).', range);
    const flat = attributes.some(({ name, args }) => name === 'interpolate' && args[0]?.op === 'name' && args[0].name === 'flat');
    const whole = scalarOf(type) !== 'float' && componentCount(type) > 0;
    const called = vertices ? `at${at}` : `colour${at}`;
    const added = this.context.environment.addGlobal(called, (irName) => ({
      name: irName,
      type,
      storage: 'out',
      location: vertices ? undefined : at,
      flat: flat || (whole && vertices) || undefined,
      called,
      origin: { path: this.context.source.path, range },
    }));
    return { op: 'assign', target: global(added.name, type), value };
  }

  private get hasVertices(): boolean {
    return this.declarations.some((each) => each.op === 'function' && each.attributes.some(({ name }) => name === 'vertex'));
  }

  private locationOf(attributes: readonly WgslAttribute[]): number | undefined {
    const [syntax] = attributes.find(({ name }) => name === 'location')?.args ?? [];
    if (!syntax) return undefined;
    const value = new WgslExpressions(this.context, undefined).known(settled(new WgslExpressions(this.context, undefined).value(syntax)));
    return value.op === 'constant' ? value.value[0] : undefined;
  }
}

/** The word in an attribute's brackets: `position` of `@builtin(position)`. */
function wordOf(attributes: readonly WgslAttribute[], name: string): string | undefined {
  const [word] = attributes.find((each) => each.name === name)?.args ?? [];
  return word?.op === 'name' ? word.name : undefined;
}
