import { type Graph, type GraphNode, type InletValue, type MaterialImage, type Material, LONGEST_NAME } from '@brelvin/contract';
import { DOCK, inletKey } from '../document/graph';
import { newMaterial } from '../document/new-documents';
import type { ImportedMap, ImportedMaterial } from './imported-scene';

const [COLUMN, ROW] = [240, 236];

/** An image of the workspace that stands for one of the file's. */
export type TakenImage = Pick<MaterialImage, 'name' | 'asset' | 'width' | 'height'>;

/**
 * A material of a file as an editable one: a physical surface with its numbers, its images, and the features that its
 * extensions ask for.
 *
 * @param images by their number in the scene; one that could not be had is left out
 */
export function materialFromImport(
  source: ImportedMaterial,
  images: ReadonlyMap<number, TakenImage>,
  seenIn: Material['seenIn'],
): Material {
  const builder = new GraphBuilder(images);
  if (source.unlit) builder.unlit(source);
  else builder.physical(source);
  builder.opacity(source);
  const base = newMaterial(source.name.trim().slice(0, LONGEST_NAME) || 'Material', seenIn);
  return { ...base, surface: builder.graph(), images: builder.used, ...(source.alpha === 'cut' ? { opacity: 'cut' as const } : {}) };
}

type MapName = keyof ImportedMaterial['maps'];

const ROLES: Readonly<Record<MapName, MaterialImage['role']>> = {
  baseColour: 'colour',
  emission: 'colour',
  specularColour: 'colour',
  metallicRoughness: 'data',
  normal: 'data',
  occlusion: 'data',
  transmission: 'data',
};
const NAMES: Readonly<Record<MapName, string>> = {
  baseColour: 'Colour',
  emission: 'Emission',
  specularColour: 'Highlight colour',
  metallicRoughness: 'Roughness in green, metallic in blue',
  normal: 'Normal',
  occlusion: 'Occlusion',
  transmission: 'Transmission',
};

class GraphBuilder {
  readonly used: Record<string, MaterialImage> = {};
  private readonly nodes: Record<string, GraphNode> = {};
  private readonly ribbons: Record<string, { from: string; outlet: string }> = {};
  private rows = 0;
  private readonly images: ReadonlyMap<number, TakenImage>;

  constructor(images: ReadonlyMap<number, TakenImage>) {
    this.images = images;
  }

  graph(): Graph {
    return { nodes: this.nodes, ribbons: this.ribbons, areas: {}, notes: {} };
  }

  physical(source: ImportedMaterial): void {
    const features = new Set(Object.keys(source.features));
    const values: Record<string, InletValue> = Object.assign({}, ...Object.values(source.features)) as Record<string, InletValue>;
    Object.assign(values, { baseColour: source.baseColour, metallic: source.metallic, roughness: source.roughness });
    if (source.emission.some((each) => each > 0)) {
      features.add('hasEmission');
      Object.assign(values, { emission: source.emission, emissionStrength: source.emissionStrength });
    }
    this.node('surface', 'physicalSurface', 3, values, 0, { features: [...features] });
    this.run('surface.result', DOCK, 'colour');
    this.tinted(source, 'baseColour', source.baseColour, 'surface', 'baseColour');
    const rough = this.map(source, 'metallicRoughness');
    if (rough) {
      this.scaled(`${rough}.green`, source.roughness, 'surface', 'roughness');
      this.scaled(`${rough}.blue`, source.metallic, 'surface', 'metallic');
    }
    const normal = this.map(source, 'normal');
    if (normal) {
      const strength: GraphNode['values'] =
        source.normalScale === 1 ? {} : { strengthX: source.normalScale, strengthY: source.normalScale };
      this.node('bumps', 'normalFromMap', 1, strength, this.rows - 1);
      this.run(`${normal}.colour`, 'bumps', 'map');
      this.run('bumps.result', 'surface', 'normal');
    }
    const occlusion = this.map(source, 'occlusion');
    if (occlusion) {
      this.node('open', 'occlusionStrength', 1, { strength: source.occlusionStrength }, this.rows - 1);
      this.run(`${occlusion}.red`, 'open', 'map');
      this.run('open.result', 'surface', 'occlusion');
    }
    if (features.has('hasEmission')) this.tinted(source, 'emission', source.emission, 'surface', 'emission');
    if (features.has('hasSpecular')) this.tinted(source, 'specularColour', asColour(values['specularColour']), 'surface', 'specularColour');
    const transmission = features.has('hasTransmission') ? this.map(source, 'transmission') : undefined;
    if (transmission) this.scaled(`${transmission}.red`, asNumber(values['transmission']), 'surface', 'transmission');
  }

  /** A colour that no light changes: the dock takes what is no light as the surface's own. */
  unlit(source: ImportedMaterial): void {
    this.node('plain', 'colour', 2, { value: source.baseColour }, 0);
    this.run('plain.result', DOCK, 'colour');
    this.tinted(source, 'baseColour', source.baseColour, DOCK, 'colour');
  }

  opacity(source: ImportedMaterial): void {
    if (source.alpha === 'opaque') return;
    const map = this.map(source, 'baseColour');
    if (!map) {
      this.node('there', 'multiply', 2, { a: source.opacity, b: 1 }, this.rows++);
      this.run('there.result', DOCK, 'opacity');
      return;
    }
    // What is cut away is what lies below one half; another limit is moved there.
    const factor = source.alpha === 'cut' ? (source.opacity * 0.5) / Math.max(source.cutoff, 1e-3) : source.opacity;
    this.scaled(`${map}.alpha`, factor, DOCK, 'opacity');
  }

  /** A map times a colour; only the map where the colour is white. */
  private tinted(source: ImportedMaterial, name: MapName, by: readonly number[], to: string, inlet: string): void {
    const map = this.map(source, name);
    if (!map) return;
    const plain = by.every((each) => each === 1);
    if (plain || this.factor(to, inlet, by)) return this.run(`${map}.colour`, to, inlet);
    const id = `${name}Tint`;
    this.node(id, 'multiply', 1, { b: by }, this.rows - 1);
    this.run(`${map}.colour`, id, 'a');
    this.run(`${id}.result`, to, inlet);
  }

  private scaled(from: string, by: number, to: string, inlet: string): void {
    if (by === 1 || this.factor(to, inlet, by)) return this.run(from, to, inlet);
    const id = `${inlet}Scale`;
    this.node(id, 'multiply', 1, { b: by }, this.rows - 0.5);
    this.run(from, id, 'a');
    this.run(`${id}.result`, to, inlet);
  }

  /** Keeps a number of the surface as the factor of its map, as the standard has it; the dock has none. */
  private factor(to: string, inlet: string, by: InletValue): boolean {
    const node = this.nodes[to];
    if (node) this.nodes[to] = { ...node, factors: { ...node.factors, [inlet]: by } };
    return node !== undefined;
  }

  /** The node that shows a map, made when it is first wanted; nothing where its image could not be had. */
  private map(source: ImportedMaterial, name: MapName): string | undefined {
    const wanted = source.maps[name];
    const taken = wanted && this.images.get(wanted.image);
    if (!wanted || !taken) return undefined;
    const id = `${name}Map`;
    if (this.nodes[id]) return id;
    this.used[name] = imageOf(taken, wanted, ROLES[name]);
    this.node(id, 'image', 0, placing(wanted), this.rows++, { name: NAMES[name], image: name });
    return id;
  }

  private node(id: string, kind: string, column: number, values: GraphNode['values'], row: number, own: Partial<GraphNode> = {}): void {
    const { features, ...rest } = own;
    this.nodes[id] = {
      kind,
      rev: 1,
      x: 60 + column * COLUMN,
      y: Math.round(60 + row * ROW),
      values,
      ...rest,
      ...(features && features.length > 0 ? { features } : {}),
    };
  }

  private run(from: string, to: string, inlet: string): void {
    const [node = '', outlet = ''] = from.split('.');
    this.ribbons[inletKey(to, inlet)] = { from: node, outlet };
  }
}

function imageOf(taken: TakenImage, { uvSet, wrapX, wrapY, filter }: ImportedMap, role: MaterialImage['role']): MaterialImage {
  return { ...taken, role, wrapX, wrapY, filter, uvSet };
}

/** KHR_texture_transform turns about the top left corner after scaling; ours turns about the middle before it. */
function placing({ offset, scale, rotation }: ImportedMap): GraphNode['values'] {
  const plain = offset[0] === 0 && offset[1] === 0 && scale[0] === 1 && scale[1] === 1 && rotation === 0;
  if (plain) return {};
  const [c, s] = [Math.cos(rotation), Math.sin(rotation)];
  // Where the middle of the picture comes to lie by the one and by the other.
  const [x, y] = [0.5 * scale[0], 0.5 * scale[1]];
  const middle = [c * x + s * y + offset[0], -s * x + c * y + offset[1]];
  const own = [0.5 * scale[0], 0.5 * scale[1]];
  return {
    repeat: [...scale],
    offset: [(middle[0] ?? 0) - (own[0] ?? 0), (middle[1] ?? 0) - (own[1] ?? 0)],
    ...(rotation === 0 ? {} : { turn: -rotation }),
  };
}

const asNumber = (value: InletValue | undefined): number => (typeof value === 'number' ? value : (value?.[0] ?? 1));
const asColour = (value: InletValue | undefined): readonly number[] => (typeof value === 'object' ? value : [1, 1, 1]);
