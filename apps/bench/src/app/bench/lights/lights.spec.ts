import { provideZonelessChangeDetection, signal } from '@angular/core';
import { TestBed, type ComponentFixture } from '@angular/core/testing';
import type { LightRig } from '@brelvin/contract';
import { backgroundKind, colourLight, newLight, newRig, parseDocument, START_CAMERA } from '@brelvin/core';
import { AssetApi } from '../../shared/api/asset-api';
import { LightHandles } from '../stage/light-handles';
import { LightDial, type DirectionChange } from './light-dial';
import { LightPanel } from './light-panel';
import { PicturePanel } from './picture-panel';
import { RigEditor } from '../editors/rig-editor';
import { StageBinding } from '../stage/stage-binding';
import { HeldDocuments } from '../testing/held-documents';

let held: HeldDocuments;
const front = { ...START_CAMERA, azimuth: 0, elevation: 0 };

/** Documents on the Bench, and what its parts want besides. */
function setUp(): void {
  held = new HeldDocuments();
  const stage = { provide: StageBinding, useValue: { camera: signal(front) } };
  TestBed.configureTestingModule({ providers: [provideZonelessChangeDetection(), RigEditor, ...held.providers, stage] });
}

const root = (fixture: ComponentFixture<unknown>): HTMLElement => fixture.nativeElement as HTMLElement;
const labelled = (fixture: ComponentFixture<unknown>, label: string): HTMLElement => {
  const found = root(fixture).querySelector<HTMLElement>(`[aria-label="${label}"]`);
  if (!found) throw new Error(`nothing is called ${label}`);
  return found;
};
const step = (element: Element | null, key: string): void =>
  void element?.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true }));
const choose = (element: HTMLElement, value: string): void => {
  (element as HTMLSelectElement).value = value;
  element.dispatchEvent(new Event('change'));
};

/** Works on a rig: its edits are applied. */
function workOn(rig: LightRig): RigEditor {
  const editor = TestBed.inject(RigEditor);
  held.rig.set(rig);
  return editor;
}

describe('LightDial', () => {
  beforeEach(setUp);

  async function show(direction: number[]): Promise<{ fixture: ComponentFixture<LightDial>; moves: DirectionChange[] }> {
    const fixture = TestBed.createComponent(LightDial);
    fixture.componentRef.setInput('camera', front);
    fixture.componentRef.setInput('lights', [
      { id: 'sun', name: 'Sun', direction },
      { id: 'lamp', name: 'Lamp', direction: [-1, 0, 0.5] },
    ]);
    fixture.componentRef.setInput('chosen', 'sun');
    const moves: DirectionChange[] = [];
    fixture.componentInstance.changed.subscribe((move) => moves.push(move));
    await fixture.whenStable();
    return { fixture, moves };
  }

  it('says in words where the chosen light stands', async () => {
    const { fixture } = await show([0.7, 0.7, 0.1]);
    expect(root(fixture).querySelector('svg')?.getAttribute('aria-valuetext')).toBe('Sun from in front above right');
    expect(
      root((await show([0, 0, -1])).fixture)
        .querySelector('svg')
        ?.getAttribute('aria-valuetext'),
    ).toContain('behind');
  });

  it('moves it by arrow keys, always to a unit direction', async () => {
    const { fixture, moves } = await show([0, 0, 1]);
    step(root(fixture).querySelector('svg'), 'ArrowRight');
    step(root(fixture).querySelector('svg'), 'ArrowUp');
    expect(moves[0]?.direction[0]).toBeGreaterThan(0.03);
    expect(moves[1]?.direction[1]).toBeGreaterThan(0.03);
    for (const { id, direction } of moves) {
      expect(id).toBe('sun');
      expect(Math.hypot(...direction)).toBeCloseTo(1, 4);
    }
  });

  it('shows every light, and takes the one that is pressed', async () => {
    const { fixture } = await show([0, 0, 1]);
    const chosen: string[] = [];
    fixture.componentInstance.chose.subscribe((id) => chosen.push(id));
    const dial = root(fixture).querySelector('svg')!;
    dial.setPointerCapture = () => undefined;
    expect(dial.querySelectorAll('.dial-dot').length).toBe(2);
    const box = dial.querySelector('[data-light="lamp"]')!.getBoundingClientRect();
    const at = { clientX: box.x + box.width / 2, clientY: box.y + box.height / 2 };
    dial.dispatchEvent(new PointerEvent('pointerdown', at));
    expect(chosen).toEqual(['lamp']);
  });
});

describe('LightPanel', () => {
  beforeEach(setUp);

  async function show(rig = newRig('r')): Promise<{ fixture: ComponentFixture<LightPanel>; editor: RigEditor }> {
    const editor = workOn(rig);
    const fixture = TestBed.createComponent(LightPanel);
    await fixture.whenStable();
    return { fixture, editor };
  }

  it('changes the chosen light', async () => {
    const { fixture, editor } = await show();
    step(labelled(fixture, 'Intensity of the sun'), 'ArrowUp');
    step(labelled(fixture, 'Specular'), 'ArrowDown');
    root(fixture).querySelector<HTMLElement>('.light-name[data-light="ambient"]')!.click();
    await fixture.whenStable();
    step(labelled(fixture, 'Intensity of the ambient light'), 'ArrowUp');
    const { sun, ambient } = editor.rig();
    expect(sun.intensity).toBeGreaterThan(1);
    expect(sun.weights[2]).toBeLessThan(1);
    expect(ambient.intensity).toBeGreaterThan(0.08);
  });

  it('adds lights of every kind, names them apart, switches and removes them', async () => {
    const { fixture, editor } = await show();
    for (const kind of ['point', 'point', 'spot', 'hemisphere', 'sun', 'ambient']) {
      choose(labelled(fixture, 'Add a light'), kind);
      await fixture.whenStable();
      expect(editor.light().kind).toBe(kind as never);
    }
    expect(Object.values(editor.rig().lights).map((light) => light.name)).toEqual([
      'Point',
      'Point 2',
      'Spot',
      'Hemisphere',
      'Sun 2',
      'Ambient 2',
    ]);
    labelled(fixture, 'Point 2 on').click();
    labelled(fixture, 'Remove Spot').click();
    await fixture.whenStable();
    expect(Object.values(editor.rig().lights).map((light) => [light.name, light.on])).toContain(['Point 2', false]);
    expect(Object.keys(editor.rig().lights).length).toBe(5);
    expect(root(fixture).querySelector('[aria-label="Remove Sun"]')).toBeNull();
  });

  it('says which lights stay dark, and when the rig is full', async () => {
    const lights = Object.fromEntries(
      Array.from({ length: 32 }, (_, order) => [`l${order}`, newLight('point', { name: `Lamp ${order}`, order })]),
    );
    const { fixture, editor } = await show({ ...newRig('r'), lights });
    expect(root(fixture).querySelector('[data-light="l6"].light-name')?.textContent).not.toContain('dark');
    expect(root(fixture).querySelector('[data-light="l7"].light-name')?.textContent).toContain('dark');
    expect(root(fixture).querySelector('[role="status"]')?.textContent).toContain('32 lights');
    choose(labelled(fixture, 'Add a light'), 'point');
    expect(Object.keys(editor.rig().lights).length).toBe(32);
  });

  it('shapes a spot: its angles stay in order, its range above nothing', async () => {
    const { fixture, editor } = await show({ ...newRig('r'), lights: { s: newLight('spot', { falloff: 'windowed', cone: [0.3, 0.31] }) } });
    editor.choose('s');
    await fixture.whenStable();
    for (let count = 0; count < 40; count++) step(labelled(fixture, 'Inner angle'), 'ArrowUp');
    const [inner = 0, outer = 0] = editor.light().cone;
    expect(inner).toBeGreaterThan(0.31);
    expect(outer).toBeGreaterThanOrEqual(inner);
    for (let count = 0; count < 200; count++) step(labelled(fixture, 'Range'), 'ArrowDown');
    expect(editor.light().range).toBeGreaterThan(0);
  });

  it('colours by temperature, and forgets it for a colour of one’s own', async () => {
    const { fixture, editor } = await show();
    const byTemperature = (): HTMLElement | undefined =>
      [...root(fixture).querySelectorAll('button')].find((each) => each.textContent?.includes('kelvin'));
    byTemperature()!.click();
    await fixture.whenStable();
    expect(editor.rig().sun.temperature).toBe(6500);
    step(labelled(fixture, 'Temperature of the sun'), 'ArrowDown');
    expect(editor.rig().sun.temperature).toBeLessThan(6500);
    expect(editor.rig().sun.colour[2]).toBeLessThan(1);
    editor.do(colourLight('sun', editor.rig().sun, [1, 0, 0]));
    await fixture.whenStable();
    expect(byTemperature()).toBeDefined();
  });

  it('gives motion only to what can move, with its numbers', async () => {
    const { fixture, editor } = await show();
    choose(labelled(fixture, 'Motion'), 'sway');
    await fixture.whenStable();
    step(labelled(fixture, 'Reach of the motion'), 'ArrowUp');
    expect(editor.rig().sun.motion.kind).toBe('sway');
    expect(editor.rig().sun.motion.reach).toBeGreaterThan(1);
    editor.choose('ambient');
    await fixture.whenStable();
    expect([...labelled(fixture, 'Motion').querySelectorAll('option')].map((each) => each.value)).toEqual(['still', 'colours']);
  });
});

describe('LightHandles', () => {
  beforeEach(setUp);

  it('stand where the lights are, choose and move them', async () => {
    const editor = workOn({
      ...newRig('r'),
      lights: { lamp: newLight('point', { position: [0.5, 0, 0] }), off: newLight('point', { on: false }) },
    });
    const fixture = TestBed.createComponent(LightHandles);
    fixture.componentRef.setInput('camera', front);
    fixture.componentRef.setInput('width', 400);
    fixture.componentRef.setInput('height', 400);
    await fixture.whenStable();
    const handles = [...root(fixture).querySelectorAll<SVGElement>('.handle')];
    expect(handles.map((each) => each.dataset['light'])).toEqual(['sun', 'lamp']);
    const lamp = handles[1]!;
    const [x = 0, y = 0] =
      /translate\(([\d.]+) ([\d.]+)\)/
        .exec(lamp.getAttribute('transform') ?? '')
        ?.slice(1)
        .map(Number) ?? [];
    expect(x).toBeGreaterThan(220);
    expect(y).toBeCloseTo(200, 0);
    lamp.setPointerCapture = () => undefined;
    lamp.dispatchEvent(new PointerEvent('pointerdown', { clientX: 100, clientY: 100 }));
    lamp.dispatchEvent(new PointerEvent('pointermove', { clientX: 100, clientY: 60 }));
    expect(editor.chosen()).toBe('lamp');
    const [px, py] = editor.rig().lights['lamp']!.position;
    expect(px).toBeCloseTo(0.5, 3);
    expect(py).toBeGreaterThan(0.2);
    const sun = handles[0]!;
    sun.setPointerCapture = () => undefined;
    sun.dispatchEvent(new PointerEvent('pointerdown', { clientX: 100, clientY: 100 }));
    sun.dispatchEvent(new PointerEvent('pointermove', { clientX: 130, clientY: 100 }));
    expect(Math.hypot(...editor.rig().sun.direction)).toBeCloseTo(1, 4);
    expect(editor.rig().sun.direction[0]).toBeGreaterThan(-0.48);
  });
});

describe('PicturePanel', () => {
  beforeEach(setUp);

  it('exposes, bends, and puts a gradient behind', async () => {
    const editor = workOn(newRig('r'));
    const fixture = TestBed.createComponent(PicturePanel);
    await fixture.whenStable();
    step(labelled(fixture, 'Exposure'), 'ArrowUp');
    choose(labelled(fixture, 'Tone mapping'), 'neutral');
    step(labelled(fixture, 'Fog'), 'ArrowUp');
    step(labelled(fixture, 'Bloom'), 'ArrowDown');
    choose(labelled(fixture, 'Kind of background'), 'gradient');
    await fixture.whenStable();
    const { exposure, curve, fog, bloom, backgroundTop } = editor.rig();
    expect([exposure > 0, curve, fog.density > 0, bloom.strength]).toEqual([true, 'neutral', true, 0]);
    expect(backgroundTop).toBeDefined();
    choose(labelled(fixture, 'Kind of background'), 'colour');
    expect(editor.rig().backgroundTop).toBeUndefined();
  });

  it('puts a flat image behind once one is chosen, and nothing at all', async () => {
    const asset = { sha256: 'a'.repeat(64), name: 'Quay.png', width: 40, height: 20, tags: [], updatedAt: '2026-01-01T00:00:00.000Z' };
    const api = { list: async () => ({ assets: [asset], total: 1 }), tags: async () => ({ tags: [] }), url: (sha256: string) => sha256 };
    TestBed.configureTestingModule({ providers: [{ provide: AssetApi, useValue: api }] });
    const editor = workOn(newRig('r'));
    const fixture = TestBed.createComponent(PicturePanel);
    await fixture.whenStable();
    choose(labelled(fixture, 'Kind of background'), 'image');
    await fixture.whenStable();
    expect(backgroundKind(editor.rig())).toBe('colour');
    await fixture.whenStable();
    const button = root(fixture).querySelector<HTMLButtonElement>('.picker-button')!;
    expect(button.textContent).toContain('choose …');
    button.click();
    await fixture.whenStable();
    const entry = (): Element | null => document.querySelector('.picker-rows .picker-name');
    for (let turn = 0; turn < 50 && !entry(); turn++) await new Promise((resolve) => setTimeout(resolve, 20));
    expect(entry()?.textContent).toBe('Quay.png');
    document.querySelector('.picker-rows .picker-entry')!.dispatchEvent(new PointerEvent('pointerdown', { bubbles: true }));
    await fixture.whenStable();
    expect(button.textContent).toContain('Quay');
    expect(editor.rig().backgroundImage).toEqual(jasmine.objectContaining({ fit: 'cover' }));
    expect(editor.rig().backgroundImage?.image.name).toBe('Quay');
    choose(labelled(fixture, 'How the image fills the picture'), 'contain');
    await fixture.whenStable();
    expect(editor.rig().backgroundImage?.fit).toBe('contain');
    choose(labelled(fixture, 'Kind of background'), 'nothing');
    await fixture.whenStable();
    expect([backgroundKind(editor.rig()), editor.rig().backgroundImage?.fit]).toEqual(['nothing', 'contain']);
    choose(labelled(fixture, 'Kind of background'), 'image');
    expect(backgroundKind(editor.rig())).toBe('image');
    expect(() => parseDocument(JSON.stringify(editor.rig()))).not.toThrow();
  });
});
