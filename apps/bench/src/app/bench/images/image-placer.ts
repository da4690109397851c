import { inject, Injectable } from '@angular/core';
import { type MaterialImage, type AssetSummary } from '@brelvin/contract';
import {
  CUBE_IMAGE_KIND,
  facesByName,
  fittingOutlet,
  IMAGE_KIND,
  joinEdits,
  putImage,
  readMapName,
  roleOf,
  wrapsOf,
  setParameter,
  type InletAddress,
} from '@brelvin/core';
import { newId } from '../../shared/documents/new-id';
import { BenchContext } from '../editors/bench-context';
import type { Point } from '../editors/card-layout';
import { GraphView } from '../editors/graph-view';
import { GraphEditor } from '../editors/graph-editor';
import { ImageShelf } from '../../shared/images/image-shelf';

const STEP = 190;
/** Room for the node that reads a normal map. */
const READER_WIDTH = 240;

/** What shows an image: a node, or a parameter of a code material. */
export type ImageUser = { readonly node: string } | { readonly parameter: string };

/** Puts images into the material: dropped on the graph, on an inlet, or chosen on a node. */
@Injectable()
export class ImagePlacer {
  private readonly context = inject(BenchContext);
  private readonly shelf = inject(ImageShelf);
  private readonly view = inject(GraphView);
  private readonly editor = inject(GraphEditor);

  /** An image node for each file, side by side, or one for the six sides of a cube; the first one runs into an inlet when it was dropped there. */
  async drop(files: readonly File[], at: Point, into?: InletAddress): Promise<void> {
    if (facesByName(files.map(({ name }) => name))) {
      const cube = await this.takeCube(files);
      if (cube) this.place(cube, at, into);
      return;
    }
    for (const [index, file] of files.entries()) {
      const image = await this.take(file);
      if (image) this.place(image, { x: at.x, y: at.y + index * STEP }, index === 0 ? into : undefined);
    }
  }

  /** Gives a node or parameter an image from a file, or a cube image from six. */
  async fill(user: ImageUser, files: readonly File[], cube = files.length > 1): Promise<void> {
    const [file] = files;
    const image = cube ? await this.takeCube(files) : file && (await this.take(file));
    if (image) this.put(user, image);
  }

  /** Gives a node or parameter an image of the workspace. */
  async adopt(user: ImageUser, { sha256, name, width, height }: AssetSummary): Promise<void> {
    const own = name.replace(/\.[^.]+$/, '');
    // What its pixels say counts for images whose names say nothing; without them the name alone does.
    const facts = await this.shelf.factsOf(sha256).catch(() => undefined);
    this.put(user, {
      name: own,
      asset: sha256,
      width,
      height,
      role: roleOf(name, facts),
      ...wrapsOf(facts?.seams),
      filter: 'smooth',
      uvSet: 0,
    });
  }

  private async take(file: File): Promise<MaterialImage | undefined> {
    try {
      return await this.shelf.take(file);
    } catch (error) {
      this.editor.refuse(error instanceof Error ? error.message : String(error));
      return undefined;
    }
  }

  private async takeCube(files: readonly File[]): Promise<MaterialImage | undefined> {
    try {
      return await this.shelf.takeCube(files);
    } catch (error) {
      this.editor.refuse(error instanceof Error ? error.message : String(error));
      return undefined;
    }
  }

  private put(user: ImageUser, image: MaterialImage): void {
    const { id, changes } = this.imageOf(image);
    const chosen = 'node' in user ? this.editor.typed().edits.setImage(user.node, id) : setParameter(user.parameter, 'image', id);
    this.editor.change({ label: 'Choose an image', changes: [...changes, ...chosen.changes] });
  }

  private place(image: MaterialImage, at: Point, into?: InletAddress): void {
    if (into && !image.faces && this.takesNormals(into)) this.placeNormals(image, at, into);
    else this.placeNode(image.faces ? CUBE_IMAGE_KIND : IMAGE_KIND, image, at, into);
  }

  private takesNormals({ node, inlet }: InletAddress): boolean {
    const kind = this.context.kind(this.editor.typed().graph.nodes[node]?.kind ?? '');
    return kind?.inlets.find(({ name }) => name === inlet)?.meaning === 'normal';
  }

  /** Into a normal goes what a normal map says, or the slopes of a height; what is neither stands beside it, and that is said. */
  private placeNormals(image: MaterialImage, at: Point, into: InletAddress): void {
    const facts = this.shelf.facts().get(image.asset);
    const named = readMapName(image.name)?.packing;
    const isNormals = facts?.normals !== undefined || named === 'normal' || named === 'normalDown';
    if (isNormals) this.placeNormalMap({ ...image, role: 'data' }, at, into, facts?.normals?.green === 'down' || named === 'normalDown');
    else if (facts?.grey || named === 'height') this.placeNode('normalFromHeightMap', { ...image, role: 'data' }, at, into);
    else {
      this.placeNode(IMAGE_KIND, image, at);
      this.editor.refuse(
        `“${image.name}” looks neither like a normal map nor like a height, so it stands beside the inlet. If it is one, run it in through Normal from map.`,
      );
    }
  }

  private placeNormalMap(image: MaterialImage, at: Point, into: InletAddress, greenDown: boolean): void {
    const [map, reader] = [this.context.kind(IMAGE_KIND), this.context.kind('normalFromMap')];
    if (!map || !reader) return;
    const { edits } = this.editor.typed();
    const { id, changes } = this.imageOf(image);
    const [node, between] = [newId(), newId()];
    const place = (x: number): { x: number; y: number } => ({ x: Math.round(x), y: Math.round(at.y) });
    const features = greenDown ? { features: ['greenDown'] } : {};
    this.editor.change(
      joinEdits(
        `Add normal map ${image.name}`,
        { label: '', changes },
        edits.addNode(node, { kind: map.id, rev: map.rev, ...place(at.x - READER_WIDTH), values: {}, image: id }, map.title),
        edits.addNode(between, { kind: reader.id, rev: reader.rev, ...place(at.x), values: {}, ...features }, reader.title),
        edits.connect({ node, outlet: 'colour' }, { node: between, inlet: 'map' }),
        edits.connect({ node: between, outlet: 'result' }, into),
      ),
    );
    this.view.select([node, between]);
  }

  private placeNode(kindId: string, image: MaterialImage, at: Point, into?: InletAddress): void {
    const kind = this.context.kind(kindId);
    if (!kind) return;
    const typed = this.editor.typed();
    const { id, changes } = this.imageOf(image);
    const node = newId();
    const wanted = into && typed.inletType(into);
    const outlet = wanted && fittingOutlet(kind, wanted);
    const edits = [
      { label: '', changes },
      typed.edits.addNode(
        node,
        { kind: kind.id, rev: kind.rev, x: Math.round(at.x), y: Math.round(at.y), values: {}, image: id },
        kind.title,
      ),
      ...(into && outlet ? [typed.edits.connect({ node, outlet: outlet.name }, into)] : []),
    ];
    this.editor.change(joinEdits(`Add image ${image.name}`, ...edits));
    this.view.select([node]);
  }

  /** The material's image of the same file, or a new one. */
  private imageOf(image: MaterialImage): { id: string; changes: ReturnType<typeof putImage>[] } {
    const known = Object.entries(this.editor.material().images).find(
      ([, each]) => each.asset === image.asset && each.role === image.role && each.faces?.join() === image.faces?.join(),
    );
    if (known) return { id: known[0], changes: [] };
    const id = newId();
    return { id, changes: [putImage(id, image)] };
  }
}
