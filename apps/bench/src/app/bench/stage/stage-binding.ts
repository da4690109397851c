import { DestroyRef, effect, inject, Injectable, signal, untracked } from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import type { LightRig, OrbitCamera, StageSet } from '@brelvin/contract';
import { litProgram, START_CAMERA, takesApart } from '@brelvin/core';
import { Compiler } from '../compile/compiler';
import { DocumentStore } from '../documents/document-store';
import { RigEditor } from '../editors/rig-editor';
import type { StageEngine } from './stage-engine';
import { DeviceChoice } from './device-choice';
import { keepCamera, keptCamera } from './kept-camera';
import type { StageState } from './stage-state';
import { ViewSettings } from './view-settings';
import { StageMaterials } from './stage-materials';

/** What each device takes programs in. */
const LANGUAGES = { webgpu: 'wgsl', webgl2: 'glsl' } as const;

/** Between the Bench and the Stage: hands it what is open and how it is looked at, and tells what it shows. */
@Injectable()
export class StageBinding {
  private readonly compiler = inject(Compiler);
  private readonly store = inject(DocumentStore);
  private readonly destroyRef = inject(DestroyRef);
  private readonly settings = inject(ViewSettings);
  private readonly materials = inject(StageMaterials);
  private readonly rigEditor = inject(RigEditor);
  private readonly devices = inject(DeviceChoice);
  private readonly linked = signal<StageEngine | undefined>(undefined);

  /** The Stage's engine, once it was handed something. */
  readonly engine = this.linked.asReadonly();
  readonly camera = signal<OrbitCamera>(START_CAMERA);
  readonly state = signal<StageState | undefined>(undefined);
  readonly playing = signal(true);
  private setId?: string;
  /** Which meshes stand there, told by what they are. */
  private stands?: string;
  readonly lightsPlaying = signal(true);

  constructor() {
    effect(() => {
      const rig = this.store.rig();
      if (rig) untracked(() => this.compiler.light(litProgram(rig)));
    });
    effect(() => this.settings.ringRound(Math.max(0, this.rigEditor.number() - 1)));
    effect(() => {
      const [inspection, engine] = [this.settings.inspection(), this.linked()];
      if (takesApart(inspection)) this.compiler.want('inspect');
      engine?.setInspection(inspection);
    });
    effect(() => this.linked()?.camera.setTurning(this.settings.turning() ? (this.settings.turnSpeed() * Math.PI) / 180 : 0));
    effect(() => void this.linked()?.drawOn(this.devices.wished()));
    effect(() => this.linked()?.setPlaying(this.playing()));
    effect(() => this.linked()?.setLightsPlaying(this.lightsPlaying()));
  }

  /** Hands over a set and a rig; an engine that is new also gets the materials, and starts. */
  show(engine: StageEngine, { id, set }: { readonly id?: string; readonly set: StageSet }, rig: LightRig): void {
    engine.setRig(rig);
    engine.setSet(set);
    const stands = standsOf(set);
    const [other, before] = [id !== this.setId || stands !== this.stands, this.setId];
    if (other && before !== undefined && !this.seesKeptView(set)) engine.frameAnew();
    else if (other) engine.frameUntouched();
    [this.setId, this.stands] = [id, stands];
    if (untracked(this.linked) === engine) return;
    const kept = id === undefined ? undefined : keptCamera(id);
    if (kept) engine.camera.resume(kept);
    this.materials.connect(engine);
    engine.camera.changes.pipe(takeUntilDestroyed(this.destroyRef)).subscribe((camera) => {
      this.camera.set(camera);
      if (this.setId !== undefined && !engine.camera.moves) keepCamera(this.setId, camera);
    });
    engine.lightClock.pipe(takeUntilDestroyed(this.destroyRef)).subscribe((seconds) => this.rigEditor.seconds.set(seconds));
    engine.state.pipe(takeUntilDestroyed(this.destroyRef)).subscribe((state) => {
      this.state.set(state);
      // What is wrong with a material is told also where nothing can draw it.
      const draws = state.device?.name ?? (state.unavailable && 'webgl2');
      if (draws) this.compiler.aim(LANGUAGES[draws]);
    });
    this.linked.set(engine);
    void engine.drawOn(untracked(this.devices.wished));
  }

  /** Whether the picture is seen from one of the views that were kept with the set. */
  private seesKeptView({ views }: StageSet): boolean {
    const now = JSON.stringify(untracked(this.camera));
    return Object.values(views).some(({ camera }) => JSON.stringify(camera) === now);
  }

  togglePlaying(): void {
    this.playing.update((playing) => !playing);
  }

  toggleLightsPlaying(): void {
    this.lightsPlaying.update((playing) => !playing);
  }
}

/** Meshes by shape or file: with another one the picture is framed anew, with another number it is not. */
function standsOf({ meshes }: StageSet): string {
  return Object.entries(meshes)
    .map(([id, { shape, source }]) => `${id} ${shape} ${source?.asset ?? ''}`)
    .sort()
    .join();
}
