import { NgComponentOutlet } from '@angular/common';
import { ChangeDetectionStrategy, Component, computed, inject, ViewEncapsulation } from '@angular/core';
import { Tabs } from '../../shared/controls/tabs';
import { DocumentStore } from '../documents/document-store';
import { BenchPlaces } from '../layout/bench-places';
import { ParametersPanel } from '../parameters/parameters-panel';
import { shownParameters } from '../parameters/shown-parameters';
import { shownView } from '../registry/entry-view';
import { PANELS, panelTabs, RIG_PANELS, type PanelEntry } from '../registry/panel-entry';

/** The panels below: parameters, all about the material, all about its light. */
@Component({
  selector: 'brelvin-panel-row',
  imports: [NgComponentOutlet, ParametersPanel, Tabs],
  changeDetection: ChangeDetectionStrategy.OnPush,
  encapsulation: ViewEncapsulation.None,
  styleUrl: './panel-row.css',
  host: { class: 'contents' },
  template: `
    @if (parameters()) {
      <section class="panel panel-parameters" aria-labelledby="parameters-title">
        <h2 id="parameters-title" class="panel-title">parameters</h2>
        <brelvin-parameters-panel />
      </section>
    }
    <section class="panel panel-about" aria-labelledby="about-title">
      <h2 id="about-title" class="sr-only">{{ aboutLabel }}</h2>
      <brelvin-tabs
        class="panel-tabs"
        [label]="aboutLabel"
        [tabs]="tabs()"
        [shown]="panel()?.id ?? ''"
        (shownChange)="places.panel.set($event)"
      />
      @if (store.material()) {
        @if (shownPanel.view(); as view) {
          <ng-container *ngComponentOutlet="view" />
        } @else {
          <p class="hint" role="status">{{ shownPanel.waiting() }}</p>
        }
      }
    </section>
    <section class="panel panel-light" aria-labelledby="light-title">
      <h2 id="light-title" class="sr-only">Light, environment and picture</h2>
      <brelvin-tabs class="panel-tabs" label="Light, environment and picture" [tabs]="rigTabs()" [(shown)]="places.rigPanel" />
      @if (store.rig()) {
        @if (shownRigPanel.view(); as view) {
          <ng-container *ngComponentOutlet="view" />
        } @else {
          <p class="hint" role="status">{{ shownRigPanel.waiting() }}</p>
        }
      }
    </section>
  `,
})
export class PanelRow {
  private readonly panels = inject(PANELS);
  private readonly rigPanels = inject(RIG_PANELS);
  protected readonly places = inject(BenchPlaces);
  protected readonly store = inject(DocumentStore);

  protected readonly aboutLabel = labelOf(this.panels.map(({ id }) => id));
  protected readonly tabs = panelTabs(PANELS);
  protected readonly rigTabs = panelTabs(RIG_PANELS);
  /** Whether there are parameters: they then have a column of their own. */
  protected readonly parameters = computed(() => {
    const material = this.store.material();
    return material !== undefined && shownParameters(material).length > 0;
  });
  /** The panel that was chosen, as long as it has a tab. */
  protected readonly panel = computed((): PanelEntry | undefined => {
    const has = (id: string): boolean => this.tabs().some(({ value }) => value === id);
    return this.panels.find(({ id }) => id === this.places.panel() && has(id)) ?? this.panels[0];
  });
  protected readonly shownPanel = shownView(this.panel);
  protected readonly shownRigPanel = shownView(computed(() => this.rigPanels.find(({ id }) => id === this.places.rigPanel())));
}

function labelOf(ids: readonly string[]): string {
  const words = ids.join(', ');
  return words.charAt(0).toUpperCase() + words.slice(1);
}
