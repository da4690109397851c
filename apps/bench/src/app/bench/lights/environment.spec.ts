import { provideZonelessChangeDetection, signal } from '@angular/core';
import { TestBed, type ComponentFixture } from '@angular/core/testing';
import type { LightRig } from '@brelvin/contract';
import { applyChanges, FIRST_ENVIRONMENT, newRig, parseDocument, START_CAMERA, swapEnvironment } from '@brelvin/core';
import { AssetApi } from '../../shared/api/asset-api';
import { EnvironmentShelf, type TakenEnvironment } from '../../shared/images/environment-shelf';
import { EnvironmentPanel } from './environment-panel';
import { EnvironmentEditor } from './environment-editor';
import { LightDial, type TurnChange } from './light-dial';
import { BenchLayout } from '../layout/bench-layout';
import { RigEditor } from '../editors/rig-editor';
import { StageBinding } from '../stage/stage-binding';
import { HeldDocuments } from '../testing/held-documents';

const DAY = { name: 'Day', assets: ['1'.repeat(64)] };
const NIGHT = { name: 'Night', assets: ['2'.repeat(64)] };
const listed = [
  { name: 'day.hdr', sha256: DAY.assets[0] },
  { name: 'night-harbour.hdr', sha256: NIGHT.assets[0] },
];

const root = (fixture: ComponentFixture<unknown>): HTMLElement => fixture.nativeElement as HTMLElement;

describe('The environment panel', () => {
  let editor: RigEditor;
  const stage = { state: signal<{ readonly filtering?: number } | undefined>(undefined) };
  const failed = signal<{ assets: readonly string[]; words: string } | undefined>(undefined);
  let take: jasmine.Spy<(files: readonly File[]) => Promise<TakenEnvironment | undefined>>;

  async function show(rig: LightRig): Promise<ComponentFixture<EnvironmentPanel>> {
    const held = new HeldDocuments();
    take = jasmine.createSpy('take');
    failed.set(undefined);
    TestBed.configureTestingModule({
      providers: [
        provideZonelessChangeDetection(),
        RigEditor,
        EnvironmentEditor,
        ...held.providers,
        BenchLayout,
        { provide: StageBinding, useValue: stage },
        { provide: AssetApi, useValue: { list: async () => ({ assets: listed, total: 2 }) } },
        { provide: EnvironmentShelf, useValue: { take, job: signal(undefined), failed } },
      ],
    });
    editor = TestBed.inject(RigEditor);
    held.rig.set(rig);
    const fixture = TestBed.createComponent(EnvironmentPanel);
    await fixture.whenStable();
    await fixture.whenStable();
    return fixture;
  }

  const press = async (fixture: ComponentFixture<unknown>, words: string): Promise<void> => {
    const button = [...root(fixture).querySelectorAll('button')].find((each) => each.textContent.trim() === words);
    if (!button) throw new Error(`no button says ${words}`);
    button.click();
    await fixture.whenStable();
  };
  const drop = (fixture: ComponentFixture<unknown>, ...files: File[]): void => {
    const data = new DataTransfer();
    files.forEach((file) => data.items.add(file));
    root(fixture)
      .querySelector('.environment-list')
      ?.dispatchEvent(new DragEvent('drop', { dataTransfer: data, bubbles: true, cancelable: true }));
  };

  it('says what to do while nothing is all around, and takes one up with one click', async () => {
    const fixture = await show(newRig('r'));
    expect(root(fixture).textContent).toContain('Choose an environment');
    await press(fixture, 'Day');
    expect(editor.rig().environment).toEqual({ ...FIRST_ENVIRONMENT, ...DAY });
    expect(() => parseDocument(JSON.stringify(editor.rig()))).not.toThrow();
  });

  it('swaps day for night with one click; turn, strength and the rest stay', async () => {
    const fixture = await show({
      ...newRig('r'),
      environment: { ...FIRST_ENVIRONMENT, ...DAY, turn: 1.5, intensity: 0.4, blur: 0.3, shows: false },
    });
    await press(fixture, 'Night harbour');
    expect(editor.rig().environment).toEqual({
      name: 'Night harbour',
      assets: NIGHT.assets,
      turn: 1.5,
      intensity: 0.4,
      blur: 0.3,
      shows: false,
      lights: true,
    });
    const chosen = [...root(fixture).querySelectorAll('[role=radio]')].filter((each) => each.getAttribute('aria-checked') === 'true');
    expect(chosen.map((each) => each.textContent.trim())).toEqual(['Night harbour']);
    await press(fixture, 'none');
    expect(editor.rig().environment).toBeUndefined();
  });

  it('lets it light and be seen independently', async () => {
    const fixture = await show({ ...newRig('r'), environment: { ...FIRST_ENVIRONMENT, ...DAY } });
    const flip = async (label: string): Promise<void> => {
      root(fixture).querySelector<HTMLElement>(`[aria-label="${label}"]`)?.click();
      await fixture.whenStable();
    };
    await flip('It lights the meshes');
    expect([editor.rig().environment?.lights, editor.rig().environment?.shows]).toEqual([false, true]);
    await flip('It is the background');
    await flip('It lights the meshes');
    expect([editor.rig().environment?.lights, editor.rig().environment?.shows]).toEqual([true, false]);
  });

  it('takes a panorama that is dropped, and says what was done to it', async () => {
    const fixture = await show(newRig('r'));
    take.and.resolveTo({ name: 'sky', assets: ['3'.repeat(64)], words: ['Made smaller, from 4096 × 2048 to 2048 × 1024 pixels.'] });
    drop(fixture, new File(['x'], 'sky.hdr'));
    await fixture.whenStable();
    await fixture.whenStable();
    expect(take.calls.mostRecent().args[0].map((file) => file.name)).toEqual(['sky.hdr']);
    expect(editor.rig().environment?.name).toBe('sky');
    expect(root(fixture).textContent).toContain('Made smaller');
  });

  it('says why a file was not taken, and keeps what it had', async () => {
    const fixture = await show({ ...newRig('r'), environment: { ...FIRST_ENVIRONMENT, ...DAY } });
    take.and.rejectWith(new Error('“sky” was not imported. It is cut off or damaged at row 3 of 9.'));
    drop(fixture, new File(['x'], 'sky.exr'));
    await fixture.whenStable();
    await fixture.whenStable();
    expect(root(fixture).querySelector('[role=alert]')?.textContent).toContain('row 3 of 9');
    expect(editor.rig().environment?.name).toBe('Day');
    drop(fixture, new File(['x'], 'notes.txt'));
    await fixture.whenStable();
    expect(root(fixture).querySelector('[role=alert]')?.textContent).toContain('one .hdr or .exr panorama, or six images');
    expect(take).toHaveBeenCalledTimes(1);
  });

  it('shows a rig’s own environment although the workspace does not list it', async () => {
    const fixture = await show({
      ...newRig('r'),
      environment: { ...FIRST_ENVIRONMENT, name: 'Cube', assets: ['4', '5', '6', '7', '8', '9'].map((each) => each.repeat(64)) },
    });
    expect(root(fixture).textContent).toContain('Cube');
  });

  it('says why the one in use is not in the picture', async () => {
    const fixture = await show({ ...newRig('r'), environment: { ...FIRST_ENVIRONMENT, ...DAY } });
    failed.set({ assets: NIGHT.assets, words: 'Gone.' });
    await fixture.whenStable();
    expect(root(fixture).querySelector('[role=alert]')).toBeNull();
    failed.set({ assets: DAY.assets, words: 'The image is not in the workspace any more.' });
    await fixture.whenStable();
    expect(root(fixture).querySelector('[role=alert]')?.textContent).toContain('“Day” cannot be shown. The image is not in the workspace');
  });

  it('says how far the filtering is', async () => {
    const fixture = await show({ ...newRig('r'), environment: { ...FIRST_ENVIRONMENT, ...DAY } });
    stage.state.set({ filtering: 0.5 });
    await fixture.whenStable();
    expect(root(fixture).textContent).toContain('Blurring it for rough surfaces … 50 %');
    stage.state.set({ filtering: 1 });
    await fixture.whenStable();
    expect(root(fixture).textContent).not.toContain('Blurring');
  });

  it('leaves the light of the one before behind', () => {
    const light = Array.from({ length: 9 }, () => [1, 1, 1]);
    const rig: LightRig = { ...newRig('r'), environment: { ...FIRST_ENVIRONMENT, ...DAY, light } };
    expect(applyChanges(rig, swapEnvironment(rig, NIGHT).changes).environment?.light).toBeUndefined();
    const told = applyChanges(rig, swapEnvironment(rig, { ...NIGHT, light: light.map(() => [0.5, 0.5, 0.5]) }).changes);
    expect(told.environment?.light?.[8]).toEqual([0.5, 0.5, 0.5]);
    expect(() => parseDocument(JSON.stringify(told))).not.toThrow();
  });

  it('comes forward when a transparent rig takes one up', () => {
    const { changes } = swapEnvironment({ ...newRig('r'), transparent: true }, DAY);
    expect(applyChanges({ ...newRig('r'), transparent: true }, changes).transparent).toBeUndefined();
  });
});

describe('The ring of the light dial', () => {
  async function show(
    turn: number | undefined,
    azimuth = 0,
  ): Promise<{ fixture: ComponentFixture<LightDial>; turns: TurnChange[]; moved: jasmine.Spy }> {
    TestBed.configureTestingModule({ providers: [provideZonelessChangeDetection()] });
    const fixture = TestBed.createComponent(LightDial);
    fixture.componentRef.setInput('camera', { ...START_CAMERA, azimuth, elevation: 0 });
    fixture.componentRef.setInput('lights', [{ id: 'sun', name: 'Sun', direction: [0, 0, 1] }]);
    fixture.componentRef.setInput('chosen', 'sun');
    fixture.componentRef.setInput('turn', turn);
    const turns: TurnChange[] = [];
    fixture.componentInstance.turned.subscribe((each) => turns.push(each));
    const moved = jasmine.createSpy('moved');
    fixture.componentInstance.changed.subscribe(moved);
    document.body.append(root(fixture));
    await fixture.whenStable();
    return { fixture, turns, moved };
  }

  const pointer = (fixture: ComponentFixture<unknown>, type: string, x: number, y: number): void => {
    const dial = root(fixture).querySelector('svg')!;
    dial.setPointerCapture = () => undefined;
    const box = dial.getBoundingClientRect();
    dial.dispatchEvent(
      new PointerEvent(type, { clientX: box.left + box.width / 2 + x, clientY: box.top + box.height / 2 - y, bubbles: true, pointerId: 1 }),
    );
  };

  it('turns the environment by as much as it is dragged, and moves no light', async () => {
    const { fixture, turns, moved } = await show(0.2);
    pointer(fixture, 'pointerdown', 0, 60);
    pointer(fixture, 'pointermove', 60, 0);
    pointer(fixture, 'pointerup', 60, 0);
    pointer(fixture, 'pointermove', 0, -60);
    expect(turns.length).toBe(1);
    expect(turns[0]?.turn).toBeCloseTo(0.2 - Math.PI / 2, 5);
    expect(moved).not.toHaveBeenCalled();
    root(fixture).remove();
  });

  it('turns with the keys of its own slider', async () => {
    const { fixture, turns } = await show(0);
    const slider = root(fixture).querySelector<HTMLElement>('button[role=slider]');
    slider?.dispatchEvent(new KeyboardEvent('keydown', { key: 'ArrowLeft', bubbles: true }));
    slider?.dispatchEvent(new KeyboardEvent('keydown', { key: 'x', bubbles: true }));
    expect(turns.map(({ turn }) => Math.round((turn * 180) / Math.PI))).toEqual([5]);
    root(fixture).remove();
  });

  it('shows where the middle of the environment is as the camera turns, and is gone without one', async () => {
    const { fixture } = await show(0, Math.PI / 2);
    expect(root(fixture).querySelector('.dial-ring-mark')?.getAttribute('transform')).toBe('rotate(90)');
    fixture.componentRef.setInput('turn', undefined);
    await fixture.whenStable();
    expect(root(fixture).querySelector('.dial-ring')).toBeNull();
    root(fixture).remove();
  });
});
