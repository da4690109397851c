import { libraryProgram, type Library } from '../catalogue/library';
import { compileMaterial } from '../compile/compile-material';
import type { CompiledMaterial, CompileOptions, CompileResult } from '../compile/compiled-material';
import { compileOutlets, type CompiledOutlets } from '../compile/compile-outlets';
import type { GraphProblem } from '../compile/resolve';
import type { OutletAddress } from '../document/graph';
import type { MaterialSource } from '../document/material';
import type { Module } from '../ir/ir';
import { linkProgram } from '../ir/program';
import { withNamedNumbers } from './named-numbers';
import { codeFor, type Target, type TargetCode } from './target';

/** A material whose programs a device takes. Plain data: it crosses from the worker. */
export type EmittedMaterial = CompiledMaterial<TargetCode>;
export type EmittedResult = CompileResult<TargetCode>;
export type EmittedOutlets = CompiledOutlets<TargetCode>;

/** Writes all programs of a material for a target. */
export function emitMaterial(target: Target, { program, variants, ...fed }: CompiledMaterial): EmittedMaterial {
  const written = Object.entries(variants).map(([variant, each]): [string, TargetCode] => [variant, codeFor(target, each)]);
  return { ...fed, program: codeFor(target, program), variants: Object.fromEntries(written) };
}

/** Compiles a material for a target. Same document, same result. */
export function compileFor(target: Target, material: MaterialSource, library?: Library, options?: CompileOptions): EmittedResult {
  const { compiled, ...result } = compileMaterial(material, library, options);
  return compiled ? { ...result, compiled: emitMaterial(target, compiled) } : result;
}

/** Compiles a material for people who read its programs, or draw with them elsewhere; see `withNamedNumbers`. */
export function compileToRead(target: Target, material: MaterialSource, library?: Library): EmittedResult {
  const { compiled, ...result } = compileMaterial(material, library);
  return compiled ? { ...result, compiled: emitMaterial(target, withNamedNumbers(compiled, material)) } : result;
}

/** Compiles a program for looking at outlets, for a target; see `compileOutlets`. */
export function compileOutletsFor(
  target: Target,
  material: MaterialSource,
  wanted: readonly OutletAddress[],
  library?: Library,
): EmittedOutlets | { readonly problems: readonly GraphProblem[] } {
  const found = compileOutlets(material, wanted, library);
  return 'compiled' in found ? { ...found, compiled: emitMaterial(target, found.compiled) } : found;
}

/** A pixel stage of no material, drawn over a whole target. */
export function fullScreenCode(target: Target, fragment: Module): TargetCode {
  return codeFor(target, linkProgram(libraryProgram('full_screen.vert'), fragment));
}
