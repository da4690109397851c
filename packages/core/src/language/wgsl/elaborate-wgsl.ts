import type { Module } from '../../ir/ir';
import { DiagnosticList } from '../diagnostics';
import type { ElaboratedSource } from '../elaborated-source';
import { Environment, type ElaborationOptions } from '../environment';
import { refuseRecursion } from '../recursion';
import { SourceText } from '../source';
import { WgslModule } from './wgsl-module';
import { parseWgsl } from './wgsl-parser';
import { tokenizeWgsl } from './wgsl-scanner';

/** Reads WGSL (W3C, “WebGPU Shading Language”) to the same typed IR as all else; errors are collected, never thrown. */
export function elaborateWgsl(path: string, text: string, imported: Module, options: ElaborationOptions): ElaboratedSource {
  const source = new SourceText(path, text);
  const diagnostics = new DiagnosticList(source);
  const environment = new Environment(imported, options);
  const declarations = parseWgsl(tokenizeWgsl(source, diagnostics), diagnostics);
  const module = new WgslModule(source, diagnostics, environment, declarations, options.stage);
  module.read()();
  const functions = declarations.filter((each) => each.op === 'function');
  if (environment.callsAhead) refuseRecursion(functions, environment, path, diagnostics);
  return {
    module: environment,
    diagnostics: diagnostics.items,
    documentation: module.documentation,
    uniforms: module.uniforms,
    own: [...new Set(module.own)],
    imports: declarations.filter((each) => each.op === 'import'),
  };
}
