import type { Change, Material } from '@brelvin/contract';
import {
  applyChanges,
  compileFor,
  compileOutletsFor,
  compileToRead,
  completionsAt,
  fieldDiagnostics,
  functionDiagnostics,
  graphAsCode,
  helpAt,
  isStructural,
  library,
  libraryWith,
  litProgram,
  inOtherLanguage,
  materialCost,
  numberedLights,
  renamable,
  type Translatable,
  type Translated,
  renameAt,
  packOutlets,
  packResult,
  resolveGraph,
  runChecks,
  type CheckInput,
  type Checked,
  type EmittedResult,
  type EmittedSource,
  type Completions,
  type CostWish,
  type Diagnostic,
  type FunctionText,
  type GraphAsCode,
  type GraphProblem,
  type Library,
  type MaterialCost,
  type OutletAddress,
  type PackedOutlets,
  type PackedResult,
  type ResolvedGraph,
  type SurfaceVariant,
  type WornBy,
  type TextRole,
  TARGETS,
  type TargetName,
} from '@brelvin/core';
import { expose } from 'comlink';
import { newId } from '../../shared/documents/new-id';

/** What checks look at besides the material. */
export type Surroundings = Pick<
  CheckInput,
  'set' | 'missingMaterials' | 'rig' | 'bench' | 'seenThrough' | 'images' | 'clipped' | 'budget' | 'milliseconds'
>;

/** Both stages of a program. */
export interface ProgramTexts {
  readonly vertex: EmittedSource;
  readonly fragment: EmittedSource;
}

interface KnownCost {
  readonly library: Library;
  readonly key: string;
  readonly cost: ReturnType<typeof materialCost>;
}

/** Replicas of the materials on the Stage, kept up to date by their changes, so that no work ever ships whole documents. */
class MaterialReplicas {
  private readonly materials = new Map<string, Material>();
  private readonly wornBy = new Map<string, WornBy>();
  /** Of the material that was checked last. */
  private resolved?: { readonly id: string; readonly graph: ResolvedGraph; readonly library: Library };
  /** What the page has of each, so that it is not sent again. */
  private readonly sent = new Map<string, EmittedResult>();
  /** As they were last asked for. */
  private readonly costs = new Map<string, KnownCost>();
  private functions: ReadonlyMap<string, FunctionText> = new Map();
  private target: TargetName = 'glsl';

  /** The shader library with the functions of the workspace. */
  private get library(): Library {
    return this.functions.size > 0 ? libraryWith(this.functions, library()) : library();
  }

  /** Functions that are new or different, and names that are gone. */
  setFunctions(changed: readonly (readonly [string, FunctionText])[], gone: readonly string[]): void {
    const next = new Map([...this.functions, ...changed]);
    for (const name of gone) next.delete(name);
    this.functions = next;
  }

  /** From now on programs are written in this language, all of them anew. */
  aim(target: TargetName): void {
    this.target = target;
    this.sent.clear();
  }

  open(id: string, material: Material, wornBy: WornBy): void {
    this.wornBy.set(id, wornBy);
    this.costs.delete(id);
    this.materials.set(id, material);
  }

  close(id: string): void {
    this.materials.delete(id);
    this.wornBy.delete(id);
    this.costs.delete(id);
    this.sent.delete(id);
  }

  apply(id: string, changes: readonly Change[]): void {
    const material = this.materials.get(id);
    if (material) this.materials.set(id, applyChanges(material, changes));
    if (isStructural(changes)) this.costs.delete(id);
  }

  compile(id: string, variants: readonly SurfaceVariant[]): PackedResult {
    const result = compileFor(TARGETS[this.target], this.replica(id), this.library, { variants, wornBy: this.wornBy.get(id) });
    const packed = packResult(result, this.sent.get(id));
    this.sent.set(id, result);
    return packed;
  }

  outlets(id: string, wanted: readonly OutletAddress[]): PackedOutlets {
    return packOutlets(compileOutletsFor(TARGETS[this.target], this.replica(id), wanted, this.library));
  }

  check(id: string, surroundings: Surroundings): Checked {
    const material = this.replica(id);
    const catalogue = this.library;
    const before = this.resolved?.id === id && this.resolved.library === catalogue ? this.resolved.graph : undefined;
    const resolved = resolveGraph(material, catalogue, before);
    this.resolved = { id, graph: resolved, library: catalogue };
    return runChecks({ ...surroundings, cost: this.costOf(id, surroundings), material, resolved, catalogue, newId });
  }

  /** What a material costs in a light; numbers that are tuned change nothing about it. */
  cost(id: string, wish: Omit<CostWish, 'newId'>): MaterialCost | { readonly problems: readonly GraphProblem[] } {
    const [material, { library: known }] = [this.replica(id), this];
    const key = JSON.stringify(wish);
    const { costs } = this;
    const before = costs.get(id);
    if (before?.library === known && before.key === key) return before.cost;
    const cost = materialCost(material, known, { ...wish, newId });
    costs.set(id, { library: known, key, cost });
    return cost;
  }

  /** What a check of the budget asks for; nothing where nothing is bounded, or it cannot be said. */
  private costOf(id: string, { rig, budget }: Surroundings): MaterialCost | undefined {
    if (!rig || (budget?.instructions === undefined && budget?.reads === undefined)) return undefined;
    const cost = this.cost(id, { lights: numberedLights(rig).length, lit: litProgram(rig) });
    return 'problems' in cost ? undefined : cost;
  }

  /** A graph as shading code. */
  graphCode(id: string, language: TargetName): GraphAsCode | { readonly problems: readonly GraphProblem[] } {
    return graphAsCode(this.replica(id), this.library, language);
  }

  /** Both stages of a material's program, as people read them. */
  programTexts(id: string, language: TargetName): ProgramTexts | { readonly problems: readonly GraphProblem[] } {
    const { compiled, problems } = compileToRead(TARGETS[language], this.replica(id), this.library);
    return compiled ? { vertex: compiled.program.vertex, fragment: compiled.program.fragment } : { problems };
  }

  functionDiagnostics(name: string, text: string): readonly Diagnostic[] {
    return functionDiagnostics(name, text, this.library);
  }

  fieldDiagnostics(text: string): readonly Diagnostic[] {
    return fieldDiagnostics(text);
  }

  completions(text: string, role: TextRole, offset: number): Completions | undefined {
    return completionsAt(text, role, offset, this.library);
  }

  help(text: string, role: TextRole, offset: number): ReturnType<typeof helpAt> {
    return helpAt(text, role, offset, this.library);
  }

  renamable(text: string, role: TextRole, offset: number): ReturnType<typeof renamable> {
    return renamable(text, role, offset, this.library);
  }

  translate(source: Translatable): Translated {
    return inOtherLanguage(source, this.library);
  }

  rename(text: string, role: TextRole, offset: number, wanted: string): ReturnType<typeof renameAt> {
    return renameAt(text, role, offset, wanted, this.library);
  }

  private replica(id: string): Material {
    const material = this.materials.get(id);
    if (!material) throw new Error('no such material was opened');
    return material;
  }
}

export type RemoteCompiler = MaterialReplicas;

expose(new MaterialReplicas());
