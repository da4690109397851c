import { ChangeDetectionStrategy, Component, input, ViewEncapsulation } from '@angular/core';
import { Port } from './port';
import { dockY } from '../editors/dock-layout';
import type { EdgePlace } from './dock-places';

/** The edge of a graph: the Stage's dock, or where ribbons enter and leave a group. It stays put while the graph pans. */
@Component({
  selector: 'brelvin-edge-strip',
  imports: [Port],
  changeDetection: ChangeDetectionStrategy.OnPush,
  encapsulation: ViewEncapsulation.None,
  styleUrl: './edge-strip.css',
  host: {
    role: 'group',
    '[class]': "side() === 'dock' ? 'dock' : 'dock entry'",
    '[attr.aria-label]': "side() === 'dock' ? 'Dock' : 'Entry'",
  },
  template: `
    @for (place of places(); track place.name; let index = $index) {
      <div class="dock-place" [style.top.px]="y(index)" [title]="place.help">
        <button
          brelvin-port
          [side]="place.side"
          [node]="place.node"
          [name]="place.name"
          [label]="place.label"
          [type]="place.type"
          [connected]="place.connected"
          [help]="place.help"
        ></button>
        <span class="dock-label">{{ place.label }}</span>
      </div>
    }
  `,
})
export class EdgeStrip {
  readonly places = input.required<readonly EdgePlace[]>();
  readonly side = input.required<'dock' | 'entry'>();
  protected readonly y = dockY;
}
