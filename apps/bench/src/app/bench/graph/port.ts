import { ChangeDetectionStrategy, Component, computed, input, ViewEncapsulation } from '@angular/core';
import type { RibbonType } from '@brelvin/contract';
import { threadCount } from '@brelvin/core';

/** A place to connect: as many dots as its ribbon has threads. */
@Component({
  selector: 'button[brelvin-port]',
  changeDetection: ChangeDetectionStrategy.OnPush,
  encapsulation: ViewEncapsulation.None,
  styleUrl: './port.css',
  host: {
    type: 'button',
    class: 'port',
    '[class.port-light]': "type() === 'light'",
    '[class.port-connected]': 'connected()',
    '[attr.data-node]': 'node()',
    '[attr.data-inlet]': "side() === 'inlet' ? name() : null",
    '[attr.data-outlet]': "side() === 'outlet' ? name() : null",
    '[attr.aria-label]': 'spoken()',
    '[title]': 'spoken()',
  },
  template: `@for (dot of dots(); track $index) {
    <span class="port-dot"></span>
  }`,
})
export class Port {
  readonly node = input.required<string>();
  readonly name = input.required<string>();
  readonly side = input.required<'inlet' | 'outlet'>();
  readonly type = input.required<RibbonType>();
  readonly label = input.required<string>();
  readonly connected = input(false);
  readonly help = input('');

  protected readonly dots = computed(() => Array.from({ length: threadCount(this.type()) }));
  protected readonly spoken = computed(() => {
    const words = {
      number: 'number',
      vec2: 'two numbers',
      vec3: 'vector',
      vec4: 'four numbers',
      colour: 'colour',
      light: 'light',
      field: 'field',
      stops: 'stops',
      image: 'image',
      cubeImage: 'cube image',
    }[this.type()];
    const state = this.connected() ? ', connected' : '';
    return `${this.side() === 'inlet' ? 'Inlet' : 'Outlet'} ${this.label()}, ${words}${state}${this.help() ? `. ${this.help()}` : ''}`;
  });
}
