import { BUILTINS } from './builtins';
import { LanguageError, write } from './diagnostics';
import type { Environment } from './environment';
import { functionWords } from './function-words';
import { nearestMend } from './nearest-name';
import type { ImportSyntax } from './syntax';

/** Takes a function of the Library into use. @throws LanguageError where there is none, or it is broken itself */
export function importFunction(syntax: Omit<ImportSyntax, 'op'>, environment: Environment): void {
  const { name, nameRange } = syntax;
  const { importer } = environment.options;
  if (!importer) throw new LanguageError('Functions of the Library cannot be imported here.', nameRange);
  if (environment.importedNames.has(name)) throw new LanguageError(`"${name}" is imported twice.`, nameRange);
  const found = importer.import(name);
  if ('problem' in found && (BUILTINS.has(name) || environment.overloadsOf(name).length > 0)) {
    throw new LanguageError(`"${name}" can be called everywhere and needs no import.`, nameRange, {
      mends: [write('', syntax, 'Take the line away')],
    });
  }
  if ('problem' in found) {
    environment.troubled.add(name);
    const mend = found.today === undefined ? nearestMend(name, nameRange, importer.names) : write(found.today, nameRange);
    throw new LanguageError(found.problem, nameRange, { mends: [mend] });
  }
  environment.addImport(name, found);
  const [first] = found.visible;
  const declared = first && { path: first.origin.path, range: first.nameRange ?? first.origin.range };
  environment.note(nameRange, () => ({
    kind: 'function of the Library',
    name,
    signature: first ? functionWords(first, name) : name,
    declared,
  }));
}
