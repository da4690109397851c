import { computed, effect, inject, Injectable, signal, untracked } from '@angular/core';
import type { GraphNode, LiveInput, Material, NodeGroup } from '@brelvin/contract';
import {
  type Catalogue,
  clip,
  duplicate,
  EACH_LIGHT_GROUP,
  fieldGraph,
  ForeignClipping,
  freeParameterName,
  GROUP_KIND,
  groupKind,
  joinEdits,
  makeGroup,
  mayContain,
  newMaterial,
  PARAMETER_KIND,
  addParameter,
  parseClipping,
  paste,
  promote,
  putGroup,
  removeHealed,
  resolveGraph,
  sameStructure,
  setParameter,
  STILL_LIVE_INPUT,
  swapKind,
  TypedGraph,
  unmakeGroup,
  unusedNodes,
  type Edit,
  type InletAddress,
  type MaterialSource,
  type NodeKind,
  type ResolvedGraph,
} from '@brelvin/core';
import { Subject } from 'rxjs';
import { newId } from '../../shared/documents/new-id';
import { BenchContext } from './bench-context';
import { DocumentStore } from '../documents/document-store';
import { OpenFields } from '../documents/open-fields';
import { cardBox, cardHeight, cardWidth, NARROWEST_CARD, type Point } from './card-layout';
import { freePlace } from './free-place';
import { GraphView } from './graph-view';
import { placeGraph, type PlacedGraph } from './placed-graph';

/** A group that a node can stand for: one of the material's, or one that it is given with the node. */
export interface ReadyGroup {
  readonly group?: string;
  readonly definition?: NodeGroup;
  /** Of a plain node: what its inlets begin with. */
  readonly values?: GraphNode['values'];
}

/** A group that was entered, through one of the nodes that stand for it. */
interface Entered {
  readonly node: string;
  readonly group: string;
}

const NO_MATERIAL = newMaterial('');
/** What of a field a graph changes. */
const FIELD_PARTS: readonly string[] = ['surface', 'groups', 'parameters'];

export type Alignment = 'left' | 'right' | 'top' | 'bottom' | 'across' | 'down';

/** The graph that is worked on: which one of the material's, with its types, and all that hands do to it. */
@Injectable()
export class GraphEditor {
  private readonly context = inject(BenchContext);
  private readonly store = inject(DocumentStore);
  private readonly fields = inject(OpenFields);
  private readonly view = inject(GraphView);
  private readonly words = new Subject<string>();
  private lastResolved?: { readonly graph: ResolvedGraph; readonly catalogue: Catalogue };
  private lastPlaced?: PlacedGraph;

  /** The one on the Bench; an empty one until it is there. */
  readonly material = computed((): Material => this.store.material() ?? NO_MATERIAL);
  private readonly wantedField = signal<string | undefined>(undefined);
  /** The field whose graph is worked on in place of the material's, by its id. */
  readonly field = computed(() => {
    const id = this.wantedField();
    return this.fields.drawn(id) ? id : undefined;
  });
  /** What the graph is of: the material, or a field that stands in its set. */
  readonly subject = computed((): Material & Pick<MaterialSource, 'field'> => {
    const field = this.fields.drawn(this.field());
    return field ? { ...NO_MATERIAL, ...fieldGraph(field), name: field.name } : this.material();
  });
  private readonly subjectId = computed(() => this.field() ?? this.store.materialId() ?? '');
  private readonly entered = signal<readonly Entered[]>([]);
  /** What could not be done, in words. */
  readonly refusals = this.words.asObservable();

  /** The groups that were entered, outermost first; it ends where a group is gone. */
  readonly trail = computed(() => {
    const { groups } = this.subject();
    const gone = this.entered().findIndex((each) => !Object.hasOwn(groups, each.group));
    return (gone < 0 ? this.entered() : this.entered().slice(0, gone)).map((each) => ({ ...each, title: groups[each.group]?.title ?? '' }));
  });
  readonly group = computed(() => this.trail().at(-1)?.group);

  /** Changes only where types may: dragging a number resolves nothing. */
  private readonly structure = computed(() => this.subject(), { equal: sameStructure });
  readonly resolved = computed(() => {
    const { catalogue } = this.context;
    const before = this.lastResolved?.catalogue === catalogue ? this.lastResolved.graph : undefined;
    const graph = resolveGraph(this.structure(), catalogue, before);
    this.lastResolved = { graph, catalogue };
    return graph;
  });
  readonly typed = computed(() => {
    const path = this.trail()
      .map((each) => `${each.node}/`)
      .join('');
    return new TypedGraph(this.subject(), this.context.catalogue, this.resolved(), this.group(), path);
  });
  /** Where its cards and ribbons lie. */
  readonly placed = computed(() => (this.lastPlaced = placeGraph(this.typed(), this.lastPlaced)));
  readonly unused = computed(() => unusedNodes(this.typed()));

  constructor() {
    effect(() => {
      this.subjectId();
      untracked(() => this.view.enter(this.trailKey()));
    });
  }

  /** One step of what the graph is of. */
  do(edit: Edit | undefined, gesture?: string): void {
    const field = this.field();
    if (field === undefined) this.change(edit, gesture);
    else if (edit?.changes.some(({ path: [first] }) => !FIELD_PARTS.includes(first ?? '')))
      this.refuse('A field is a shape: it has no images and no variants.');
    else if (edit) this.fields.edit(field, edit, gesture);
  }

  /** One step of the material, whatever graph is seen. */
  change(edit: Edit | undefined, gesture?: string): void {
    if (edit && edit.changes.length > 0) this.store.edit('material', edit, gesture);
  }

  /** Shows the graph of a field, or that of the material again. */
  showGraphOf(field: string | undefined): void {
    if (field === this.wantedField()) return;
    this.wantedField.set(field);
    this.entered.set([]);
    this.view.select([]);
  }

  refuse(words: string): void {
    this.words.next(words);
  }

  /** Chosen nodes, areas and notes that are there. */
  chosen(): ReadonlySet<string> {
    const { nodes, areas, notes } = this.typed().graph;
    return new Set([...this.view.selection()].filter((id) => [nodes, areas, notes].some((each) => Object.hasOwn(each, id))));
  }

  selectAll(): void {
    const { nodes, areas, notes } = this.typed().graph;
    this.view.select([...Object.keys(nodes), ...Object.keys(areas), ...Object.keys(notes)]);
  }

  // Nodes

  /** A node of a kind at a place, with the parameter a parameter node needs. */
  addition(id: string, kind: NodeKind, at: Point, ready: ReadyGroup = {}): Edit {
    const group = ready.definition ? newId() : ready.group;
    const node: GraphNode = {
      kind: kind.id,
      rev: kind.rev,
      x: Math.round(at.x),
      y: Math.round(at.y),
      values: { ...ready.values },
      ...(group && { group }),
    };
    const { edits, material } = this.typed();
    if (ready.definition && group) {
      return joinEdits(`Add ${kind.title}`, putGroup(group, ready.definition), edits.addNode(id, node, kind.title));
    }
    if (kind.id !== PARAMETER_KIND) return edits.addNode(id, node, kind.title);
    const order = Object.keys(material.parameters).length;
    const name = freeParameterName(material, 'Parameter');
    return addParameter(newId(), { name, type: 'number', value: 0.5, low: 0, high: 1, order }, id, node, edits);
  }

  /** Groups that may stand here, as kinds: those of the material, and one to begin with. */
  groupsToUse(): (ReadyGroup & { readonly kind: NodeKind })[] {
    const { material, edits } = this.typed();
    const { catalogue } = this.context;
    const own = Object.entries(material.groups)
      .filter(([id]) => mayContain(material, edits, id))
      .map(([group, definition]) => ({ group, kind: groupKind(catalogue, definition) }));
    return [...own, { definition: EACH_LIGHT_GROUP, kind: groupKind(catalogue, EACH_LIGHT_GROUP) }];
  }

  remove(ids = this.chosen(), heal = true): void {
    const typed = this.typed();
    const edit = heal ? removeHealed(typed, ids) : typed.edits.remove(typed.material, ids);
    const [only] = ids.size === 1 ? ids : [];
    const title = only === undefined ? '' : typed.title(only);
    this.do(title ? { ...edit, label: `Delete ${title}` } : edit);
    this.view.select([]);
  }

  removeUnused(): void {
    if (this.unused().size === 0) this.refuse('Every node reaches the dock: nothing is unused.');
    else this.remove(this.unused(), false);
  }

  /** Shows small pictures on these nodes, or on all; hides them where all of these have one. */
  togglePreviews(ids?: ReadonlySet<string>): void {
    const { edits, graph } = this.typed();
    const nodes = Object.entries(graph.nodes).filter(([id]) => !ids || ids.has(id));
    const shown = nodes.some(([, node]) => !node.preview);
    const changed = nodes.filter(([, node]) => Boolean(node.preview) !== shown).map(([id]) => id);
    this.do(edits.setPreviews(changed, shown));
  }

  rename(id: string, name: string): void {
    this.do(this.typed().edits.nameNode(id, name.trim()));
  }

  swap(id: string, kind: NodeKind): void {
    this.do(swapKind(this.typed(), id, kind));
  }

  /** Makes a parameter of an inlet; with a live input, one that moves by itself. */
  promote(at: InletAddress, live?: LiveInput['kind']): void {
    const made = promote(this.typed(), at, newId, (near, name) => this.placeOfParameter(near, name));
    if (!made) {
      this.refuse('Only an open number or colour inlet can become a parameter.');
      return;
    }
    const moves = live && setParameter(made.parameter, 'live', { ...STILL_LIVE_INPUT, kind: live });
    this.do(moves ? joinEdits(`Drive by ${live}`, made.edit, moves) : made.edit);
  }

  /** Beside the node it is for, its right edge where it was wanted for a narrow card, covering no other card. */
  private placeOfParameter({ x, y }: Point, name: string): Point {
    const typed = this.typed();
    const kind = this.context.catalogue.kinds.get(PARAMETER_KIND);
    if (!kind) return { x, y };
    const width = cardWidth(kind, {}, name);
    const boxes = Object.keys(typed.graph.nodes).flatMap((id) => cardBox(typed, id) ?? []);
    return freePlace({ x: x + NARROWEST_CARD - width, y, width, height: cardHeight(kind) }, boxes);
  }

  // Clipboard

  copied(): string | undefined {
    const { material, edits } = this.typed();
    const chosen = this.chosen();
    return chosen.size === 0 ? undefined : JSON.stringify(clip(material, edits, chosen));
  }

  /** Puts nodes from a text at a place of the graph; foreign text is refused in words. */
  paste(text: string, at: Point): void {
    const { material, edits } = this.typed();
    try {
      const clipping = parseClipping(text);
      const places = [...Object.values(clipping.nodes), ...Object.values(clipping.areas), ...Object.values(clipping.notes)];
      const left = Math.min(...places.map((each) => each.x));
      const top = Math.min(...places.map((each) => each.y));
      const { edit, names } = paste(material, edits, clipping, { newId, dx: at.x - left, dy: at.y - top });
      this.do(edit);
      this.view.select(names.values());
    } catch (error) {
      if (!(error instanceof ForeignClipping)) throw error;
      this.refuse(error.message);
    }
  }

  duplicate(): void {
    const { material, edits } = this.typed();
    const { edit, names } = duplicate(material, edits, this.chosen(), newId);
    this.do(edit);
    if (names.size > 0) this.view.select(names.values());
  }

  // Groups

  enter(id: string): void {
    const node = this.typed().graph.nodes[id];
    if (node?.kind !== GROUP_KIND || node.group === undefined || !Object.hasOwn(this.subject().groups, node.group)) return;
    this.entered.set([...this.trail(), { node: id, group: node.group }]);
    this.view.select([]);
    this.view.enter(this.trailKey());
  }

  /** Goes back out, to `depth` groups inside. */
  leave(depth = this.trail().length - 1): void {
    if (depth < 0) return;
    const left = this.trail()[depth];
    this.entered.set(this.trail().slice(0, depth));
    this.view.select(left ? [left.node] : []);
    this.view.enter(this.trailKey());
  }

  private trailKey(): string {
    return [this.subjectId(), ...this.trail().map((each) => each.node)].join('/');
  }

  makeGroup(): void {
    const made = makeGroup(this.typed(), this.chosen(), newId);
    if (!made) this.refuse('Select the nodes that the group is to be made of.');
    else {
      this.do(made.edit);
      this.view.select([made.node]);
    }
  }

  unmakeGroup(): void {
    const [id] = this.chosen();
    const made = id === undefined ? undefined : unmakeGroup(this.typed(), id, newId);
    if (!made) this.refuse('Select a group to ungroup.');
    else {
      this.do(made.edit);
      this.view.select(made.nodes);
    }
  }

  // Order

  addArea(): void {
    const { edits, material } = this.typed();
    const boxes = this.chosenBoxes();
    if (boxes.length === 0) {
      this.refuse('Select the nodes that the area is to surround.');
      return;
    }
    const x = Math.min(...boxes.map((box) => box.x)) - 20;
    const y = Math.min(...boxes.map((box) => box.y)) - 44;
    const width = Math.max(...boxes.map((box) => box.x + box.width)) + 20 - x;
    const height = Math.max(...boxes.map((box) => box.y + box.height)) + 20 - y;
    const title = `Area ${Object.keys(edits.graphOf(material).areas).length + 1}`;
    this.do(edits.putArea(newId(), { title, x, y, width, height }));
  }

  addNote(at: Point): void {
    const id = newId();
    this.do(this.typed().edits.putNote(id, { text: '', x: Math.round(at.x), y: Math.round(at.y), width: 180, height: 72 }));
    this.view.select([id]);
  }

  align(how: Alignment): void {
    const boxes = this.chosenBoxes();
    if (boxes.length < 2) {
      this.refuse('Select two or more nodes to align.');
      return;
    }
    const { edits, material } = this.typed();
    this.do(edits.place(material, new Map(alignedPlaces(boxes, how)), 'Align'));
  }

  private chosenBoxes(): Box[] {
    const typed = this.typed();
    return [...this.chosen()].flatMap((id) => {
      const box = cardBox(typed, id);
      return box ? [{ id, ...box }] : [];
    });
  }
}

interface Box {
  readonly id: string;
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

/** Places of boxes on a common edge, or spread evenly across or down. */
export function alignedPlaces(boxes: readonly Box[], how: Alignment): [string, Point][] {
  const left = Math.min(...boxes.map((box) => box.x));
  const top = Math.min(...boxes.map((box) => box.y));
  const right = Math.max(...boxes.map((box) => box.x + box.width));
  const bottom = Math.max(...boxes.map((box) => box.y + box.height));
  if (how === 'across' || how === 'down') {
    const [axis, size] = how === 'across' ? (['x', 'width'] as const) : (['y', 'height'] as const);
    const sorted = [...boxes].sort((a, b) => a[axis] - b[axis]);
    const room = (how === 'across' ? right - left : bottom - top) - sorted.reduce((sum, box) => sum + box[size], 0);
    const gap = Math.max(room / (sorted.length - 1), 20);
    let at = how === 'across' ? left : top;
    return sorted.map((box) => {
      const place: Point = how === 'across' ? { x: at, y: box.y } : { x: box.x, y: at };
      at += box[size] + gap;
      return [box.id, place];
    });
  }
  return boxes.map((box) => {
    const x = how === 'left' ? left : how === 'right' ? right - box.width : box.x;
    const y = how === 'top' ? top : how === 'bottom' ? bottom - box.height : box.y;
    return [box.id, { x, y }];
  });
}
