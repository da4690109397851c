import { ChangeDetectionStrategy, Component, computed, inject, ViewEncapsulation } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { Router } from '@angular/router';
import { LONGEST_NAME } from '@brelvin/contract';
import { saveWords } from '../../shared/documents/save-words';
import { Workbench } from '../../shared/documents/workbench';
import { Icon } from '../../shared/icons/icon';
import { DocumentSource } from '../../shared/picking/document-source';
import { Picker } from '../../shared/picking/picker';
import { ThemeSwitch } from '../../shared/themes/theme-switch';
import { DocumentStore } from '../documents/document-store';
import { SendOut } from '../files/send-out';
import { SendOutMenu } from '../files/send-out-menu';
import { Steps } from '../documents/steps';
import { BenchLayout } from '../layout/bench-layout';
import { ThumbnailKeeper } from '../stage/thumbnail-keeper';

/** What is on the Bench, whether it is saved, steps back and forth, and the ways out. */
@Component({
  selector: 'brelvin-bench-bar',
  imports: [Icon, Picker, ThemeSwitch, SendOutMenu],
  changeDetection: ChangeDetectionStrategy.OnPush,
  encapsulation: ViewEncapsulation.None,
  styleUrl: './bench-bar.css',
  host: { class: 'contents' },
  templateUrl: './bench-bar.html',
})
export class BenchBar {
  private readonly router = inject(Router);
  private readonly thumbnails = inject(ThumbnailKeeper);
  private readonly workbench = inject(Workbench);
  private readonly documents = inject(DocumentSource);
  protected readonly sets = this.documents.of('set');
  protected readonly rigs = this.documents.of('rig');
  protected readonly layout = inject(BenchLayout);
  protected readonly out = inject(SendOut);
  protected readonly steps = inject(Steps);
  protected readonly store = inject(DocumentStore);
  protected readonly longestName = LONGEST_NAME;
  protected readonly saveState = toSignal(this.workbench.saveState, { initialValue: { kind: 'saved' as const } });
  protected readonly saveWords = computed(() => saveWords(this.saveState()));
  protected readonly inTrouble = computed(() => ['away', 'deleted', 'refused'].includes(this.saveState().kind));

  protected rename(field: HTMLInputElement): void {
    if (!this.store.rename(field.value)) field.value = this.store.material()?.name ?? '';
    field.blur();
  }

  protected choose(role: 'set' | 'rig', id: string): void {
    void this.attempt(() => this.store.choose(role, id));
  }

  protected restoreDeleted(): void {
    void this.attempt(() => this.workbench.restoreDeleted());
  }

  protected async backToLibrary(event: Event): Promise<void> {
    event.preventDefault();
    this.store.flushDrafts();
    await this.store.settled();
    await this.workbench.flush();
    await this.thumbnails.flush();
    await this.router.navigate(['/']);
  }

  /** Work whose failure is told. */
  private async attempt(job: () => Promise<unknown>): Promise<void> {
    try {
      await job();
    } catch (error) {
      this.workbench.tell(error instanceof Error ? error.message : String(error));
    }
  }
}
