import type { RibbonType } from '@brelvin/contract';
import {
  addPort,
  connectionProblem,
  DOCK,
  ENTRY,
  inletKey,
  joinEdits,
  type Edit,
  type InletAddress,
  type OutletAddress,
} from '@brelvin/core';
import { newId } from '../../../shared/documents/new-id';
import type { Point } from '../../editors/card-layout';
import { portOnScreen, type SurfaceMeasure } from '../graph-shapes';
import type { GraphView } from '../../editors/graph-view';
import type { GraphEditor } from '../../editors/graph-editor';
import type { RibbonShape } from '../ribbon-painter';
import type { Gesture } from './gesture';

/** A ribbon with one end held. */
export type Carried =
  { readonly from: OutletAddress; readonly type: RibbonType } | { readonly to: InletAddress; readonly type: RibbonType };

/** The name of the place at a group's edge where a new port is made. */
export const NEW_PORT = 'new-port';

/** What stands at a port, as its element says. */
export function carriedFrom(editor: GraphEditor, port: HTMLElement): Carried | undefined {
  const { node, inlet, outlet } = port.dataset;
  const typed = editor.typed();
  if (!node || inlet === NEW_PORT || outlet === NEW_PORT) return undefined;
  if (outlet) return { from: { node, outlet }, type: typed.outletType({ node, outlet }) ?? 'number' };
  return inlet ? { to: { node, inlet }, type: typed.inletType({ node, inlet }) ?? 'number' } : undefined;
}

/** Sets a ribbon down at a port; what does not fit is refused in words. */
export function setDown(editor: GraphEditor, carried: Carried, port: HTMLElement, detached?: InletAddress): void {
  const { node, inlet, outlet } = port.dataset;
  const made = newPort(editor, carried, port);
  if (made) {
    editor.do(made);
    return;
  }
  const from = 'from' in carried ? carried.from : node && outlet ? { node, outlet } : undefined;
  const to = 'to' in carried ? carried.to : node && inlet ? { node, inlet } : undefined;
  if (!from || !to || inlet === NEW_PORT || outlet === NEW_PORT) {
    if (!detached) editor.refuse('A ribbon runs from an outlet (right edge) to an inlet (left edge).');
    return;
  }
  if (detached && inletKey(detached.node, detached.inlet) === inletKey(to.node, to.inlet)) return;
  const typed = editor.typed();
  const problem = connectionProblem(typed, from, to);
  if (problem) {
    editor.refuse(problem);
    return;
  }
  const run = typed.connect(from, to);
  editor.do(detached ? joinEdits(run.label, typed.edits.disconnect(detached), run) : run);
}

/** A ribbon that is set down at a group's edge gives the group another inlet or outlet. */
function newPort(editor: GraphEditor, carried: Carried, port: HTMLElement): Edit | undefined {
  const { group, edits, material, kind } = withKind(editor);
  if (group === undefined) return undefined;
  const name = newId();
  if ('from' in carried && port.dataset['inlet'] === NEW_PORT) {
    const outlet = kind(carried.from.node)?.outlets.find((each) => each.name === carried.from.outlet);
    const added = addPort(material, group, 'outlets', name, carried.type, outlet?.label ?? 'Result');
    return joinEdits('Add an outlet', added, edits.connect(carried.from, { node: DOCK, inlet: name }));
  }
  if ('to' in carried && port.dataset['outlet'] === NEW_PORT) {
    const inlet = kind(carried.to.node)?.inlets.find((each) => each.name === carried.to.inlet);
    const added = addPort(material, group, 'inlets', name, carried.type, inlet?.label ?? 'Value');
    return joinEdits('Add an inlet', added, edits.connect({ node: ENTRY, outlet: name }, carried.to));
  }
  return undefined;
}

function withKind(editor: GraphEditor) {
  const typed = editor.typed();
  return { group: typed.group, edits: typed.edits, material: typed.material, kind: (id: string) => typed.kind(id) };
}

/** Dragging from a port carries a ribbon; from a connected inlet its own, whose other end stays where it is. */
export class RunRibbon implements Gesture {
  private readonly held: Carried;
  private readonly detached?: InletAddress;

  constructor(
    private readonly editor: GraphEditor,
    private readonly view: GraphView,
    private readonly measure: () => SurfaceMeasure,
    private readonly into: { void: (carried: Carried) => void },
    carried: Carried,
    private at: Point,
  ) {
    const source = 'to' in carried ? editor.typed().sourceOf(carried.to) : undefined;
    if (source && 'to' in carried) {
      this.detached = carried.to;
      this.held = { from: source, type: editor.typed().outletType(source) ?? 'number' };
    } else this.held = carried;
  }

  get carried(): RibbonShape | undefined {
    const typed = this.editor.typed();
    const held = this.held;
    const end =
      'from' in held
        ? portOnScreen(typed, this.view, this.measure(), held.from.node, 'outlet', held.from.outlet)
        : portOnScreen(typed, this.view, this.measure(), held.to.node, 'inlet', held.to.inlet);
    if (!end) return undefined;
    const ends = 'from' in held ? { from: end, to: this.at } : { from: this.at, to: end };
    return { ...ends, key: '', bends: [], type: held.type, conversion: '', wrong: false, lifted: true, dim: false };
  }

  move(at: Point): void {
    this.at = at;
  }

  end(_at: Point, event: PointerEvent): void {
    const target = document.elementFromPoint(event.clientX, event.clientY);
    const port =
      target?.closest<HTMLElement>('.port') ??
      target?.closest('.card-row, .dock-place, .card-title')?.querySelector<HTMLElement>('.port') ??
      undefined;
    if (port) setDown(this.editor, this.held, port, this.detached);
    else if (this.detached) this.editor.do(this.editor.typed().disconnect(this.detached));
    else this.into.void(this.held);
  }

  cancel(): void {
    // Nothing was done yet.
  }
}
