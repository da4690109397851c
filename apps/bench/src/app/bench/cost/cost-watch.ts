import { computed, inject, Injectable, signal } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { addCosts, litProgram, numberedLights, type Cost, type MaterialCost, type PartCost } from '@brelvin/core';
import { auditTime, catchError, EMPTY, from, of, switchMap } from 'rxjs';
import { Workbench } from '../../shared/documents/workbench';
import { FaultHandler } from '../../shared/notices/fault-handler';
import { Compiler } from '../compile/compiler';
import { DocumentStore } from '../documents/document-store';
import { RigEditor } from '../editors/rig-editor';
import { BenchResult } from '../stage/bench-result';

const PAUSE_MS = 150;

/** What the material on the Bench costs, estimated behind the work as long as somebody looks. */
@Injectable()
export class CostWatch {
  private readonly compiler = inject(Compiler);
  private readonly store = inject(DocumentStore);
  private readonly result = inject(BenchResult);
  private readonly workbench = inject(Workbench);
  private readonly faults = inject(FaultHandler);
  private readonly rig = inject(RigEditor).rig;
  private readonly lookers = signal(0);

  /** Whether cards say what their node costs. */
  readonly onCards = signal(false);
  /** Lights that shine from somewhere and are on. */
  readonly lights = computed(() => numberedLights(this.rig()).length);

  private readonly asked = computed(() => {
    const id = this.store.material() && this.store.materialId();
    const watched = this.lookers() > 0 || this.onCards();
    return id !== undefined && watched ? { id, lights: this.lights(), lit: litProgram(this.rig()), of: this.result.compiled() } : undefined;
  });

  /** Nothing while nobody looks, and before the first one is there. */
  readonly cost = toSignal(
    toObservable(this.asked).pipe(
      auditTime(PAUSE_MS),
      switchMap((asked) => {
        if (!asked) return of(undefined);
        const { id, lights, lit } = asked;
        return from(this.compiler.cost(id, { lights, lit })).pipe(
          catchError((error: unknown) => {
            // Of a material that was closed meanwhile there is nothing to say.
            if (this.workbench.document(id)) this.faults.report('The cost could not be estimated', error);
            return EMPTY;
          }),
        );
      }),
    ),
  );
  readonly estimate = computed((): MaterialCost | undefined => {
    const cost = this.cost();
    return cost && 'pixel' in cost ? cost : undefined;
  });

  /** At each pixel, or at each vertex what is computed there alone, by node, for its card. */
  readonly byNode = computed((): ReadonlyMap<string, Cost> => costsOfNodes(this.onCards() ? (this.estimate()?.parts ?? []) : []));

  /** What another open material costs in the same light; nothing while it does not compile. */
  async costOf(id: string): Promise<Cost | undefined> {
    const cost = await this.compiler.cost(id, { lights: this.lights(), lit: litProgram(this.rig()) });
    return 'pixel' in cost ? cost.pixel : undefined;
  }

  /** Until the function that comes back is called. */
  look(): () => void {
    this.lookers.update((count) => count + 1);
    return () => this.lookers.update((count) => count - 1);
  }
}

/** Of nodes by path; a group’s is that of all in it. */
export function costsOfNodes(parts: readonly PartCost[]): ReadonlyMap<string, Cost> {
  const costs = new Map<string, Cost>();
  for (const { place, pixel, vertex } of parts) {
    if (!('node' in place)) continue;
    const steps = place.node.split('/');
    const cost = hasCost(pixel) ? pixel : vertex;
    steps.forEach((_, index) => {
      const path = steps.slice(0, index + 1).join('/');
      costs.set(path, addCosts(costs.get(path) ?? NOTHING, cost));
    });
  }
  return costs;
}

const NOTHING: Cost = { instructions: 0, reads: 0 };

function hasCost({ instructions, reads }: Cost): boolean {
  return instructions + reads > 0;
}
