import type { Expression } from '../ir/ir';
import { FLOAT, INT, sameType, typeName, type Type } from '../ir/types';
import { BUILTINS, findBuiltin } from './builtins';
import { ordersOf, reordered } from './call-advice';
import { KnownTrouble, LanguageError, type CodeMend } from './diagnostics';
import type { ExpressionContext } from './expression-context';
import type { Environment } from './environment';
import { conversionMend } from './mends';
import { nearestMend } from './nearest-name';
import { oldFunction } from './old-spellings';
import type { ExpressionSyntax } from './syntax';

type CallSyntax = Extract<ExpressionSyntax, { op: 'call' }>;

/** What is wrong with a call that no function takes, said where it is wrong. */
export function wrongCall({ environment, source }: ExpressionContext, syntax: CallSyntax, args: readonly Expression[]): LanguageError {
  const nameRange = { from: syntax.callee.from, to: syntax.callee.from + syntax.callee.name.length };
  const { name } = syntax.callee;
  const types = args.map((arg) => arg.type);
  const own = environment.overloadsOf(name);
  const known = [
    ...own.map((each) => each.parameters.map((parameter) => parameter.type)),
    ...(BUILTINS.get(name) ?? []).map((each) => each.parameters),
  ];
  if (known.length === 0) {
    if (environment.troubled.has(name)) return new KnownTrouble(nameRange);
    if (environment.functionsOfText.has(name)) {
      return new LanguageError('This must be a constant: numbers, constants and built-in functions.', syntax);
    }
    const old = oldFunction(name, nameRange);
    if (old) return old;
    const importable = [...(environment.options.importer?.names ?? [])];
    if (importable.includes(name)) {
      const mend: CodeMend = { label: `Import “${name}” from the Library`, edits: [{ from: 0, to: 0, text: `import ${name};\n` }] };
      return new LanguageError(`"${name}" is a function of the Library that is not imported here.`, nameRange, { mends: [mend] });
    }
    const mend = nearestMend(name, nameRange, environment.callableNames());
    return new LanguageError(`There is no function "${name}".`, nameRange, { mends: [mend] });
  }
  const [first] = own;
  const declared = first && first.origin.path === source.path ? (first.nameRange ?? first.origin.range) : undefined;
  const floats = asFloats(environment, syntax, args);
  if (floats) return floats;
  const order =
    args.length > 4
      ? undefined
      : ordersOf(args.length).find((each) =>
          takes(
            environment,
            name,
            each.map((index) => types[index]),
          ),
        );
  if (order) {
    const form = order.map((index) => typeName(types[index] ?? FLOAT)).join(', ');
    const mends = [reordered(syntax.args, order, source)];
    return new LanguageError(`The arguments stand in another order: ${name}(${form}).`, syntax, { mends, declared });
  }
  const sameCount = known.filter((parameters) => parameters.length === types.length);
  const [only] = sameCount;
  if (sameCount.length === 1 && only) {
    const wrong = only.findIndex((parameter, index) => !sameType(parameter, types[index] ?? parameter));
    const [arg, given, expected] = [syntax.args[wrong], args[wrong], only[wrong]];
    if (arg && given && expected) {
      const message = `"${name}" takes ${typeName(expected)} here, but this is ${typeName(given.type)}.`;
      return new LanguageError(message, arg, { mends: [conversionMend(given, expected, arg)], declared });
    }
  }
  // What images of whole numbers take is like what all others take.
  const usual = known.filter((parameters) => !/^[iu]sampler/.test(typeName(parameters[0] ?? FLOAT)));
  const forms = [
    ...new Set((usual.length > 0 ? usual : known).map((parameters) => `${name}(${parameters.map(typeName).join(', ')})`)),
  ].slice(0, 4);
  const given = types.map(typeName).join(', ');
  return new LanguageError(`"${name}" does not take (${given}). It takes ${forms.join(' or ')}.`, syntax, { declared });
}

function takes(environment: Environment, name: string, types: readonly (Type | undefined)[]): boolean {
  const known = types.filter((each) => each !== undefined);
  return (environment.functionOf(name, known) ?? findBuiltin(name, known)) !== undefined;
}

/** Whether all would be well if whole numbers were written as floats. */
function asFloats(environment: Environment, syntax: CallSyntax, args: readonly Expression[]): LanguageError | undefined {
  const { name } = syntax.callee;
  const whole = (arg: Expression): boolean => arg.op === 'constant' && sameType(arg.type, INT);
  const types = args.map((arg) => (whole(arg) ? FLOAT : arg.type));
  const at = args.findIndex(whole);
  const place = syntax.args[at];
  if (!place || !(environment.functionOf(name, types) ?? findBuiltin(name, types))) return undefined;
  const edits = args.flatMap((arg, index) => {
    const written = syntax.args[index];
    return written && arg.op === 'constant' && whole(arg) ? [{ from: written.from, to: written.to, text: `${arg.value[0]}.0` }] : [];
  });
  const label = edits.length === 1 ? `Write “${edits[0]?.text}”` : 'Write them as floats';
  return new LanguageError(`"${name}" takes float here, but this is a whole number.`, place, { mends: [{ label, edits }] });
}
