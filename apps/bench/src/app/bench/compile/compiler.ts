import { Injectable, signal, type OnDestroy } from '@angular/core';
import type { Change, Material } from '@brelvin/contract';
import {
  isStructural,
  NO_FUNCTIONS,
  unpackOutlets,
  unpackResult,
  type Checked,
  type EmittedOutlets,
  type EmittedResult,
  type Completions,
  type CostWish,
  type Diagnostic,
  type FunctionText,
  type FunctionTexts,
  type GraphAsCode,
  type helpAt,
  type GraphProblem,
  type LitProgram,
  type MaterialCost,
  type OutletAddress,
  type renamable,
  type Translatable,
  type Translated,
  type renameAt,
  type SurfaceVariant,
  type WornBy,
  type TargetName,
  type TextRole,
} from '@brelvin/core';
import { wrap, type Remote } from 'comlink';
import { BehaviorSubject, map, distinctUntilChanged, Subject, type Observable } from 'rxjs';
import type { ProgramTexts, RemoteCompiler, Surroundings } from './compile.worker';

export interface CompiledDocument {
  readonly id: string;
  readonly result: EmittedResult;
}

type At<T> = (text: string, role: TextRole, offset: number) => Promise<T>;

/** What an editor asks about a text. */
export interface Assist {
  readonly completions: At<Completions | undefined>;
  readonly help: At<ReturnType<typeof helpAt>>;
  readonly renamable: At<ReturnType<typeof renamable>>;
  rename(text: string, role: TextRole, offset: number, wanted: string): Promise<ReturnType<typeof renameAt>>;
  /** A text in the other language. */
  translate(source: Translatable): Promise<Translated>;
}

/** Compiles and checks the materials on the Stage in a worker. Requests are numbered; only the newest one's result is shown. */
@Injectable()
export class Compiler implements OnDestroy {
  private readonly worker = new Worker(new URL('./compile.worker', import.meta.url), { type: 'module' });
  private readonly remote: Remote<RemoteCompiler> = wrap<RemoteCompiler>(this.worker);
  private readonly latest = new BehaviorSubject<ReadonlyMap<string, EmittedResult>>(new Map());
  private readonly finished = new Subject<CompiledDocument>();
  /** The newest answer for each, shown or not: the worker does not send again what is the same. */
  private readonly received = new Map<string, EmittedResult>();
  private readonly requested = new Map<string, number>();
  private readonly waiting = new Set<string>();
  private running = false;
  private readonly runs = signal(false);
  private functions: FunctionTexts = NO_FUNCTIONS;
  private readonly variants = new Set<SurfaceVariant>();
  /** Whether it is known by which light pictures are lit: what is compiled before would be compiled again. */
  private lightKnown = false;

  private readonly aimedAt = signal<TargetName | undefined>(undefined);

  /** The language that programs are written in, once it is known what draws. */
  readonly target = this.aimedAt.asReadonly();

  /** Whether a material is being compiled. */
  readonly busy = this.runs.asReadonly();

  /** Each result as it comes. */
  readonly results: Observable<CompiledDocument> = this.finished.asObservable();

  /** The newest result of a material. */
  watch(id: string): Observable<EmittedResult | undefined> {
    return this.latest.pipe(
      map((all) => all.get(id)),
      distinctUntilChanged(),
    );
  }

  resultOf(id: string): EmittedResult | undefined {
    return this.latest.value.get(id);
  }

  /** @param wornBy what is to wear it: a material that meshes and fields wear is opened twice, under two names */
  open(id: string, material: Material, wornBy: WornBy = 'mesh'): void {
    void this.remote.open(id, material, wornBy);
    this.request(id);
  }

  close(id: string): void {
    void this.remote.close(id);
    this.waiting.delete(id);
    this.requested.delete(id);
    this.received.delete(id);
    const latest = new Map(this.latest.value);
    latest.delete(id);
    this.latest.next(latest);
  }

  /** Follows an edit; compiles only where another program may be needed. */
  follow(id: string, changes: readonly Change[]): void {
    void this.remote.apply(id, changes);
    if (isStructural(changes, this.resultOf(id)?.compiled?.baked)) this.request(id);
  }

  /** From now on also compiles the program that pictures in a light need. Nothing is compiled before the first one is named. */
  light(lit: LitProgram): void {
    this.lightKnown = true;
    if (lit !== 'plain') this.want(lit);
    this.runOn();
  }

  /** Writes programs for a device from now on, all of them anew where it is another one. Nothing is compiled before the first one is named. */
  aim(target: TargetName): void {
    if (this.aimedAt() === target) return;
    this.aimedAt.set(target);
    void this.remote.aim(target);
    this.received.clear();
    for (const id of this.requested.keys()) this.request(id);
    this.runOn();
  }

  /** From now on also compiles programs for shadows, or for taking pictures apart. */
  want(variant: SurfaceVariant): void {
    if (this.variants.has(variant)) return;
    this.variants.add(variant);
    for (const id of this.requested.keys()) this.request(id);
  }

  /** Looks for well-known mistakes in a material that is open. */
  check(id: string, surroundings: Surroundings): Promise<Checked> {
    return this.remote.check(id, surroundings);
  }

  /** What a material that is open costs in a light. */
  cost(id: string, wish: Omit<CostWish, 'newId'>): Promise<MaterialCost | { readonly problems: readonly GraphProblem[] }> {
    return this.remote.cost(id, wish);
  }

  /** A program that gives the values of outlets of a material that is open. */
  outlets(id: string, wanted: readonly OutletAddress[]): Promise<EmittedOutlets | { readonly problems: readonly GraphProblem[] }> {
    return this.remote.outlets(id, wanted).then(unpackOutlets, defect);
  }

  /** Takes functions of the Library into use; compiles the materials that need one of those that changed. */
  setFunctions(texts: FunctionTexts, needed: (id: string) => ReadonlySet<string>): void {
    const before = this.functions;
    if (texts === before) return;
    const changed = [...texts].filter(([name, each]) => !sameFunction(before.get(name), each));
    const gone = [...before.keys()].filter((name) => !texts.has(name));
    this.functions = texts;
    if (changed.length === 0 && gone.length === 0) return;
    void this.remote.setFunctions(changed, gone);
    const names = new Set([...changed.map(([name]) => name), ...gone]);
    for (const id of this.requested.keys()) if ([...needed(id)].some((name) => names.has(name))) this.request(id);
  }

  /** A graph as shading code, of a material that is open. */
  graphCode(id: string, language: TargetName): Promise<GraphAsCode | { readonly problems: readonly GraphProblem[] }> {
    return this.remote.graphCode(id, language);
  }

  /** Both stages of a material's program as people read them, of a material that is open. */
  programTexts(id: string, language: TargetName): Promise<ProgramTexts | { readonly problems: readonly GraphProblem[] }> {
    return this.remote.programTexts(id, language);
  }

  functionDiagnostics(name: string, text: string): Promise<readonly Diagnostic[]> {
    return this.remote.functionDiagnostics(name, text);
  }

  fieldDiagnostics(text: string): Promise<readonly Diagnostic[]> {
    return this.remote.fieldDiagnostics(text);
  }

  /** Questions about a text that is being written. */
  readonly assist: Assist = {
    completions: (text, role, offset) => this.remote.completions(text, role, offset),
    help: (text, role, offset) => this.remote.help(text, role, offset),
    renamable: (text, role, offset) => this.remote.renamable(text, role, offset),
    translate: (source) => this.remote.translate(source),
    rename: (text, role, offset, wanted) => this.remote.rename(text, role, offset, wanted),
  };

  private request(id: string): void {
    this.requested.set(id, (this.requested.get(id) ?? 0) + 1);
    this.waiting.add(id);
    this.runOn();
  }

  private runOn(): void {
    if (!this.running && this.lightKnown && this.aimedAt() && this.waiting.size > 0) void this.run();
  }

  private async run(): Promise<void> {
    this.running = true;
    this.runs.set(true);
    try {
      for (let [id] = this.waiting; id !== undefined; [id] = this.waiting) {
        this.waiting.delete(id);
        const number = this.requested.get(id);
        const result = await this.compile(id).catch(defect);
        if (number === undefined || number !== this.requested.get(id)) continue;
        this.latest.next(new Map(this.latest.value).set(id, result));
        this.finished.next({ id, result });
      }
    } finally {
      this.running = false;
      this.runs.set(false);
    }
  }

  private async compile(id: string): Promise<EmittedResult> {
    const packed = await this.remote.compile(id, [...this.variants]);
    const result = unpackResult(packed, this.received.get(id));
    this.received.set(id, result);
    return result;
  }

  ngOnDestroy(): void {
    this.worker.terminate();
  }
}

/** A fault of ours: the picture stays, and the words go where other problems go. */
function defect(error: unknown): EmittedResult {
  const message = `The compiler failed on this graph (${error instanceof Error ? error.message : String(error)}). Undo the last change.`;
  return { problems: [{ node: '', message }], rates: {} };
}

function sameFunction(a: FunctionText | undefined, b: FunctionText): boolean {
  return a !== undefined && a.text === b.text && (a.formerNames ?? []).join() === (b.formerNames ?? []).join();
}
