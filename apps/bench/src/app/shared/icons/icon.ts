import { ChangeDetectionStrategy, Component, computed, input, ViewEncapsulation } from '@angular/core';

/** Our own drawings, 16 × 16, plain strokes. */
const PATHS = {
  undo: 'M6 3 2.5 6.5 6 10M2.5 6.5h7a4 4 0 0 1 0 8H6',
  redo: 'm10 3 3.5 3.5L10 10M13.5 6.5h-7a4 4 0 0 0 0 8H10',
  plus: 'M8 2.5v11M2.5 8h11',
  more: 'M3 8h.01M8 8h.01M13 8h.01',
  download: 'M8 2v8.5M4.5 7 8 10.5 11.5 7M2.5 13.5h11',
  trash: 'M2.5 4h11M6 4V2.5h4V4M4 4l.7 9.5h6.6L12 4M6.8 6.5v4.5M9.2 6.5v4.5',
  copy: 'M5.5 5.5h8v8h-8zM10.5 5.5v-3h-8v8h3',
  warning: 'M8 2 14.5 13.5h-13zM8 6.5v3.5M8 11.8v.01',
  search: 'M7 2.5a4.5 4.5 0 1 1 0 9 4.5 4.5 0 0 1 0-9ZM10.3 10.3l3.7 3.7',
  eye: 'M1.500 8c3-4.800 10-4.800 13 0-3 4.800-10 4.800-13 0ZM8 6.200a1.800 1.800 0 1 1 0 3.600 1.800 1.800 0 0 1 0-3.600Z',
  play: 'M4.5 2.5v11l9-5.5z',
  pause: 'M5 3v10M11 3v10',
  close: 'm3.5 3.5 9 9M12.5 3.5l-9 9',
  down: 'm4 6 4 4 4-4',
  sphere: 'M8 2a6 6 0 1 1 0 12A6 6 0 0 1 8 2ZM2 8c2 2.4 10 2.4 12 0M8 2c-2.6 3-2.6 9 0 12',
  cube: 'M8 1.8 13.5 5v6L8 14.2 2.5 11V5zM2.5 5 8 8.2 13.5 5M8 8.2v6',
  plane: 'M2 4.5 9 2l5 9.5-7 2.5zM5.5 3.3l5 9.5M4.3 9.2l7-2.5',
  geodesic: 'M8 1.8 13.600 5v6L8 14.200 2.400 11V5zM2.400 5h11.200L8 14.200zM8 1.800 2.400 11h11.200z',
  roundedBox:
    'M5 2.500h6a2.500 2.500 0 0 1 2.500 2.500v6a2.500 2.500 0 0 1-2.500 2.500H5A2.500 2.500 0 0 1 2.500 11V5A2.500 2.500 0 0 1 5 2.500Z',
  sheet: 'M2.500 4c3-2.500 5 2 11-.5v9c-6 2.500-8-2-11 .5z',
  cylinder: 'M3 4c0-2.400 10-2.400 10 0v8c0 2.400-10 2.400-10 0zM3 4c0 2.400 10 2.400 10 0',
  cone: 'M8 2 13 12c0 2.400-10 2.400-10 0z',
  capsule: 'M4.500 5.500a3.500 3.500 0 0 1 7 0v5a3.500 3.500 0 0 1-7 0z',
  torus:
    'M8 4c3.300 0 6 1.800 6 4s-2.700 4-6 4-6-1.800-6-4 2.700-4 6-4ZM8 7c1.400 0 2.500.5 2.500 1.100S9.400 9.200 8 9.200s-2.500-.5-2.500-1.100S6.600 7 8 7Z',
  lamp: 'M6.500 2h3c0 2 2 3 2 5h-7c0-2 2-3 2-5zM5 7h6v1.500c1 .5 1.500 3 0 4H5c-1.500-1-1-3.500 0-4z',
  oilFiller: 'M4 2h8L9 6.500c3.500 1 4 3 3 7H4c-1-4-.5-6 3-7z',
  jar: 'M5.500 2h5M6 2v2c-3 1-4 3-4 5 0 2.500 1.500 4 2 5h8c.5-1 2-2.500 2-5 0-2-1-4-4-5V2M2.500 8h11',
  puppetHead: 'M8 2c3.500 0 5 2.500 4.500 6-.3 3-2 5.500-4.500 5.500S3.800 11 3.500 8C3 4.500 4.500 2 8 2ZM6 8h.01M10 8h.01M7 11h2',
  room: 'M2 2.500h12v11H2zM5 5.500h6v5H5zM2 2.500l3 3M14 2.500l-3 3M2 13.500l3-3M14 13.500l-3-3',
  height: 'M1.500 11c2.500-8 5 3 7.500-3s3.500-3 5.500 0M1.500 14h13',
  field:
    'M8 1.500c3.600 0 6 2.600 6 6.300S11.600 14.500 8 14.500 2 11.500 2 7.800 4.400 1.500 8 1.500ZM8 5c1.600 0 2.600 1.200 2.600 3S9.600 11 8 11 5.400 9.800 5.400 8 6.400 5 8 5Z',
  surface: 'M2 5c4-3 8 2 12-1v8c-4 3-8-2-12 1zM8 4.200v7.600',
  imported: 'M3 1.500h6.500L13 5v9.500H3zM9.500 1.500V5H13M8 7l3 1.700v3L8 13.500l-3-1.800v-3zM5 8.700l3 1.600 3-1.600M8 10.300v3',
  torusKnot: 'M8 4.5c3-3 6.5 0 4.5 3S6 12.500 5 9.500s5-4 6.500-.5-3 5.500-5.500 3.500S5 4.500 8 4.500Z',
  frame: 'M2.500 5.500v-3h3M10.500 2.500h3v3M13.500 10.500v3h-3M5.500 13.500h-3v-3',
} as const;

export type IconName = keyof typeof PATHS;

@Component({
  selector: 'brelvin-icon',
  changeDetection: ChangeDetectionStrategy.OnPush,
  encapsulation: ViewEncapsulation.None,
  styleUrl: './icon.css',
  host: { 'aria-hidden': 'true', class: 'icon' },
  template: `<svg
    viewBox="0 0 16 16"
    width="16"
    height="16"
    fill="none"
    stroke="currentColor"
    stroke-width="1.4"
    stroke-linecap="round"
    stroke-linejoin="round"
  >
    <path [attr.d]="path()" />
  </svg>`,
})
export class Icon {
  readonly name = input.required<IconName>();
  protected readonly path = computed(() => PATHS[this.name()]);
}
