import { ChangeDetectionStrategy, Component, inject, signal, ViewEncapsulation } from '@angular/core';
import { silenceKey, type Finding, type Mend } from '@brelvin/core';
import { Icon } from '../../shared/icons/icon';
import { DocumentStore } from '../documents/document-store';
import { BenchPlaces } from '../layout/bench-places';
import type { PanelEntry } from '../registry/panel-entry';
import { CheckRunner } from './check-runner';

/** Well-known mistakes that were found: where, why they matter, and a mend. */
@Component({
  selector: 'brelvin-checks-panel',
  imports: [Icon],
  changeDetection: ChangeDetectionStrategy.OnPush,
  encapsulation: ViewEncapsulation.None,
  styleUrl: './checks-panel.css',
  host: { class: 'panel-body' },
  template: `
    @for (finding of runner.result().findings; track key(finding)) {
      <article class="finding">
        <h3 class="finding-title">
          <brelvin-icon name="warning" />
          @if (finding.node !== undefined) {
            <button type="button" class="finding-show" title="Show the place" (click)="places.showNode(finding.node)">
              {{ finding.title }}
            </button>
          } @else {
            <span>{{ finding.title }}</span>
          }
        </h3>
        <p>
          @if (finding.mend; as mend) {
            <button type="button" class="choice-alone" (click)="apply(mend)">{{ mend.label }}</button>
          }
          @if (finding.otherMend; as mend) {
            <button type="button" class="choice-alone" (click)="apply(mend)">{{ mend.label }}</button>
          }
          <button type="button" class="text-button" [attr.aria-expanded]="open() === key(finding)" (click)="toggle(finding)">why</button>
          <button type="button" class="text-button" title="Ignore this here from now on" (click)="runner.silence(finding)">
            ignore here
          </button>
        </p>
        @if (open() === key(finding)) {
          <p class="hint">{{ finding.explanation }}</p>
        }
      </article>
    } @empty {
      @if (runner.result().kinds; as kinds) {
        <p class="hint">Nothing found. {{ kinds }} well-known mistakes are looked for while you work.</p>
      } @else {
        <p class="hint">Looking …</p>
      }
    }
    @if (runner.result().silenced > 0) {
      <button type="button" class="text-button" (click)="runner.speak()">{{ runner.result().silenced }} switched off; show again</button>
    }
  `,
})
export class ChecksPanel {
  protected readonly places = inject(BenchPlaces);
  protected readonly runner = inject(CheckRunner);
  private readonly store = inject(DocumentStore);
  protected readonly open = signal<string | undefined>(undefined);
  protected readonly key = silenceKey;

  protected toggle(finding: Finding): void {
    const key = silenceKey(finding);
    this.open.set(this.open() === key ? undefined : key);
  }

  protected apply({ document, edit }: Mend): void {
    this.store.edit(document ?? 'material', edit);
  }
}

export const CHECKS_TAB: PanelEntry = {
  id: 'checks',
  tab: () => {
    const { result } = inject(CheckRunner);
    return () => (result().findings.length > 0 ? { words: `checks ${result().findings.length}` } : {});
  },
  view: ChecksPanel,
};
