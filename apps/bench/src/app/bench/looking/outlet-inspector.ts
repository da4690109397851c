import { computed, effect, inject, Injectable, signal, untracked } from '@angular/core';
import type { RibbonType } from '@brelvin/contract';
import {
  GROUP_KIND,
  MOST_OUTLETS,
  portPath,
  type EmittedOutlets,
  type LensMode,
  type Meaning,
  type NodeKind,
  type OutletAddress,
} from '@brelvin/core';
import { Compiler } from '../compile/compiler';
import { DocumentStore } from '../documents/document-store';
import { GraphEditor } from '../editors/graph-editor';
import { outletKey, type LensWish } from '../stage/outlet-lens';

/** The outlet that is seen on the mesh, and how. */
export interface Peek extends LensWish {
  /** The node on the graph, and the group whose inside that is. */
  readonly node: string;
  readonly group?: string;
  readonly title: string;
  readonly type: RibbonType;
  /** Somebody set the scale's ends; otherwise they follow what is seen. */
  readonly held: boolean;
}

const DIRECTIONS: readonly Meaning[] = ['normal', 'directionToEye', 'directionToLight'];
/** Types without a value at a point. */
const NO_VALUE: readonly RibbonType[] = ['image', 'cubeImage', 'stops'];

/** How a value is best seen. */
export function lensMode(type: RibbonType, meaning: Meaning): LensMode {
  if (type === 'number' || type === 'field') return 'scale';
  return DIRECTIONS.includes(meaning) ? 'direction' : 'colour';
}

/** Looking at the values of outlets: which are wanted, and the program that gives them. No document, and not undone. */
@Injectable()
export class OutletInspector {
  private readonly compiler = inject(Compiler);
  private readonly editor = inject(GraphEditor);
  private readonly peeked = signal<Peek | undefined>(undefined);
  private readonly compiled = signal<EmittedOutlets | undefined>(undefined);
  private turn = 0;

  private readonly store = inject(DocumentStore);
  readonly peek = this.peeked.asReadonly();
  /** Whether values at points are wanted. */
  readonly probing = signal(false);
  readonly program = this.compiled.asReadonly();
  /** Why there is nothing to see. */
  readonly refusal = signal<string | undefined>(undefined);

  /** Nodes whose small picture is wanted, each with the outlet it shows. */
  readonly previewed = computed((): ReadonlyMap<string, { readonly outlet: OutletAddress; readonly mode: LensMode }> => {
    const typed = this.editor.typed();
    const found = new Map<string, { outlet: OutletAddress; mode: LensMode }>();
    const { nodes } = typed.graph;
    if (this.editor.field() !== undefined) return found;
    for (const id of Object.keys(nodes)) {
      const [first] = nodes[id]?.preview ? (typed.kind(id)?.outlets ?? []) : [];
      if (!first) continue;
      const type = typed.outletType({ node: id, outlet: first.name }) ?? 'number';
      const mode = lensMode(type, first.meaning);
      // In small, grey says enough of a number.
      if (!NO_VALUE.includes(type))
        found.set(id, { outlet: this.addressOf({ node: id, outlet: first.name }), mode: mode === 'scale' ? 'colour' : mode });
    }
    return found;
  });

  /** What the program has to give: never more than it can hold, what is looked at first. */
  private readonly wanted = computed(
    (): readonly OutletAddress[] => {
      const peek = this.peeked();
      const all = new Map<string, OutletAddress>();
      const add = (outlet: OutletAddress): unknown => all.size < MOST_OUTLETS && all.set(outletKey(outlet), outlet);
      if (peek) add(peek.outlet);
      for (const { outlet } of this.previewed().values()) add(outlet);
      if (this.probing() && this.editor.field() === undefined) for (const outlet of this.outletsHere()) add(outlet);
      return [...all.values()].sort((a, b) => outletKey(a).localeCompare(outletKey(b)));
    },
    { equal: (a, b) => a.length === b.length && a.every((each, index) => outletKey(each) === outletKey(b[index] ?? each)) },
  );

  constructor() {
    effect(() => {
      const [id, wanted] = [this.store.materialId(), this.wanted()];
      this.editor.resolved();
      // Another device takes it in another language.
      this.compiler.target();
      untracked(() => void this.request(id, wanted));
    });
    // An outlet that is gone is not looked at any more.
    effect(() => {
      const peek = this.peek();
      if (peek && !Object.hasOwn(this.editor.typed().graph.nodes, peek.node) && this.editor.group() === peek.group) this.stopPeek();
    });
  }

  /** Where an outlet of the graph on the screen is in the unfolded graph. */
  addressOf({ node, outlet }: OutletAddress): OutletAddress {
    const typed = this.editor.typed();
    const path = typed.pathOf(node);
    return typed.graph.nodes[node]?.kind === GROUP_KIND
      ? { node: portPath(path, 'out', outlet), outlet: 'result' }
      : { node: path, outlet };
  }

  /** Shows an outlet on the mesh; the picture again where it is already shown. */
  togglePeek(node: string, outlet?: string): void {
    if (this.editor.field() !== undefined) {
      this.editor.refuse('Values are looked at on surfaces; a field is asked all through space. Run it into the dock to see it.');
      return;
    }
    const typed = this.editor.typed();
    const kind = typed.kind(node);
    const spec = kind?.outlets.find((each) => each.name === outlet) ?? kind?.outlets[0];
    if (!kind || !spec) return;
    const type = typed.outletType({ node, outlet: spec.name }) ?? 'number';
    if (NO_VALUE.includes(type)) {
      this.editor.refuse('An image has no value by itself. Peek at what reads it.');
      return;
    }
    const address = this.addressOf({ node, outlet: spec.name });
    const now = this.peeked();
    if (now && outletKey(now.outlet) === outletKey(address)) {
      this.stopPeek();
      return;
    }
    this.peeked.set({
      node,
      group: this.editor.group(),
      title: titleOf(kind, typed.graph.nodes[node]?.name, spec.label),
      type,
      outlet: address,
      mode: lensMode(type, spec.meaning),
      low: 0,
      high: 1,
      component: type === 'number' || type === 'field' ? 0 : 4,
      held: spec.meaning === 'fraction',
    });
  }

  stopPeek(): void {
    this.peeked.set(undefined);
  }

  changePeek(change: Partial<Pick<Peek, 'mode' | 'low' | 'high' | 'component' | 'held'>>): void {
    this.peeked.update((peek) => peek && { ...peek, ...change });
  }

  private outletsHere(): OutletAddress[] {
    const typed = this.editor.typed();
    return Object.keys(typed.graph.nodes).flatMap((node) =>
      (typed.kind(node)?.outlets ?? [])
        .filter(({ name }) => !NO_VALUE.includes(typed.outletType({ node, outlet: name }) ?? 'number'))
        .map(({ name }) => this.addressOf({ node, outlet: name })),
    );
  }

  private async request(id: string | undefined, wanted: readonly OutletAddress[]): Promise<void> {
    const turn = ++this.turn;
    if (id === undefined || wanted.length === 0) {
      this.compiled.set(undefined);
      return;
    }
    const result = await this.compiler.outlets(id, wanted);
    if (turn !== this.turn) return;
    // A graph that cannot be compiled keeps the last values, as the picture stays.
    if ('compiled' in result) this.compiled.set(result);
    this.refusal.set('compiled' in result ? undefined : result.problems[0]?.message);
  }
}

function titleOf(kind: NodeKind, name: string | undefined, label: string): string {
  const title = name ?? kind.title;
  return kind.outlets.length > 1 ? `${title}: ${label}` : title;
}
