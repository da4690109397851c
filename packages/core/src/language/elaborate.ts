import { LONGEST_SOURCE } from '@brelvin/contract';
import { EMPTY_MODULE, type Module } from '../ir/ir';
import { DiagnosticList } from './diagnostics';
import { DeclarationElaborator } from './elaborate-declarations';
import type { ElaboratedSource } from './elaborated-source';
import { Environment, type ElaborationOptions } from './environment';
import { tokenize } from './lexer';
import { parse } from './parser';
import { SourceText } from './source';
import type { DeclarationSyntax } from './syntax';
import { elaborateWgsl } from './wgsl/elaborate-wgsl';
import { isWgsl } from './wgsl/is-wgsl';
import { withoutComments } from './without-comments';

/**
 * Reads shading code, GLSL or WGSL: text → tokens → syntax → typed IR. Errors are collected, never thrown; functions with an
 * error are left out of the module.
 *
 * @param imported declarations the text may use; they are part of the result
 */
export function elaborate(path: string, text: string, imported: Module = EMPTY_MODULE, options: ElaborationOptions = {}): ElaboratedSource {
  if (isWgsl(text) && text.length <= LONGEST_SOURCE) return elaborateWgsl(path, text, imported, options);
  return elaborateAll([[path, text]], imported, options);
}

/** The same for several texts that may use one another's declarations, in any order. */
export function elaborateAll(
  texts: readonly (readonly [path: string, text: string])[],
  imported: Module = EMPTY_MODULE,
  options: ElaborationOptions = {},
): ElaboratedSource {
  const environment = new Environment(imported, options);
  const parts = texts.map(([path, text]) => {
    const source = new SourceText(path, text);
    const diagnostics = new DiagnosticList(source);
    const declarations = readSyntax(source, diagnostics);
    return { declarations, elaborator: new DeclarationElaborator({ source, diagnostics, environment }) };
  });
  for (const { declarations, elaborator } of parts) elaborator.types(declarations);
  const bodies = parts.map(({ declarations, elaborator }) => elaborator.signatures(declarations));
  for (const finish of bodies) finish();
  return {
    module: environment,
    diagnostics: parts.flatMap((part) => part.elaborator.diagnostics.items),
    documentation: new Map(parts.flatMap((part) => [...part.elaborator.documentation])),
    uniforms: parts.flatMap((part) => part.elaborator.uniforms),
    own: [...new Set(parts.flatMap((part) => part.elaborator.own))],
    imports: parts.flatMap(({ declarations }) => declarations.filter((each) => each.op === 'import')),
  };
}

function readSyntax(source: SourceText, diagnostics: DiagnosticList): DeclarationSyntax[] {
  const { length } = source.text;
  if (length > LONGEST_SOURCE) {
    const range = { from: LONGEST_SOURCE, to: LONGEST_SOURCE + 1 };
    diagnostics.add(
      'error',
      `This code has ${length} characters; at most ${LONGEST_SOURCE} are read. Split it into functions of the Library.`,
      range,
    );
    return [];
  }
  return parse(tokenize(source, diagnostics), diagnostics);
}

/** Names after `import` in a text, whether or not the rest of it is right. */
export function importsOf(text: string): string[] {
  return [...new Set([...withoutComments(text).matchAll(/^[ \t]*import\s+([A-Za-z_]\w*)\s*;/gm)].map(([, name]) => name ?? ''))];
}
