import { ChangeDetectionStrategy, Component, computed, inject, input, ViewEncapsulation } from '@angular/core';
import { mapSetWords, meaningsOf, packingOf, PACKINGS, type HeightUse, type MapSurface, type PackingId } from '@brelvin/core';
import { AssetApi } from '../../shared/api/asset-api';
import { Choices, type Choice } from '../../shared/controls/choices';
import { Icon } from '../../shared/icons/icon';
import { MapSetEditor, type MapProposal, type MapRow } from './map-set-editor';

const SURFACES: readonly Choice<MapSurface>[] = [
  { value: 'physicalSurface', words: 'physical', help: 'Metals and all else by metallic and roughness' },
  { value: 'blinnPhong', words: 'Blinn-Phong', help: 'The older way: a highlight with a colour and an exponent' },
];
const DISPLACEMENT: Choice<HeightUse> = {
  value: 'displacement',
  words: 'moves',
  help: 'Moves the vertices; the mesh needs enough of them',
};
const NORMALS: Choice<HeightUse> = { value: 'normals', words: 'bends normals', help: 'Only light sees the relief; costs no vertices' };
const NOTHING: Choice<HeightUse> = { value: 'nothing', words: 'not used' };

/** A set of maps to be looked over before it is laid on. */
@Component({
  selector: 'brelvin-map-set-panel',
  imports: [Choices, Icon],
  changeDetection: ChangeDetectionStrategy.OnPush,
  encapsulation: ViewEncapsulation.None,
  styleUrl: './map-set-panel.css',
  host: { class: 'map-set', role: 'region', 'aria-label': 'Set of maps' },
  templateUrl: './map-set-panel.html',
})
export class MapSetPanel {
  readonly proposal = input.required<MapProposal>();

  private readonly api = inject(AssetApi);
  protected readonly editor = inject(MapSetEditor);
  protected readonly surfaces = SURFACES;
  protected readonly packings = Object.entries(PACKINGS).map(([id, { label }]) => ({ id: id as PackingId, label }));
  protected readonly used = computed(() => this.proposal().rows.filter(({ packing }) => packing).length);
  protected readonly words = computed(() => mapSetWords(this.proposal().rows, this.proposal().surface));
  protected readonly hasHeight = computed(() => this.has('height'));
  /** Normals of a normal map are finer than those of a height. */
  protected readonly heights = computed(() => [DISPLACEMENT, ...(this.has('normal') ? [] : [NORMALS]), NOTHING]);

  private has(meaning: 'height' | 'normal'): boolean {
    return this.proposal().rows.some(({ packing }) => packing && meaningsOf(packing).includes(meaning));
  }

  protected choose(index: number, packing: string): void {
    this.editor.setPacking(index, packing === '' ? undefined : (packing as PackingId));
  }

  protected helpOf({ packing }: MapRow): string {
    return packing ? packingOf(packing).help : 'This image is not used.';
  }

  protected url(asset: string): string {
    return this.api.url(asset);
  }
}
