import { ChangeDetectionStrategy, Component, computed, DestroyRef, inject, ViewEncapsulation } from '@angular/core';
import { titleOfNode } from '@brelvin/core';
import { BenchContext } from '../editors/bench-context';
import { GraphEditor } from '../editors/graph-editor';
import { BenchPlaces } from '../layout/bench-places';
import { outletKey } from '../stage/outlet-lens';
import { OutletInspector } from './outlet-inspector';
import { Probes } from './probes';
import { numberWords, valueWords } from './value-words';

/** The values of all nodes at the points that are probed, side by side. */
@Component({
  selector: 'brelvin-probe-panel',
  changeDetection: ChangeDetectionStrategy.OnPush,
  encapsulation: ViewEncapsulation.None,
  styleUrl: './probe-panel.css',
  host: { class: 'panel-body' },
  template: `
    @if (outlets.refusal() ?? probes.refusal(); as words) {
      <p class="hint" role="status">{{ words }}</p>
    }
    @if (probes.points().length === 0) {
      <p class="hint">
        Move over the picture to read the values of all nodes there; those for which the graph has no room stand here only. Press to keep up
        to three points and compare them.
      </p>
    } @else {
      <table class="probe-table">
        <thead>
          <tr>
            <th scope="col">node</th>
            @for (point of probes.points(); track point.number) {
              <th scope="col" [title]="placeWords(point.position)">
                @if (point.number > 0) {
                  <span class="pin-number">{{ point.number }}</span>
                  {{ point.hidden ? 'hidden' : '' }}
                  <button
                    type="button"
                    class="text-button"
                    [attr.aria-label]="'Take pin ' + point.number + ' away'"
                    (click)="probes.remove(point.number)"
                  >
                    take away
                  </button>
                } @else {
                  pointer
                }
              </th>
            }
          </tr>
        </thead>
        <tbody>
          @for (row of rows(); track row.key) {
            <tr>
              <th scope="row">
                <button type="button" class="text-button" (click)="places.showNode(row.path)">{{ row.title }}</button>
              </th>
              @for (words of row.values; track $index) {
                <td>{{ words }}</td>
              }
            </tr>
          }
        </tbody>
      </table>
    }
  `,
})
export class ProbePanel {
  protected readonly places = inject(BenchPlaces);
  protected readonly outlets = inject(OutletInspector);
  protected readonly probes = inject(Probes);
  private readonly editor = inject(GraphEditor);
  private readonly context = inject(BenchContext);

  protected readonly rows = computed(() => {
    const typed = this.editor.typed();
    const points = this.probes.points();
    return Object.entries(typed.graph.nodes).flatMap(([id, node]) => {
      const kind = typed.kind(id);
      const title = titleOfNode(this.context.catalogue, typed.material, node);
      return (kind?.outlets ?? []).flatMap((outlet) => {
        const key = outletKey(this.outlets.addressOf({ node: id, outlet: outlet.name }));
        if (!points.some(({ values }) => values.has(key))) return [];
        const type = typed.outletType({ node: id, outlet: outlet.name }) ?? 'vec4';
        const values = points.map((point) => {
          const value = point.values.get(key);
          return value ? valueWords(value, type) : '';
        });
        return [{ key, path: typed.pathOf(id), title: (kind?.outlets.length ?? 0) > 1 ? `${title}: ${outlet.label}` : title, values }];
      });
    });
  });

  constructor() {
    // Values are read as long as they are shown.
    this.outlets.probing.set(true);
    inject(DestroyRef).onDestroy(() => {
      this.outlets.probing.set(false);
      this.probes.clear();
    });
  }

  protected placeWords(position: readonly number[]): string {
    return `At ${position.map(numberWords).join(', ')} metres`;
  }
}
