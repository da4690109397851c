import { Injectable, type OnDestroy } from '@angular/core';
import {
  isStructural,
  unpackOutlets,
  unpackResult,
  type Change,
  type Checked,
  type CompiledOutlets,
  type CompileResult,
  type GraphProblem,
  type Material,
  type OutletAddress,
  type SurfaceVariant,
} from '@brelvin/core';
import { wrap, type Remote } from 'comlink';
import { BehaviorSubject, map, distinctUntilChanged, Subject, type Observable } from 'rxjs';
import type { RemoteCompiler, Surroundings } from './compile.worker';

export interface CompiledDocument {
  readonly id: string;
  readonly result: CompileResult;
}

/** Compiles and checks the materials on the Stage in a worker. Requests are numbered; only the newest one's result is shown. */
@Injectable()
export class Compiler implements OnDestroy {
  private readonly worker = new Worker(new URL('./compile.worker', import.meta.url), { type: 'module' });
  private readonly remote: Remote<RemoteCompiler> = wrap<RemoteCompiler>(this.worker);
  private readonly latest = new BehaviorSubject<ReadonlyMap<string, CompileResult>>(new Map());
  private readonly finished = new Subject<CompiledDocument>();
  private readonly requested = new Map<string, number>();
  private readonly waiting = new Set<string>();
  private running = false;
  private readonly variants = new Set<SurfaceVariant>();

  /** Each result as it comes. */
  readonly results: Observable<CompiledDocument> = this.finished.asObservable();

  /** The newest result of a material. */
  watch(id: string): Observable<CompileResult | undefined> {
    return this.latest.pipe(
      map((all) => all.get(id)),
      distinctUntilChanged(),
    );
  }

  resultOf(id: string): CompileResult | undefined {
    return this.latest.value.get(id);
  }

  open(id: string, material: Material): void {
    void this.remote.open(id, material);
    this.request(id);
  }

  close(id: string): void {
    void this.remote.close(id);
    this.waiting.delete(id);
    this.requested.delete(id);
    const latest = new Map(this.latest.value);
    latest.delete(id);
    this.latest.next(latest);
  }

  /** Follows an edit; compiles only where another program may be needed. */
  follow(id: string, changes: readonly Change[]): void {
    void this.remote.apply(id, changes);
    if (isStructural(changes, this.resultOf(id)?.compiled?.baked)) this.request(id);
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

  /** A program that gives the values of outlets of a material that is open. */
  outlets(id: string, wanted: readonly OutletAddress[]): Promise<CompiledOutlets | { readonly problems: readonly GraphProblem[] }> {
    return this.remote.outlets(id, wanted).then(unpackOutlets, defect);
  }

  private request(id: string): void {
    this.requested.set(id, (this.requested.get(id) ?? 0) + 1);
    this.waiting.add(id);
    if (!this.running) void this.run();
  }

  private async run(): Promise<void> {
    this.running = true;
    try {
      for (let [id] = this.waiting; id !== undefined; [id] = this.waiting) {
        this.waiting.delete(id);
        const number = this.requested.get(id);
        const result = await this.remote.compile(id, [...this.variants]).then(unpackResult, defect);
        if (number === undefined || number !== this.requested.get(id)) continue;
        this.latest.next(new Map(this.latest.value).set(id, result));
        this.finished.next({ id, result });
      }
    } finally {
      this.running = false;
    }
  }

  ngOnDestroy(): void {
    this.worker.terminate();
  }
}

/** A fault of ours: the picture stays, and the words go where other problems go. */
function defect(error: unknown): CompileResult {
  const message = `The compiler failed on this graph (${error instanceof Error ? error.message : String(error)}). Undo the last change.`;
  return { problems: [{ node: '', message }], rates: {} };
}
