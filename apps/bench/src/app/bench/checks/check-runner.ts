import { computed, inject, Injectable } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { silence, silenceKey, type Checked, type CheckFault, type EmittedResult, type Finding, type SeenThrough } from '@brelvin/core';
import { auditTime, catchError, distinctUntilChanged, EMPTY, from, scan, switchMap, tap } from 'rxjs';
import { Workbench } from '../../shared/documents/workbench';
import { ImageShelf } from '../../shared/images/image-shelf';
import { FaultHandler } from '../../shared/notices/fault-handler';
import { Compiler } from '../compile/compiler';
import { BudgetShelf } from '../cost/budget-shelf';
import { MeasuredCosts } from '../cost/measured-costs';
import { DocumentStore } from '../documents/document-store';
import { GraphEditor } from '../editors/graph-editor';
import { RigEditor } from '../editors/rig-editor';
import { StageBinding } from '../stage/stage-binding';
import { StageMaterials } from '../stage/stage-materials';

const PAUSE_MS = 300;
const NOTHING: Checked = { kinds: 0, findings: [], silenced: 0, faults: [] };

/** Runs the checks behind the work, never during it. */
@Injectable()
export class CheckRunner {
  private readonly compiler = inject(Compiler);
  private readonly editor = inject(GraphEditor);
  private readonly workbench = inject(Workbench);
  private readonly stage = inject(StageBinding);
  private readonly faults = inject(FaultHandler);
  private readonly told = new Set<string>();
  private readonly store = inject(DocumentStore);
  /** The material on the Bench, once it is open, and the set it stands in. */
  private readonly subject = computed(() => {
    const id = this.store.material() && this.store.materialId();
    return id === undefined ? undefined : { id, set: this.store.set() };
  });
  private readonly missing = toSignal(inject(StageMaterials).missing, { initialValue: new Map<string, string>() });
  private readonly rig = inject(RigEditor).rig;
  private readonly images = inject(ImageShelf).facts;
  /** How each material on the Stage is seen through, as its last good program says. */
  private readonly seenThrough = toSignal(
    this.compiler.results.pipe(
      scan((known: ReadonlyMap<string, SeenThrough>, { id, result }) => withSeen(known, id, result), new Map<string, SeenThrough>()),
      distinctUntilChanged(),
    ),
    { initialValue: new Map<string, SeenThrough>() },
  );
  private readonly budget = inject(BudgetShelf).budget;
  private readonly measured = inject(MeasuredCosts).atFullSize;
  private readonly input = computed(() => ({
    subject: this.subject(),
    material: this.editor.material(),
    missing: this.missing(),
    rig: this.rig(),
    seenThrough: this.seenThrough(),
    images: this.images(),
    clipped: this.stage.state()?.clipped,
    budget: this.budget(),
    milliseconds: this.measured(),
  }));

  readonly result = toSignal(
    toObservable(this.input).pipe(
      auditTime(PAUSE_MS),
      switchMap(({ subject, missing: missingMaterials, rig, seenThrough, images, clipped, budget, milliseconds }) =>
        subject
          ? // Of a material that was closed meanwhile there is nothing to say.
            from(
              this.compiler.check(subject.id, {
                set: subject.set,
                missingMaterials,
                rig,
                bench: subject.id,
                seenThrough,
                images,
                clipped,
                budget,
                milliseconds,
              }),
            ).pipe(
              catchError((error: unknown) => {
                if (this.workbench.document(subject.id)) this.faults.report('The checks could not be made', error);
                return EMPTY;
              }),
              tap(({ faults }) => faults.forEach((fault) => this.tellOnce(fault))),
            )
          : EMPTY,
      ),
    ),
    { initialValue: NOTHING },
  );

  /** A check that fails at every edit is told of once. */
  private tellOnce({ check, message, stack }: CheckFault): void {
    const key = `${check} ${message}`;
    if (this.told.has(key)) return;
    this.told.add(key);
    this.faults.report(`The check “${check}” could not be made`, Object.assign(new Error(message), { stack }));
  }

  /** Switches a check off for the place of a finding. */
  silence(finding: Finding): void {
    this.editor.change(silence(silenceKey(finding), true));
  }

  /** Switches all checks on again everywhere. */
  speak(): void {
    const changes = Object.keys(this.editor.material().silenced).flatMap((key) => silence(key, false).changes);
    this.editor.change({ label: 'Switch all checks on', changes });
  }
}

/** The same map where nothing changed. */
function withSeen(known: ReadonlyMap<string, SeenThrough>, id: string, { compiled }: EmittedResult): ReadonlyMap<string, SeenThrough> {
  if (!compiled) return known;
  const seen = compiled.opacity ?? (compiled.transmits ? 'glass' : undefined);
  if (known.get(id) === seen) return known;
  const next = new Map(known);
  if (seen) next.set(id, seen);
  else next.delete(id);
  return next;
}
