import { TestBed } from '@angular/core/testing';
import type { Material } from '@brelvin/contract';
import { DEMO_DOCUMENTS, library, newMaterial, resolveGraph, TypedGraph } from '@brelvin/core';
import { dockY } from '../editors/dock-layout';
import { cardHeight, cardWidth, NARROWEST_CARD, HEADER_HEIGHT, inletPoint, outletPoint, ROW_HEIGHT } from '../editors/card-layout';
import { placeGraph, type Rectangle } from '../editors/placed-graph';
import { boxesOf, chosenByFrame, fitBoxes, portOnScreen, readyRound, ribbonAt, ribbonShapes, ribbonThrough, seenOf } from './graph-shapes';
import { GraphView } from '../editors/graph-view';
import { alignedPlaces, GraphEditor } from '../editors/graph-editor';
import { HeldDocuments } from '../testing/held-documents';
import { beside, distanceTo, ribbonPath } from './ribbon-path';

const kinds = library().kinds;
const at = { x: 100, y: 50 };
const typedOf = (material: Material): TypedGraph => new TypedGraph(material, library(), resolveGraph(material, library()));
const NONE: ReadonlySet<string> = new Set();

describe('Card layout', () => {
  it('puts a single outlet into the title row, several below it, inlets under them', () => {
    expect(outletPoint(at, kinds.get('bands')!, 'result')).toEqual({ x: 100 + NARROWEST_CARD, y: 50 + HEADER_HEIGHT / 2 });
    expect(inletPoint(at, kinds.get('bands')!, 'count')).toEqual({ x: 100, y: 50 + HEADER_HEIGHT + 1.5 * ROW_HEIGHT });
    expect(outletPoint(at, kinds.get('split')!, 'z').y).toBe(50 + HEADER_HEIGHT + 2.5 * ROW_HEIGHT);
    expect(inletPoint(at, kinds.get('split')!, 'value').y).toBe(50 + HEADER_HEIGHT + 4.5 * ROW_HEIGHT);
  });

  it('is tall enough for all rows', () => {
    for (const kind of kinds.values()) {
      const last = kind.inlets.at(-1);
      if (last) expect(inletPoint(at, kind, last.name).y - at.y).toBeLessThan(cardHeight(kind));
    }
  });

  it('is wide enough for a long title and for labels beside their controls, and has an end', () => {
    const bands = kinds.get('bands')!;
    expect(cardWidth(bands)).toBe(NARROWEST_CARD);
    expect(cardWidth(bands, { name: 'Hull, wet with salt water' })).toBeGreaterThan(NARROWEST_CARD);
    expect(cardWidth(bands, { name: 'Hull '.repeat(30) })).toBe(360);
    expect(cardWidth(kinds.get('physicalSurface')!)).toBeGreaterThan(NARROWEST_CARD);
    expect(outletPoint(at, bands, 'result', 'Hull, wet with salt water').x).toBe(at.x + cardWidth(bands, {}, 'Hull, wet with salt water'));
  });

  it('leaves room between the cards of every demo', () => {
    for (const { id, document } of DEMO_DOCUMENTS) {
      if (document.format !== 'brelvin-material' || document.code) continue;
      for (const group of [undefined, ...Object.keys(document.groups)]) {
        const typed = new TypedGraph(document, library(), resolveGraph(document, library()), group);
        const boxes = [...placeGraph(typed).cards.values()];
        for (const a of boxes)
          for (const b of boxes)
            if (a.id < b.id) expect(gapBetween(a.box, b.box)).withContext(`${id}: ${a.id} and ${b.id}`).toBeGreaterThanOrEqual(8);
      }
    }
  });
});

/** How far two rectangles are from each other, across or down; negative where they lie on each other. */
function gapBetween(a: Rectangle, b: Rectangle): number {
  const across = Math.max(a.x - b.x - b.width, b.x - a.x - a.width);
  const down = Math.max(a.y - b.y - b.height, b.y - a.y - a.height);
  return Math.max(across, down);
}

describe('GraphView', () => {
  let view: GraphView;

  beforeEach(() => {
    TestBed.configureTestingModule({ providers: [GraphView] });
    view = TestBed.inject(GraphView);
  });

  it('keeps what is under the pointer where it is while zooming', () => {
    view.set({ x: 30, y: -20, zoom: 0.8 });
    const before = view.toGraph({ x: 200, y: 120 });
    view.zoomAt({ x: 200, y: 120 }, 1.7);
    const after = view.toGraph({ x: 200, y: 120 });
    expect(after.x).toBeCloseTo(before.x, 9);
    expect(after.y).toBeCloseTo(before.y, 9);
  });

  it('leads from graph to screen and back, and stays between its limits', () => {
    view.set({ x: 30, y: -20, zoom: 0.8 });
    expect(view.toGraph(view.toScreen({ x: 12, y: 34 })).x).toBeCloseTo(12, 9);
    for (let count = 0; count < 50; count++) view.zoomAt({ x: 0, y: 0 }, 2);
    expect(view.transform.zoom).toBe(2.5);
    for (let count = 0; count < 50; count++) view.zoomAt({ x: 0, y: 0 }, 0.5);
    expect(view.transform.zoom).toBe(0.03);
  });

  it('selects and toggles', () => {
    view.select(['a', 'b']);
    view.toggle('a');
    view.toggle('c');
    expect([...view.selection()]).toEqual(['b', 'c']);
  });

  it('chooses by a frame the cards and notes that it touches, and areas that lie in it whole', () => {
    const material = newMaterial('Framed');
    const { areas, notes } = {
      areas: { dusk: { title: 'Dusk', x: -40, y: -40, width: 900, height: 400 } },
      notes: { tide: { text: 'Low', x: 0, y: 600, width: 120, height: 80 } },
    };
    const nodes = { sea: { kind: 'bands', rev: 1, x: 100, y: 50, values: {} }, far: { kind: 'bands', rev: 1, x: 600, y: 50, values: {} } };
    const typed = typedOf({ ...material, surface: { ...material.surface, nodes, ribbons: {}, areas, notes } });
    expect(chosenByFrame(typed, placeGraph(typed), { x: 90, y: 40, width: 20, height: 20 })).toEqual(['sea']);
    expect(chosenByFrame(typed, placeGraph(typed), { x: 90, y: 40, width: 20, height: 600 })).toEqual(['sea', 'tide']);
    expect(chosenByFrame(typed, placeGraph(typed), { x: -50, y: -50, width: 1000, height: 500 })).toEqual(['sea', 'far', 'dusk']);
    expect(chosenByFrame(typed, placeGraph(typed), { x: -300, y: -300, width: 20, height: 20 })).toEqual([]);
  });

  it('keeps cards ready ahead of the edge, seldom changes which, and lets go of them after zooming in', () => {
    const surface = { width: 400, height: 300 };
    const nothing = { x: 0, y: 0, width: 0, height: 0 };
    view.set({ x: -100, y: 0, zoom: 0.5 });
    const seen = seenOf(view, surface);
    expect(seen).toEqual({ x: 200, y: 0, width: 800, height: 600 });
    const ready = readyRound(seen, nothing, 100);
    expect(ready).toEqual({ x: 100, y: -100, width: 1000, height: 800 });
    expect(readyRound({ ...seen, x: 290 }, ready, 100)).toBe(ready);
    expect(readyRound({ ...seen, x: 310 }, ready, 100).x).toBe(210);
    const closer = { x: 400, y: 200, width: 200, height: 150 };
    expect(readyRound(closer, ready, 25)).toEqual({ x: 375, y: 175, width: 250, height: 200 });
  });

  it('draws each ribbon from its outlet to its inlet, to the dock at the edge', () => {
    const material = DEMO_DOCUMENTS.find((each) => each.id === 'material-puppet-cheek')!.document as Material;
    const surface = { width: 700, height: 500 };
    const shapes = ribbonShapes(placeGraph(typedOf(material)), NONE, NONE, view, surface);
    expect(shapes.length).toBe(Object.keys(material.surface.ribbons).length);
    const dock = shapes.find((shape) => shape.to.x === surface.width);
    expect(dock?.to.y).toBe(dockY(0));
    expect(dock?.type).toBe('light');
    expect(portOnScreen(typedOf(material), view, surface, 'nobody', 'inlet', 'a')).toBeUndefined();
  });

  it('leaves ribbons out of sight unpainted, and marks wrong and lifted ones', () => {
    const material = newMaterial('m');
    const surface = { width: 700, height: 500 };
    view.select(['colour']);
    const shapes = ribbonShapes(placeGraph(typedOf(material)), new Set(['lambert.base']), NONE, view, surface);
    expect(shapes.map((shape) => [shape.wrong, shape.lifted])).toEqual([
      [true, true],
      [false, false],
    ]);
    view.set({ x: -5000, y: 0, zoom: 1 });
    expect(ribbonShapes(placeGraph(typedOf(material)), NONE, NONE, view, surface).length).toBe(1);
  });

  it('shows all of a graph', () => {
    const material = newMaterial('m');
    view.set(fitBoxes(boxesOf(typedOf(material), placeGraph(typedOf(material))), { width: 600, height: 300 }));
    for (const node of Object.values(material.surface.nodes)) {
      const corner = view.toScreen(node);
      const opposite = view.toScreen({ x: node.x + NARROWEST_CARD, y: node.y + cardHeight(kinds.get(node.kind)!) });
      expect(Math.min(corner.x, corner.y)).toBeGreaterThanOrEqual(0);
      expect(opposite.x).toBeLessThanOrEqual(600);
      expect(opposite.y).toBeLessThanOrEqual(300);
    }
    expect(fitBoxes([], { width: 600, height: 300 }).zoom).toBe(1);
  });

  it('remembers how each graph was seen', () => {
    let fresh = 0;
    view.fresh.subscribe(() => fresh++);
    view.set({ x: 5, y: 6, zoom: 0.5 });
    view.enter('group');
    // It may be entered while no surface is there to be told.
    expect(view.touched).toBeFalse();
    view.set({ x: 70, y: 80, zoom: 1 });
    view.enter('');
    expect(view.transform).toEqual({ x: 5, y: 6, zoom: 0.5 });
    expect(fresh).toBe(1);
  });
});

describe('Ribbons under the pointer', () => {
  const shape = {
    key: 'b.a',
    from: { x: 0, y: 0 },
    to: { x: 200, y: 0 },
    bends: [],
    type: 'number',
    conversion: '',
    wrong: false,
    lifted: false,
    dim: false,
  } as const;

  it('are found along their line, and by their bends', () => {
    expect(ribbonAt([shape], { x: 100, y: 3 }, 1)?.shape.key).toBe('b.a');
    expect(ribbonAt([shape], { x: 100, y: 30 }, 1)).toBeUndefined();
    const bent = { ...shape, bends: [{ x: 100, y: 80 }] };
    expect(ribbonAt([bent], { x: 101, y: 79 }, 1)?.bend).toBe(0);
    expect(ribbonAt([bent], { x: 60, y: 42 }, 1)?.place).toBe(0);
    expect(ribbonAt([bent], { x: 140, y: 42 }, 1)?.place).toBe(1);
  });

  it('are crossed by a card that is dropped on them', () => {
    expect(ribbonThrough([shape], { x: 60, y: -20, width: 80, height: 40 }, 1)?.key).toBe('b.a');
    expect(ribbonThrough([shape], { x: 60, y: 60, width: 80, height: 40 }, 1)).toBeUndefined();
  });

  it('keep their threads apart at corners', () => {
    const path = ribbonPath({ x: 0, y: 0 }, { x: 300, y: 200 }, [{ x: 150, y: 200 }], 1);
    const thread = beside(path, 4);
    for (const point of thread.slice(1, -1)) expect(distanceTo(path, point).distance).toBeGreaterThan(3);
    expect(beside(path, 0)).toEqual(path);
  });
});

describe('Aligning', () => {
  const boxes = [
    { id: 'a', x: 10, y: 0, width: 100, height: 40 },
    { id: 'b', x: 60, y: 100, width: 50, height: 40 },
    { id: 'c', x: 400, y: 30, width: 100, height: 80 },
  ];
  const places = (how: Parameters<typeof alignedPlaces>[1]): Record<string, { x: number; y: number }> =>
    Object.fromEntries(alignedPlaces(boxes, how));

  it('brings edges together', () => {
    expect(Object.values(places('left')).map((each) => each.x)).toEqual([10, 10, 10]);
    expect(places('right')['b']?.x).toBe(450);
    expect(places('bottom')['c']?.y).toBe(60);
  });

  it('spreads evenly, and never over one another', () => {
    const across = places('across');
    expect([across['a']?.x, across['b']?.x, across['c']?.x]).toEqual([10, 230, 400]);
    const tight = Object.fromEntries(
      alignedPlaces(
        boxes.map((box) => ({ ...box, x: 0 })),
        'across',
      ),
    );
    expect(tight['b']?.x).toBeGreaterThanOrEqual(120);
  });
});

describe('GraphEditor', () => {
  let editor: GraphEditor;
  let held: HeldDocuments;
  let view: GraphView;
  let refusals: string[];

  beforeEach(() => {
    held = new HeldDocuments();
    TestBed.configureTestingModule({ providers: [GraphView, GraphEditor, ...held.providers] });
    editor = TestBed.inject(GraphEditor);
    view = TestBed.inject(GraphView);
    refusals = [];
    editor.refusals.subscribe((words) => refusals.push(words));
    held.material.set(newMaterial('m'));
  });

  const nodes = (): string[] => Object.keys(editor.typed().graph.nodes);

  it('duplicates, copies and pastes what is chosen, and chooses the copies', () => {
    view.select(['colour', 'lambert']);
    const text = editor.copied() ?? '';
    editor.duplicate();
    expect(nodes().length).toBe(4);
    expect(editor.chosen().size).toBe(2);
    editor.paste(text, { x: 500, y: 600 });
    expect(nodes().length).toBe(6);
    const [first] = editor.chosen();
    expect(editor.typed().graph.nodes[first ?? '']?.x).toBe(500);
    editor.paste('just words', { x: 0, y: 0 });
    expect(refusals[0]).toContain('not nodes');
    expect(nodes().length).toBe(6);
  });

  it('goes into a group and out again, and ends where a group is gone', () => {
    view.select(['lambert']);
    editor.makeGroup();
    const [group] = editor.chosen();
    editor.enter(group ?? '');
    expect(nodes()).toEqual(['lambert']);
    expect(editor.trail().map((each) => each.title)).toEqual(['Group']);
    editor.leave();
    expect(editor.chosen().has(group ?? '')).toBeTrue();
    editor.enter(group ?? '');
    held.material.set(newMaterial('other'));
    expect(editor.group()).toBeUndefined();
    expect(nodes()).toEqual(['colour', 'lambert']);
  });

  it('removes unused nodes in one gesture, and says when there are none', () => {
    editor.removeUnused();
    expect(refusals[0]).toContain('nothing is unused');
    view.select(['lambert']);
    editor.duplicate();
    editor.removeUnused();
    expect(nodes()).toEqual(['colour', 'lambert']);
  });

  it('makes parameters, also such as move by themselves', () => {
    editor.promote({ node: 'colour', inlet: 'value' });
    editor.promote({ node: 'lambert', inlet: 'normal' });
    expect(refusals[0]).toContain('open number or colour');
    expect(Object.values(editor.subject().parameters).map((each) => each.type)).toEqual(['colour']);
    editor.do(editor.addition('b', kinds.get('bands')!, { x: 700, y: 500 }));
    editor.promote({ node: 'b', inlet: 'floor' }, 'sine');
    expect(Object.values(editor.subject().parameters).at(-1)?.live?.kind).toBe('sine');
    // None of their cards lies on another.
    editor.promote({ node: 'b', inlet: 'softness' });
    editor.promote({ node: 'b', inlet: 'count' });
    const boxes = [...editor.placed().cards.values()].filter(({ id }) => id !== 'colour' && id !== 'lambert');
    expect(boxes.length).toBe(5);
    for (const a of boxes) for (const b of boxes) if (a.id < b.id) expect(gapBetween(a.box, b.box)).toBeGreaterThanOrEqual(12);
  });

  it('surrounds nodes by an area', () => {
    editor.selectAll();
    editor.addArea();
    const [area] = Object.values(editor.typed().graph.areas);
    for (const node of Object.values(editor.typed().graph.nodes)) expect(node.x > (area?.x ?? 0) && node.y > (area?.y ?? 0)).toBeTrue();
  });
});
