import { ChangeDetectionStrategy, Component, computed, inject, ViewEncapsulation } from '@angular/core';
import { CODE_KIND } from '@brelvin/core';
import { Icon } from '../../shared/icons/icon';
import { CodeField } from '../graph/code-field';
import { GroupPanel } from '../graph/group-panel';
import { GraphView } from '../editors/graph-view';
import { GraphEditor } from '../editors/graph-editor';
import { BenchResult } from '../stage/bench-result';
import { BenchPlaces } from '../layout/bench-places';
import { summaryOf } from './material-summary';
import type { PanelEntry } from '../registry/panel-entry';

/** What is wrong with the graph; otherwise what the selected node does and where its formula comes from, or what the material consists of. */
@Component({
  selector: 'brelvin-about-panel',
  imports: [CodeField, GroupPanel, Icon],
  changeDetection: ChangeDetectionStrategy.OnPush,
  encapsulation: ViewEncapsulation.None,
  styleUrl: './about-panel.css',
  host: { class: 'panel-body' },
  template: `
    @for (problem of problems(); track $index) {
      <button type="button" class="problem" (click)="places.showNode(problem.node)">
        <brelvin-icon name="warning" /> <span>{{ problem.message }}</span>
      </button>
    }
    @if (editor.group(); as group) {
      <brelvin-group-panel [group]="group" />
    }
    @if (kind(); as known) {
      <h3 class="about-title">
        {{ known.title }} <span class="finder-family">{{ known.family }}</span>
      </h3>
      @if (code(); as node) {
        <brelvin-code-field [node]="node.id" [code]="node.code" />
      }
      <p>{{ known.help }}</p>
      @for (inlet of known.inlets; track inlet.name) {
        @if (inlet.help) {
          <p class="hint">
            <strong>{{ inlet.label }}</strong> {{ inlet.help }}
          </p>
        }
      }
      @for (feature of known.features ?? []; track feature.name) {
        <p class="hint">
          <strong>{{ feature.label }}</strong> {{ feature.help }}
        </p>
      }
      <p class="hint">Formula: {{ known.source }}</p>
    } @else if (problems().length === 0 && editor.group() === undefined) {
      <h3 class="about-title">{{ editor.subject().name }}</h3>
      <dl class="about-material">
        @for (line of summary(); track line.label) {
          <dt>{{ line.label }}</dt>
          <dd>{{ line.words }}</dd>
        }
      </dl>
      @if (editor.subject().code) {
        <p class="hint">Point at a name in the code to read what it means. Press <kbd>?</kbd> for the keys.</p>
      } @else {
        <p class="hint">Select a node to read what it does. Press <kbd>?</kbd> for the keys.</p>
      }
    }
  `,
})
export class AboutPanel {
  protected readonly places = inject(BenchPlaces);
  private readonly result = inject(BenchResult);
  protected readonly problems = this.result.problems;
  protected readonly editor = inject(GraphEditor);
  private readonly view = inject(GraphView);
  protected readonly summary = computed(() => summaryOf(this.editor.subject(), this.result.rates()));
  protected readonly kind = computed(() => {
    const [id] = this.view.selection();
    return id === undefined ? undefined : this.editor.typed().kind(id);
  });
  /** The chosen node, where code is typed into it. */
  protected readonly code = computed(() => {
    const [id] = this.view.selection();
    const node = id === undefined ? undefined : this.editor.typed().graph.nodes[id];
    return node?.kind === CODE_KIND && id !== undefined ? { id, code: node.code } : undefined;
  });
}

export const ABOUT_TAB: PanelEntry = {
  id: 'about',
  // How much there is to mend.
  tab: () => {
    const { problems } = inject(BenchResult);
    return () => (problems().length > 0 ? { words: `problems ${problems().length}` } : {});
  },
  view: AboutPanel,
};
