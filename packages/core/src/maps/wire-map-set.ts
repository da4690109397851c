import type { GraphNode, Material, Change } from '@brelvin/contract';
import type { Edit } from '../document/edit';
import { DOCK, inletKey, type InletAddress, type OutletAddress } from '../document/graph';
import { GraphEdits } from '../document/graph-edits';
import { newMaterial } from '../document/new-documents';
import type { MapSurface } from './map-set';
import { packingOf, type MapMeaning, type PackingId } from './packings';

/** What becomes of a height map. Its normals are only taken where there is no normal map, which tells them finer. */
export const HEIGHT_USES = ['displacement', 'normals', 'nothing'] as const;
export type HeightUse = (typeof HEIGHT_USES)[number];

/** An image of the material and what it holds. */
export interface WiredMap {
  readonly image: string;
  readonly packing: PackingId;
}

export interface WiringPlan {
  readonly label: string;
  readonly surface: MapSurface;
  readonly height: HeightUse;
  readonly maps: readonly WiredMap[];
}

const [COLUMN, ROW] = [240, 248];
const MARGIN = 60;
/** Rows from one node between images and surface to the next: as high as the highest of them. */
const BETWEEN = 0.68;
/** Titles and help are read from left to right: images, what they are turned into, the surface. */
const COLUMNS = { transform: -COLUMN, images: 0, between: 2 * COLUMN, surface: 3 * COLUMN, after: 4 * COLUMN };

/**
 * Lays a set of maps on a surface, as one step. The surface at the dock is used where it is of the wanted kind; otherwise a
 * new one takes its place there, and what was there before stays on the graph.
 */
export function wireMapSet(material: Material, { label, surface, height, maps }: WiringPlan, newId: () => string): Edit {
  const wiring = new Wiring(material, surface, newId, maps.length > 1);
  const hasNormals = maps.some(({ packing }) => packing === 'normal' || packing === 'normalDown');
  for (const map of maps) wiring.map(map, hasNormals && height === 'normals' ? 'nothing' : height);
  return { label, changes: wiring.finish() };
}

class Wiring {
  private readonly edits = new GraphEdits();
  private readonly changes: Change[] = [];
  private readonly surface: string;
  private readonly features = new Set<string>();
  private readonly origin: { readonly x: number; readonly y: number };
  private images = 0;
  private betweens = 0;
  /** What the dock's colour shows in the end. */
  private shown: OutletAddress;
  private readonly fresh: boolean;
  /** The one place that repeats, shifts and turns all maps. */
  private readonly transform?: string;

  constructor(
    private readonly material: Material,
    private readonly kind: MapSurface,
    private readonly newId: () => string,
    several: boolean,
  ) {
    const { nodes, ribbons } = material.surface;
    this.fresh = isUntouched(material);
    const atDock = ribbons[inletKey(DOCK, 'colour')]?.from ?? '';
    const known = nodes[atDock]?.kind === kind ? atDock : undefined;
    const all = this.fresh ? [] : Object.values(nodes);
    this.origin = {
      x: Math.min(MARGIN, ...all.map(({ x }) => x)) + (several ? COLUMN : 0),
      y: Math.max(MARGIN, ...all.map(({ y }) => y + 2 * ROW)),
    };
    if (this.fresh) this.clear();
    this.surface = known ?? newId();
    this.shown = { node: this.surface, outlet: 'result' };
    for (const each of nodes[known ?? '']?.features ?? []) this.features.add(each);
    if (!known) this.put(this.surface, { kind, rev: 1, ...this.at('surface', 0), values: {} });
    if (several) {
      this.transform = newId();
      this.put(this.transform, { kind: 'uvTransform', rev: 1, ...this.at('transform', 0), values: {}, name: 'UV of all maps' });
    }
  }

  map({ image, packing }: WiredMap, height: HeightUse): void {
    const { label, feeds, greenDown } = packingOf(packing);
    const isHeight = feeds.every(({ meaning }) => meaning === 'height');
    if (isHeight && height === 'nothing') return;
    if (isHeight && height === 'normals') return this.run(this.between('normalFromHeightMap', this.placed('uv'), { image }), 'normal');
    // Two beside each other: a set of eight is still read at a glance.
    const index = this.images++;
    const place = { x: this.at('images', 0).x + (index % 2) * COLUMN, y: this.at('images', Math.floor(index / 2)).y };
    const node = this.newId();
    this.put(node, { kind: 'image', rev: 1, ...place, values: {}, name: label, image });
    for (const [inlet, from] of Object.entries(this.placed('uv'))) this.connect(from, { node, inlet });
    for (const { outlet, meaning } of feeds) this.feed(meaning, { node, outlet }, greenDown ?? false);
  }

  finish(): readonly Change[] {
    return [
      ...this.changes,
      this.edits.putFeatures(this.surface, [...this.features]),
      ...this.edits.connect(this.shown, { node: DOCK, inlet: 'colour' }).changes,
    ];
  }

  private feed(meaning: MapMeaning, from: OutletAddress, greenDown: boolean): void {
    const physical = this.kind === 'physicalSurface';
    switch (meaning) {
      case 'colour':
        return this.run(from, physical ? 'baseColour' : 'base');
      case 'specular':
        if (physical) this.features.add('hasSpecular');
        return this.run(from, physical ? 'specularColour' : 'specular');
      case 'roughness':
        return physical ? this.run(from, 'roughness') : this.run(this.exponent(this.inverted(from)), 'exponent');
      case 'gloss':
        return physical ? this.run(this.inverted(from), 'roughness') : this.run(this.exponent(from), 'exponent');
      case 'metallic':
        return physical ? this.run(from, 'metallic') : undefined;
      case 'normal':
        return this.run(this.normals(from, greenDown), 'normal');
      case 'height':
        return this.dock(this.between('displaceByHeight', { height: from }, { values: { scale: 0.05 } }), 'offset');
      case 'occlusion':
        return this.occlude(this.between('occlusionStrength', { map: from }), physical);
      case 'opacity':
        return this.dock(from, 'opacity');
      case 'emission':
        if (!physical) return this.dock(from, 'emission');
        this.features.add('hasEmission');
        return this.run(from, 'emission');
    }
  }

  /** What comes from the common place of all maps, by the inlet that takes it. */
  private placed(inlet: 'uv' | 'turn'): Readonly<Record<string, OutletAddress>> {
    return this.transform === undefined ? {} : { [inlet]: { node: this.transform, outlet: inlet } };
  }

  private normals(map: OutletAddress, greenDown: boolean): OutletAddress {
    const features = [...(greenDown ? ['greenDown'] : []), ...(this.transform === undefined ? [] : ['turned'])];
    return this.between('normalFromMap', { map, ...this.placed('turn') }, features.length > 0 ? { features } : {});
  }

  private inverted(from: OutletAddress): OutletAddress {
    return this.between('roughnessFromGloss', { gloss: from });
  }

  private exponent(gloss: OutletAddress): OutletAddress {
    return this.between('exponentFromGloss', { gloss });
  }

  /** Light from all around gets less where it is occluded; a surface of the older kind has no inlet for it. */
  private occlude(occlusion: OutletAddress, physical: boolean): void {
    if (physical) return this.run(occlusion, 'occlusion');
    const node = this.newId();
    this.put(node, { kind: 'occludeLight', rev: 1, ...this.at('after', 0), values: {} });
    this.connect(this.shown, { node, inlet: 'light' });
    this.connect(occlusion, { node, inlet: 'occlusion' });
    this.shown = { node, outlet: 'result' };
  }

  /** A node between an image and the surface. */
  private between(kind: string, inlets: Readonly<Record<string, OutletAddress>>, own: Partial<GraphNode> = {}): OutletAddress {
    const node = this.newId();
    this.put(node, { kind, rev: 1, ...this.at('between', this.betweens++ * BETWEEN), values: {}, ...own });
    for (const [inlet, from] of Object.entries(inlets)) this.connect(from, { node, inlet });
    return { node, outlet: 'result' };
  }

  private run(from: OutletAddress, inlet: string): void {
    this.connect(from, { node: this.surface, inlet });
  }

  private dock(from: OutletAddress, inlet: string): void {
    this.connect(from, { node: DOCK, inlet });
  }

  private connect(from: OutletAddress, to: InletAddress): void {
    this.changes.push(...this.edits.connect(from, to).changes);
  }

  private put(id: string, node: GraphNode): void {
    this.changes.push(this.edits.putNode(id, node));
  }

  private at(column: keyof typeof COLUMNS, row: number): { x: number; y: number } {
    return { x: Math.round(this.origin.x + COLUMNS[column]), y: Math.round(this.origin.y + row * ROW) };
  }

  private clear(): void {
    this.changes.push(...this.edits.remove(this.material, Object.keys(this.material.surface.nodes)).changes);
  }
}

/** Whether a material's graph is still the one that every new material has. */
function isUntouched({ surface }: Material): boolean {
  const { nodes, ribbons } = newMaterial('').surface;
  const kinds = (all: typeof nodes): string =>
    Object.entries(all)
      .map(([id, { kind }]) => `${id} ${kind}`)
      .sort()
      .join();
  return kinds(surface.nodes) === kinds(nodes) && Object.keys(surface.ribbons).sort().join() === Object.keys(ribbons).sort().join();
}
