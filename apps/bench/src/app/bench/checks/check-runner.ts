import { computed, inject, Injectable, signal } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { silence, silenceKey, type Checked, type Finding, type StageSet } from '@brelvin/core';
import { auditTime, catchError, EMPTY, from, switchMap } from 'rxjs';
import { Compiler } from '../compile/compiler';
import { GraphWork } from '../graph/graph-work';
import { StageMaterials } from '../stage/stage-materials';

const PAUSE_MS = 300;
const NOTHING: Checked = { findings: [], silenced: 0 };

/** Runs the checks behind the work, never during it. */
@Injectable()
export class CheckRunner {
  private readonly compiler = inject(Compiler);
  private readonly work = inject(GraphWork);
  /** The material on the Bench, once it is open, and the set it stands in. */
  readonly subject = signal<{ readonly id: string; readonly set?: StageSet } | undefined>(undefined);
  private readonly missing = toSignal(inject(StageMaterials).missing, { initialValue: new Map<string, string>() });
  private readonly input = computed(() => ({ subject: this.subject(), material: this.work.material(), missing: this.missing() }));

  readonly result = toSignal(
    toObservable(this.input).pipe(
      auditTime(PAUSE_MS),
      switchMap(({ subject, missing: missingMaterials }) =>
        subject
          ? // Of a material that was closed meanwhile there is nothing to say.
            from(this.compiler.check(subject.id, { set: subject.set, missingMaterials })).pipe(catchError(() => EMPTY))
          : EMPTY,
      ),
    ),
    { initialValue: NOTHING },
  );

  /** Switches a check off for the place of a finding. */
  silence(finding: Finding): void {
    this.work.do(silence(silenceKey(finding), true));
  }

  /** Switches all checks on again everywhere. */
  speak(): void {
    const changes = Object.keys(this.work.material().silenced).flatMap((key) => silence(key, false).changes);
    this.work.do({ label: 'Switch all checks on', changes });
  }
}
