import { constant, signatureOf } from '../ir/build';
import { EMPTY_MODULE, type Expression, type IrFunction, type Module, type Statement } from '../ir/ir';
import type { Range } from '../ir/origin';
import { BOOL, FLOAT, sameType, typeName, type StructField, type StructType, type Type } from '../ir/types';
import { walkBody } from '../ir/walk';
import { BUILTINS } from './builtins';
import { DiagnosticList, LanguageError, type Diagnostic } from './diagnostics';
import { readDocumentation, type Documentation } from './documentation';
import { ExpressionElaborator } from './elaborate-expression';
import { Environment } from './environment';
import { tokenize } from './lexer';
import { parse } from './parser';
import { FunctionScope } from './scope';
import { SourceText } from './source';
import type { BlockSyntax, DeclarationSyntax, DeclareSyntax, FunctionSyntax, GlobalSyntax, StatementSyntax, StructSyntax } from './syntax';

export interface ElaboratedSource {
  readonly module: Module;
  readonly diagnostics: readonly Diagnostic[];
  /** Documentation comments by the signature of the function they stand before. */
  readonly documentation: ReadonlyMap<string, Documentation>;
}

/**
 * Reads shading code: text → tokens → syntax → typed IR. Errors are collected, never thrown; functions with an
 * error are left out of the module.
 *
 * @param imported declarations the text may use; they are part of the result
 */
export function elaborate(path: string, text: string, imported: Module = EMPTY_MODULE): ElaboratedSource {
  return elaborateAll([[path, text]], imported);
}

/** The same for several texts that may use one another's declarations, in any order. */
export function elaborateAll(texts: readonly (readonly [path: string, text: string])[], imported: Module = EMPTY_MODULE): ElaboratedSource {
  const environment = new Environment(imported);
  const parts = texts.map(([path, text]) => {
    const source = new SourceText(path, text);
    const diagnostics = new DiagnosticList(source);
    return {
      declarations: parse(tokenize(source, diagnostics), diagnostics),
      elaborator: new Elaborator(source, diagnostics, environment),
    };
  });
  for (const { declarations, elaborator } of parts) elaborator.types(declarations);
  const bodies = parts.map(({ declarations, elaborator }) => elaborator.signatures(declarations));
  for (const finish of bodies) finish();
  return {
    module: environment,
    diagnostics: parts.flatMap((part) => part.elaborator.diagnostics.items),
    documentation: new Map(parts.flatMap((part) => [...part.elaborator.documentation])),
  };
}

class Elaborator {
  readonly documentation = new Map<string, Documentation>();

  constructor(
    private readonly source: SourceText,
    readonly diagnostics: DiagnosticList,
    private readonly environment: Environment,
  ) {}

  /** Structs, uniform blocks and variables outside functions. */
  types(declarations: readonly DeclarationSyntax[]): void {
    for (const declaration of declarations) {
      if (declaration.op === 'struct') this.diagnostics.guard(() => this.struct(declaration), undefined);
      if (declaration.op === 'uniformBlock') this.diagnostics.guard(() => this.uniformBlock(declaration), undefined);
    }
    for (const declaration of declarations) {
      if (declaration.op === 'global') this.diagnostics.guard(() => this.global(declaration), undefined);
    }
  }

  /** The signatures of all functions; what comes back reads their bodies, once every signature is known. */
  signatures(declarations: readonly DeclarationSyntax[]): () => void {
    const functions = declarations.filter((each) => each.op === 'function');
    const declared = functions.map((each) => this.diagnostics.guard(() => this.signature(each), undefined));
    return () => {
      functions.forEach((syntax, index) => {
        const known = declared[index];
        if (known && syntax.body) this.body(syntax, known);
      });
      this.refuseRecursion(functions);
    };
  }

  private struct(syntax: StructSyntax): void {
    this.refuseSecond(this.environment.structs.has(syntax.name), syntax.name, syntax);
    const fields = syntax.fields.flatMap((field) => this.members(field));
    const type: StructType = { kind: 'struct', name: syntax.name, fields };
    this.environment.structs.set(syntax.name, type);
  }

  private uniformBlock(syntax: BlockSyntax): void {
    const members = syntax.members.flatMap((member) => this.members(member));
    this.environment.blocks.set(syntax.name, { name: syntax.name, members });
    for (const { name, type } of members) {
      this.environment.globals.set(name, { name, type, storage: 'uniform', block: syntax.name });
    }
  }

  private members(syntax: DeclareSyntax): StructField[] {
    const expressions = new ExpressionElaborator(this.environment, new FunctionScope());
    return syntax.variables.map((variable) => ({
      name: variable.name,
      type: this.environment.resolve(syntax.type, (length) => expressions.constantLength(length), variable.length ?? syntax.type.length),
    }));
  }

  private global(syntax: GlobalSyntax): void {
    const expressions = new ExpressionElaborator(this.environment, new FunctionScope());
    syntax.declaration.variables.forEach((variable, index) => {
      const field = this.members(syntax.declaration)[index];
      if (!field) return;
      const { name, type } = field;
      const value = variable.value && expressions.elaborate(variable.value);
      if (syntax.storage === 'const') {
        if (!value) throw new LanguageError(`The constant "${name}" needs a value.`, variable);
        expressions.expectType(value, type, variable.value ?? variable, 'The value');
      }
      const storage = type.kind === 'sampler' ? 'sampler' : syntax.storage;
      if (storage === 'uniform') {
        throw new LanguageError(`Put the uniform "${name}" into a block: uniform Name { … };`, variable);
      }
      this.environment.globals.set(name, { name, type, storage, value, flat: syntax.flat || undefined });
    });
  }

  private signature(syntax: FunctionSyntax): IrFunction {
    const expressions = new ExpressionElaborator(this.environment, new FunctionScope());
    if (BUILTINS.has(syntax.name) && syntax.name !== 'main') {
      throw new LanguageError(`"${syntax.name}" is built in and can not be defined again. Choose another name.`, syntax.nameRange);
    }
    const resolve = (type: FunctionSyntax['result']): Type =>
      this.environment.resolve(type, (length) => expressions.constantLength(length));
    const parameters = syntax.parameters.map(({ name, type, direction }) => ({ name, type: resolve(type), direction }));
    const signature = signatureOf(
      syntax.name,
      parameters.map((parameter) => parameter.type),
    );
    const before = this.environment.functions.get(signature);
    this.refuseSecond(Boolean(syntax.body && before && before.body.length > 0), signature, syntax.nameRange);
    const declared: IrFunction = {
      signature,
      name: syntax.name,
      parameters,
      result: resolve(syntax.result),
      body: [],
      origin: { path: this.source.path, range: { from: syntax.from, to: syntax.to } },
    };
    this.environment.addFunction(declared);
    if (syntax.documentation) {
      const documentation = readDocumentation(this.source.slice(syntax.documentation));
      this.documentation.set(signature, documentation);
    }
    return declared;
  }

  private body(syntax: FunctionSyntax, declared: IrFunction): void {
    const scope = new FunctionScope();
    for (const { name, type, direction } of declared.parameters) scope.declare(name, type, false).assigned = direction !== 'in';
    const statements = new StatementElaborator(this.environment, scope, this.diagnostics, this.source, declared.result);
    const body = statements.list(syntax.body ?? []);
    const broken = this.diagnostics.items.some(({ range }) => range.from >= syntax.from && range.to <= syntax.to);
    if (!broken && declared.result.kind !== 'void' && !alwaysReturns(body)) {
      this.diagnostics.add(
        'error',
        `"${declared.name}" must return a ${typeName(declared.result)} on every way through.`,
        syntax.nameRange,
      );
    }
    this.environment.addFunction({ ...declared, body: markMutable(body, statements.assigned()) });
  }

  private refuseRecursion(functions: readonly FunctionSyntax[]): void {
    const callees = (signature: string): string[] => {
      const found: string[] = [];
      const visit = (expression: Expression): void => {
        if (expression.op === 'call') found.push(expression.callee);
      };
      const body = this.environment.functions.get(signature)?.body ?? [];
      walkBody(body, visit);
      return found;
    };
    const state = new Map<string, 'open' | 'done'>();
    const enter = (signature: string): boolean => {
      if (state.get(signature) === 'open') return true;
      if (state.get(signature) === 'done') return false;
      state.set(signature, 'open');
      const loops = callees(signature).some(enter);
      state.set(signature, 'done');
      return loops;
    };
    for (const syntax of functions) {
      const own = [...this.environment.functions.values()].filter((each) => each.name === syntax.name);
      if (own.some((each) => enter(each.signature))) {
        this.diagnostics.add(
          'error',
          `"${syntax.name}" calls itself, directly or through another function. Use a loop instead.`,
          syntax.nameRange,
        );
      }
    }
  }

  private refuseSecond(exists: boolean, name: string, range: Range): void {
    if (exists) throw new LanguageError(`"${name}" is already defined.`, range);
  }
}

class StatementElaborator {
  private readonly expressions: ExpressionElaborator;
  private readonly variables: { name: string; assigned: boolean }[] = [];
  private loops = 0;

  constructor(
    private readonly environment: Environment,
    private readonly scope: FunctionScope,
    private readonly diagnostics: DiagnosticList,
    private readonly source: SourceText,
    private readonly result: Type,
  ) {
    this.expressions = new ExpressionElaborator(environment, scope);
  }

  assigned(): Set<string> {
    return new Set(this.variables.filter((variable) => variable.assigned).map((variable) => variable.name));
  }

  list(statements: readonly StatementSyntax[]): Statement[] {
    return statements.flatMap((statement) => this.diagnostics.guard(() => this.statement(statement), []));
  }

  private block(syntax: StatementSyntax): Statement[] {
    return this.scope.inside(() => this.list(syntax.op === 'block' ? syntax.body : [syntax]));
  }

  private statement(syntax: StatementSyntax): Statement[] {
    const origin = { path: this.source.path, range: { from: syntax.from, to: syntax.to } };
    switch (syntax.op) {
      case 'declare':
        return this.declare(syntax, origin);
      case 'assign': {
        const target = this.expressions.place(syntax.target);
        const { operator } = syntax;
        const combined = operator ? { ...syntax, op: 'binary' as const, operator, left: syntax.target, right: syntax.value } : syntax.value;
        const value = this.expressions.elaborate(this.matchOne(combined, target.type));
        this.expressions.expectType(value, target.type, syntax.value, 'The new value');
        return [{ op: 'assign', target, value, origin }];
      }
      case 'evaluate': {
        const value = this.expressions.elaborate(syntax.value);
        if (value.op !== 'call') this.diagnostics.add('warning', 'The result of this is not used.', syntax);
        return [{ op: 'evaluate', value, origin }];
      }
      case 'if':
        return [
          {
            op: 'if',
            condition: this.condition(syntax.condition),
            yes: this.block(syntax.yes),
            no: syntax.no ? this.block(syntax.no) : [],
            origin,
          },
        ];
      case 'for':
        return this.scope.inside(() => {
          const start = syntax.start ? this.statement(syntax.start) : [];
          const condition = syntax.condition ? this.condition(syntax.condition) : constant(BOOL, [1]);
          const step = this.list(syntax.step);
          const loop: Statement = { op: 'loop', condition, testFirst: true, body: this.loopBody(syntax.body), step, origin };
          return [{ op: 'block', body: [...start, loop], origin }];
        });
      case 'while': {
        const condition = this.condition(syntax.condition);
        return [{ op: 'loop', condition, testFirst: syntax.testFirst, body: this.loopBody(syntax.body), step: [], origin }];
      }
      case 'block':
        return [{ op: 'block', body: this.block(syntax), origin }];
      case 'return': {
        if (!syntax.value) {
          if (this.result.kind !== 'void') throw new LanguageError(`Expected a ${typeName(this.result)} after "return".`, syntax);
          return [{ op: 'return', origin }];
        }
        const value = this.expressions.elaborate(syntax.value);
        this.expressions.expectType(value, this.result, syntax.value, 'What the function returns');
        return [{ op: 'return', value, origin }];
      }
      case 'break':
      case 'continue':
        if (this.loops === 0) throw new LanguageError(`"${syntax.op}" only makes sense inside a loop.`, syntax);
        return [{ op: syntax.op, origin }];
      case 'discard':
        return [{ op: 'discard', origin }];
    }
  }

  /** `i++` on a float adds 1.0: the one is written by us, not by the user. */
  private matchOne(syntax: StatementSyntaxValue, type: Type): StatementSyntaxValue {
    if (syntax.op !== 'binary' || syntax.right.op !== 'number' || syntax.right.from !== syntax.from) return syntax;
    return sameType(type, FLOAT) ? { ...syntax, right: { ...syntax.right, kind: 'float' } } : syntax;
  }

  private loopBody(syntax: StatementSyntax): Statement[] {
    this.loops++;
    try {
      return this.block(syntax);
    } finally {
      this.loops--;
    }
  }

  private condition(syntax: StatementSyntaxValue): Expression {
    const condition = this.expressions.elaborate(syntax);
    this.expressions.expectType(condition, BOOL, syntax, 'A condition');
    return condition;
  }

  private declare(syntax: DeclareSyntax, origin: Statement['origin']): Statement[] {
    return syntax.variables.map((variable): Statement => {
      const type = this.environment.resolve(
        syntax.type,
        (length) => this.expressions.constantLength(length),
        variable.length ?? syntax.type.length,
      );
      if (type.kind === 'void' || type.kind === 'sampler') {
        throw new LanguageError(`A variable can not be of type ${typeName(type)}.`, syntax.type);
      }
      if (this.scope.declaredHere(variable.name))
        throw new LanguageError(`"${variable.name}" is already declared in this block.`, variable);
      const value = variable.value && this.expressions.elaborate(variable.value);
      if (value) this.expressions.expectType(value, type, variable.value ?? variable, `The value of "${variable.name}"`);
      else if (syntax.constant) throw new LanguageError(`The constant "${variable.name}" needs a value.`, variable);
      const declared = this.scope.declare(variable.name, type, syntax.constant);
      if (!value) declared.assigned = true;
      this.variables.push(declared);
      return { op: 'declare', name: declared.name, type, value, mutable: true, origin };
    });
  }
}

type StatementSyntaxValue = Extract<StatementSyntax, { op: 'evaluate' }>['value'];

/** Declarations that nothing assigns to become immutable: passes may then move and share them. */
function markMutable(statements: readonly Statement[], assigned: ReadonlySet<string>): Statement[] {
  return statements.map((statement): Statement => {
    switch (statement.op) {
      case 'declare':
        return { ...statement, mutable: assigned.has(statement.name) };
      case 'if':
        return { ...statement, yes: markMutable(statement.yes, assigned), no: markMutable(statement.no, assigned) };
      case 'loop':
        return { ...statement, body: markMutable(statement.body, assigned) };
      case 'block':
        return { ...statement, body: markMutable(statement.body, assigned) };
      default:
        return statement;
    }
  });
}

function alwaysReturns(statements: readonly Statement[]): boolean {
  return statements.some(
    (statement) =>
      statement.op === 'return' ||
      statement.op === 'discard' ||
      (statement.op === 'block' && alwaysReturns(statement.body)) ||
      (statement.op === 'if' && alwaysReturns(statement.yes) && alwaysReturns(statement.no)),
  );
}
