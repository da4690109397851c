import { needsNeighbours } from '../ir/builtins/table';
import { signatureOf, zeroOf } from '../ir/build';
import type { Expression, Global, IrFunction, Statement } from '../ir/ir';
import type { Range } from '../ir/origin';
import { typeName, type StructField, type Type } from '../ir/types';
import { walkBody, walkExpression, walkStatements } from '../ir/walk';
import { BUILTINS } from './builtins';
import type { ControlFlow } from './control-flow';
import { LanguageError, write, type CodeMend, type DiagnosticList } from './diagnostics';
import { readDocumentation, type Documentation } from './documentation';
import type { DeclaredUniform } from './declared-uniform';
import { ExpressionElaborator } from './elaborate-expression';
import type { ExpressionContext } from './expression-context';
import { StatementElaborator } from './elaborate-statements';
import { arrayOf, type Environment } from './environment';
import { alwaysReturns, markMutable } from './finished-body';
import { functionWords } from './function-words';
import { importFunction } from './import-function';
import { KnownBodies, type ReadBody } from './known-bodies';
import { refuseRecursion } from './recursion';
import { refuseName } from './reserved-names';
import { FunctionScope } from './scope';
import type { SourceText } from './source';
import { membersOf, structOf } from './struct-of';
import type {
  BlockSyntax,
  DeclarationSyntax,
  DeclaredSyntax,
  ExpressionSyntax,
  FunctionSyntax,
  GlobalSyntax,
  StructSyntax,
} from './syntax';

/** Functions that one text may have. */
const MOST_FUNCTIONS = 2000;

/** Turns the declarations of one text into IR. */
export class DeclarationElaborator {
  readonly documentation = new Map<string, Documentation>();
  readonly uniforms: DeclaredUniform[] = [];
  readonly own: string[] = [];
  readonly diagnostics: DiagnosticList;
  private readonly source: SourceText;
  private readonly environment: Environment;
  /** Calls that need their neighbours where these may have gone another way. */
  private readonly flows: ControlFlow[] = [];

  constructor(private readonly context: ExpressionContext) {
    const { source, diagnostics, environment } = context;
    [this.source, this.diagnostics, this.environment] = [source, diagnostics, environment];
  }

  /** Imports, structs, uniform blocks and variables outside functions. */
  types(declarations: readonly DeclarationSyntax[]): void {
    const each = <Op extends DeclarationSyntax['op']>(op: Op, work: (syntax: Extract<DeclarationSyntax, { op: Op }>) => void): void => {
      for (const declaration of declarations) {
        if (declaration.op === op) this.diagnostics.guard(() => work(declaration as Extract<DeclarationSyntax, { op: Op }>), undefined);
      }
    };
    for (const each of declarations) if (each.op === 'function') this.environment.functionsOfText.add(each.name);
    each('import', (syntax) => importFunction(syntax, this.environment));
    each('struct', (syntax) => this.struct(syntax));
    each('uniformBlock', (syntax) => this.uniformBlock(syntax));
    each('global', (syntax) => this.global(syntax));
  }

  /** The signatures of all functions; what comes back reads their bodies, once every signature is known. */
  signatures(declarations: readonly DeclarationSyntax[]): () => void {
    const all = declarations.filter((each) => each.op === 'function');
    const functions = all.slice(0, MOST_FUNCTIONS);
    const over = all[MOST_FUNCTIONS];
    if (over) this.diagnostics.add('error', `A text may have at most ${MOST_FUNCTIONS} functions.`, over.nameRange);
    const declared = functions.map((each) => this.diagnostics.guard(() => this.signature(each), undefined));
    return () => {
      const bodies = KnownBodies.of(this.source, this.diagnostics, this.environment, functions);
      functions.forEach((syntax, index) => {
        const head = declared[index];
        if (!head || !syntax.body) return;
        const read = (): ReadBody => this.body(syntax, head);
        const { body, callsAhead } = bodies?.body(syntax, read) ?? read();
        this.environment.callsAhead ||= callsAhead;
        this.environment.addFunction(syntax.name, { ...head, body });
      });
      this.refuseBodiless(functions);
      if (this.environment.callsAhead) refuseRecursion(functions, this.environment, this.source.path, this.diagnostics);
      this.adviseDivided();
    };
  }

  private struct(syntax: StructSyntax): void {
    const { name, nameRange } = syntax;
    if (this.environment.hasOwnStruct(name) || (!this.environment.options.names && this.environment.struct(name))) {
      this.refuseSecond(name, nameRange, this.environment.struct(name)?.origin?.range);
    }
    structOf(syntax, this.context, this.plainExpressions(), new FunctionScope(), (make) => this.environment.addStruct(name, make));
  }

  private uniformBlock(syntax: BlockSyntax): void {
    const members = syntax.members.flatMap((member) => membersOf(member, this.context, this.plainExpressions()));
    const image = members.find(({ type }) => type.kind === 'sampler');
    if (image) {
      const range = syntax.members.find(({ variables }) => variables.some(({ name }) => name === image.name))?.type;
      throw new LanguageError('A block holds numbers; an image is a uniform of its own.', range ?? syntax);
    }
    if (this.environment.options.parameters) {
      this.freeBlock(syntax, members);
      return;
    }
    this.environment.addBlock({ name: syntax.name, members });
    for (const { name, type } of members) {
      this.environment.addGlobal(name, (irName) => ({ name: irName, type, storage: 'uniform', block: syntax.name }));
    }
  }

  /** A block of a material: each of its members is a parameter. */
  private freeBlock({ members: lines, instance }: BlockSyntax, members: readonly StructField[]): void {
    const named = lines.flatMap(({ variables }) => variables);
    const globals = new Map<string, Global>();
    members.forEach(({ name, type }, index) => {
      const { from, to } = named[index] ?? { from: 0, to: 0 };
      const origin = { path: this.source.path, range: { from, to } };
      const unique = instance ? `${instance.name}_${name}` : name;
      const before = this.environment.ownGlobal(unique);
      if (before) this.refuseSecond(name, origin.range, before.origin?.range);
      const global = this.environment.addGlobal(unique, (irName) => ({ name: irName, type, storage: 'uniform', origin }));
      globals.set(name, global);
      this.environment.note(origin.range, () => ({
        kind: 'variable',
        name,
        signature: `uniform ${typeName(type)} ${name}`,
        type: typeName(type),
        declared: origin,
      }));
      this.uniforms.push({ name: unique, irName: global.name, type, nameRange: origin.range });
    });
    if (instance) this.environment.instances.set(instance.name, globals);
  }

  private plainExpressions(): ExpressionElaborator {
    return new ExpressionElaborator(this.context, new FunctionScope());
  }

  private global(syntax: GlobalSyntax): void {
    const expressions = this.plainExpressions();
    const { type: written } = syntax.declaration;
    if (written.struct) this.struct(written.struct);
    syntax.declaration.variables.forEach((variable) => {
      const { name } = variable;
      const { result: value, type } = this.initial(syntax, variable, expressions);
      refuseName(name, variable, this.source);
      const nameRange = { from: variable.from, to: variable.to };
      const before = this.environment.ownGlobal(name);
      if (before) this.refuseSecond(name, nameRange, before.origin?.range);
      if (syntax.storage === 'private') this.private(variable, syntax.from, value, type, expressions);
      else if (syntax.storage === 'const') {
        if (!value || !variable.value) throw new LanguageError(`The constant "${name}" needs a value.`, variable);
        expressions.expectType(value, type, variable.value, 'The value');
        refuseChanging(value, variable.value);
      } else if (value) {
        const how = syntax.storage === 'uniform' ? ` Write its default in a comment before it: /** @value … */` : '';
        const mends = syntax.storage === 'uniform' && variable.value ? [this.asComment(syntax, variable.to, variable.value)] : [];
        throw new LanguageError(`A variable with "${syntax.storage}" is given its value from outside.${how}`, variable, { mends });
      }
      if (type.kind === 'void') throw new LanguageError('A variable cannot be of type void.', syntax.declaration.type);
      const storage = type.kind === 'sampler' ? 'sampler' : syntax.storage;
      const free = syntax.storage === 'uniform' && this.environment.options.parameters;
      if (storage === 'uniform' && !free) {
        throw new LanguageError(`Put the uniform "${name}" into a block: uniform Name { … };`, variable);
      }
      const origin = { path: this.source.path, range: nameRange };
      const global = this.environment.addGlobal(name, (irName) => ({
        name: irName,
        type,
        storage,
        value,
        flat: syntax.flat || undefined,
        location: syntax.location,
        origin,
      }));
      const words = `${syntax.storage === 'private' ? '' : `${syntax.storage} `}${typeName(type)} ${name}`;
      this.environment.note(nameRange, () => ({ kind: 'variable', name, signature: words, type: typeName(type), declared: origin }));
      if (!free) return;
      const { documentation: range } = syntax;
      const comment = range && { text: this.source.slice(range), range };
      this.uniforms.push({ name, irName: global.name, type, nameRange, comment });
    });
  }

  /** The value behind a variable, and its type, which may be as long as that. */
  private initial(
    { declaration }: GlobalSyntax,
    variable: DeclaredSyntax,
    expressions: ExpressionElaborator,
  ): { readonly result: Expression | undefined; readonly type: Type } {
    const result = variable.value && expressions.elaborate(variable.value);
    const open = variable.open ?? declaration.type.open;
    if (open && result?.type.kind === 'array')
      return { result, type: arrayOf(this.environment.element(declaration.type), result.type.length, open) };
    return { result, type: this.environment.resolve(declaration.type, (length) => expressions.constantLength(length), variable) };
  }

  /** A variable that functions may change; it begins anew with each pixel and each vertex. */
  private private(
    variable: DeclaredSyntax,
    start: number,
    value: Expression | undefined,
    type: Type,
    expressions: ExpressionElaborator,
  ): void {
    if (!this.environment.options.parameters) {
      throw new LanguageError('A variable outside of functions needs "const" in front here.', variable);
    }
    if (type.kind === 'sampler')
      throw new LanguageError('An image outside of functions needs "uniform" in front.', variable, {
        mends: [write('uniform ', { from: start, to: start }, 'Make it a uniform')],
      });
    if (!value || !variable.value) return;
    expressions.expectType(value, type, variable.value, 'The value');
    refuseChanging(value, variable.value);
  }

  /** A default behind an uniform, put into a comment before it. */
  private asComment({ from, documentation }: GlobalSyntax, nameEnd: number, value: Range): CodeMend | undefined {
    if (documentation) return undefined;
    return {
      label: 'Write it as a comment',
      edits: [
        { from, to: from, text: `/** @value ${this.source.slice(value)} */\n` },
        { from: nameEnd, to: value.to, text: '' },
      ],
    };
  }

  private signature(syntax: FunctionSyntax): IrFunction {
    const expressions = this.plainExpressions();
    const { name, nameRange } = syntax;
    if (BUILTINS.has(name) && name !== 'main') {
      throw new LanguageError(`"${name}" is built in and cannot be defined again. Choose another name.`, nameRange);
    }
    if (this.environment.hasOwnStruct(name)) throw new LanguageError(`"${name}" is the name of a struct.`, nameRange);
    refuseName(name, nameRange, this.source);
    const resolve = (type: FunctionSyntax['result']): Type =>
      this.environment.resolve(type, (length) => expressions.constantLength(length));
    const parameters = syntax.parameters.map((each, index) => {
      if (each.name !== '') refuseName(each.name, { from: each.to - each.name.length, to: each.to }, this.source);
      return { name: each.name || `unnamed${index + 1}`, type: resolve(each.type), direction: each.direction };
    });
    parameters.forEach((parameter, index) => {
      const range = syntax.parameters[index] ?? nameRange;
      if (parameter.type.kind === 'void') throw new LanguageError('A parameter cannot be of type void.', range);
      if (parameters.findIndex((each) => each.name === parameter.name) < index) {
        throw new LanguageError(`Two parameters are called "${parameter.name}".`, range);
      }
      if (parameter.type.kind === 'sampler' && parameter.direction !== 'in') throw new LanguageError('An image can only be read.', range);
    });
    const types = parameters.map((parameter) => parameter.type);
    const result = resolve(syntax.result);
    if (result.kind === 'sampler') throw new LanguageError('A function cannot return an image.', syntax.result);
    const before = this.environment.ownFunction(name, types);
    if (before && !sameHead(before, parameters, result)) {
      const message = `"${signatureOf(name, types)}" was declared otherwise before: the same parameters, but another result or direction.`;
      throw new LanguageError(message, nameRange, { declared: this.here(before) });
    }
    if (before && syntax.body && this.environment.defined.has(before.signature))
      this.refuseSecond(signatureOf(name, types), nameRange, this.here(before));
    const library = this.environment.functionOf(name, types);
    if (!this.environment.options.names && library && library.body.length > 0 && syntax.body)
      this.refuseSecond(signatureOf(name, types), nameRange);
    const irName = this.environment.irName(name, Boolean(library) && library !== before);
    const declared: IrFunction = {
      signature: before?.signature ?? signatureOf(irName, types),
      name: before?.name ?? irName,
      parameters,
      result,
      body: [],
      origin: { path: this.source.path, range: { from: syntax.from, to: syntax.to } },
      nameRange: { from: nameRange.from, to: nameRange.to },
    };
    this.environment.addFunction(name, declared);
    if (syntax.body) this.environment.defined.add(declared.signature);
    this.own.push(declared.signature);
    const here = { path: this.source.path, range: declared.nameRange };
    this.environment.note(nameRange, () => ({ kind: 'function', name, signature: functionWords(declared, name), declared: here }));
    if (syntax.documentation) {
      this.documentation.set(declared.signature, readDocumentation(this.source.slice(syntax.documentation)));
    }
    return declared;
  }

  /** Where a function of this text has its name. */
  private here({ origin, nameRange }: IrFunction): Range | undefined {
    return origin.path === this.source.path ? (nameRange ?? origin.range) : undefined;
  }

  private body(syntax: FunctionSyntax, declared: IrFunction): ReadBody {
    const scope = new FunctionScope(syntax.to);
    declared.parameters.forEach(({ name, type, direction }, index) => {
      const { to = syntax.from, constant = false, name: written } = syntax.parameters[index] ?? {};
      if (written === '') {
        scope.temporary(type, syntax.nameRange);
        return;
      }
      const range = { from: to - name.length, to };
      scope.declare(name, type, constant, range).assigned = direction !== 'in';
      const words = `${typeName(type)} ${name}`;
      const declaredAt = { path: this.source.path, range };
      this.environment.note(range, () => ({ kind: 'variable', name, signature: words, type: typeName(type), declared: declaredAt }));
      this.environment.options.index?.visible({ name, type: typeName(type), from: to, to: syntax.to });
    });
    const statements = new StatementElaborator(this.context, scope, declared.result);
    const { flow } = statements;
    const read = statements.list(syntax.body ?? []);
    this.flows.push(flow);
    const falls = !this.diagnostics.hasErrorIn(syntax) && declared.result.kind !== 'void' && !alwaysReturns(read);
    if (falls) this.adviseReturn(syntax, declared.result, read);
    const body: Statement[] = falls ? [...read, { op: 'return', value: zeroOf(declared.result) }] : read;
    statements.advise(syntax);
    return { body: markMutable(body, statements.assigned()), dependsOnOthers: flow.divided.length > 0, callsAhead: flow.callsAhead };
  }

  /** The standard lets a function end without giving anything, and leaves open what it gives then. */
  private adviseReturn({ name, nameRange }: FunctionSyntax, result: Type, body: readonly Statement[]): void {
    let returns = false;
    walkStatements(body, ({ op }) => (returns ||= op === 'return'));
    const message = `"${name}" must return a ${typeName(result)} on every way through.`;
    if (returns) this.diagnostics.add('warning', `${message} Where it does not, it gives 0 here; devices differ.`, nameRange);
    else this.diagnostics.add('error', message, nameRange);
  }

  /** A function that is only announced cannot be called; the library's are made elsewhere. */
  private refuseBodiless(functions: readonly FunctionSyntax[]): void {
    if (!this.environment.options.parameters || functions.every(({ body }) => body)) return;
    const called = new Set<string>();
    for (const signature of this.environment.defined)
      walkBody(this.environment.functions.get(signature)?.body ?? [], (each) => each.op === 'call' && called.add(each.callee));
    for (const { name, nameRange, body } of functions) {
      const announced = !body && this.environment.overloadsOf(name).find((each) => this.here(each)?.from === nameRange.from);
      if (announced && called.has(announced.signature) && !this.environment.defined.has(announced.signature))
        this.diagnostics.add('error', `"${name}" is announced here, but has no body anywhere.`, nameRange);
    }
  }

  /** Warns where a difference between neighbours is asked for that is not defined there. */
  private adviseDivided(): void {
    if (!this.environment.options.advice) return;
    const needs = new Map<string, boolean>();
    const asksNeighbours = (signature: string): boolean => {
      const known = needs.get(signature);
      if (known !== undefined) return known;
      needs.set(signature, false);
      let found = false;
      walkBody(this.environment.functions.get(signature)?.body ?? [], (each) => {
        if (found) return;
        found = each.op === 'builtin' ? needsNeighbours(each.name) : each.op === 'call' && asksNeighbours(each.callee);
      });
      needs.set(signature, found);
      return found;
    };
    for (const { name, callee, range, where, mend } of this.flows.flatMap((flow) => flow.divided)) {
      if (callee !== undefined && !asksNeighbours(callee)) continue;
      const place = where === 'loop' ? 'inside of a loop' : 'where only some of the neighbouring pixels come by';
      const how = mend ? 'Give the size yourself, with textureLod or textureGrad.' : 'Compute it before, into a variable.';
      this.diagnostics.add('warning', `"${name}" compares neighbouring pixels, which is not defined ${place}. ${how}`, range, {
        mends: [mend],
      });
    }
  }

  private refuseSecond(name: string, range: Range, declared?: Range): never {
    throw new LanguageError(`"${name}" is already defined.`, range, { declared });
  }
}

function sameHead(before: IrFunction, parameters: IrFunction['parameters'], result: Type): boolean {
  return (
    typeName(before.result) === typeName(result) &&
    before.parameters.every((each, index) => each.direction === parameters[index]?.direction)
  );
}

/** Values outside of functions are known before anything runs. */
function refuseChanging(value: Expression, syntax: ExpressionSyntax): void {
  walkExpression(value, (each) => {
    if (each.op === 'reference' || each.op === 'call')
      throw new LanguageError('This must be a constant: numbers, constants and built-in functions.', syntax);
  });
}
