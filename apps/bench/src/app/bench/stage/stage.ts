import {
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  ElementRef,
  inject,
  input,
  output,
  signal,
  viewChild,
  type AfterViewInit,
  ViewEncapsulation,
} from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import type { OrbitCamera } from '@brelvin/contract';
import type { GraphProblem, ImageLack } from '@brelvin/core';
import { BehaviorSubject } from 'rxjs';
import { Icon } from '../../shared/icons/icon';
import { LightHandles } from './light-handles';
import { StageEngine } from './stage-engine';
import { NO_PICTURE_YET, type StageState } from './stage-state';
import { NO_LOADERS, type StageLoaders } from './stage-loaders';

const ORBIT_PER_PIXEL = 0.008;
const KEY_ORBIT = 0.12;
const DOLLY_PER_WHEEL = 0.0012;
/** A hand that trembles this many pixels does not drag. */
const HARDLY = 4;

function lackWords({ name, reason, again }: ImageLack): string {
  const next = again ? 'It is asked for again.' : 'Reload the page to ask for it again, or put another image in its place.';
  return [`The image “${name}” cannot be had: a grey check stands in its place.`, reason, next].filter(Boolean).join(' ');
}

/** The picture, and the gestures on it. */
@Component({
  selector: 'brelvin-stage',
  imports: [Icon, LightHandles],
  changeDetection: ChangeDetectionStrategy.OnPush,
  encapsulation: ViewEncapsulation.None,
  styleUrl: './stage.css',
  host: { class: 'relative block min-h-0 min-w-0 flex-1 overflow-hidden' },
  template: `
    <div
      #place
      tabindex="0"
      role="img"
      class="stage-canvas"
      aria-label="Stage. Drag to orbit, Shift-drag to pan, wheel to move closer. Arrow keys orbit, plus and minus move, F frames the mesh."
      [attr.data-programs]="state().compiledPrograms"
      [attr.data-pictures]="state().pictures"
      [attr.data-sharp]="atRest()"
      [attr.data-painted]="state().hasSurface"
      [attr.data-device]="state().device?.name"
      (pointerdown)="down($event)"
      (pointermove)="move($event)"
      (pointerup)="up($event)"
      (pointercancel)="up($event)"
      (pointerleave)="left()"
      (wheel)="wheel($event)"
      (dblclick)="engine().frameMesh()"
      (keydown)="key($event)"
    ></div>
    @if (handlesShown()) {
      <brelvin-light-handles [camera]="camera()" [width]="extent().width / sides()" [height]="extent().height" />
    }
    <ng-content />
    @if (waits(); as words) {
      <p class="stage-waits" role="status">{{ words }}</p>
    }
    <div class="stage-foot">
      <ng-content select=".view-legend" />
      @if (notice(); as words) {
        <p class="stage-notice" role="status">
          <brelvin-icon name="warning" /> <span>{{ words }}</span>
        </p>
      }
    </div>
  `,
})
export class Stage implements AfterViewInit {
  readonly problems = input<readonly GraphProblem[]>([]);
  /** Another program may come. */
  readonly compiling = input(false);
  readonly camera = input.required<OrbitCamera>();
  readonly handlesShown = input(true);
  /** Pictures beside each other. */
  readonly sides = input(1);
  readonly loaders = input<StageLoaders>(NO_LOADERS);
  /** A place of the picture that was pressed without dragging, CSS pixels. */
  readonly picked = output<{ x: number; y: number }>();
  /** Where the pointer goes without a button; nowhere when it leaves. */
  readonly pointed = output<{ x: number; y: number } | undefined>();

  private readonly place = viewChild.required<ElementRef<HTMLElement>>('place');
  private readonly made = signal<StageEngine | undefined>(undefined);
  private readonly states = new BehaviorSubject<StageState>(NO_PICTURE_YET);
  protected readonly state = toSignal(this.states, { requireSync: true });
  private readonly destroyRef = inject(DestroyRef);
  /** CSS pixels of the picture. */
  protected readonly extent = signal({ width: 0, height: 0 });
  private dragging?: { x: number; y: number; pans: boolean; moved: number };

  /** Nothing more comes into the picture by itself: not an environment either. */
  protected readonly atRest = computed(() => this.state().sharp && this.state().complete && !this.compiling());

  /** Says what the picture waits for; not while its place is taken by a notice. */
  protected readonly waits = computed(() => {
    const { awaits, filtering, hasSurface } = this.state();
    if (this.notice() !== undefined) return undefined;
    if (this.compiling() || awaits.includes('program')) return hasSurface ? 'Compiling: this is the last picture …' : 'Compiling …';
    if (awaits.includes('environment'))
      return filtering !== undefined && filtering < 1
        ? `Blurring the environment for rough surfaces: ${Math.round(filtering * 100)} % …`
        : 'The environment is on its way …';
    return awaits.includes('image') ? 'Images are on their way …' : undefined;
  });

  /** Says why the picture is not what the graph says. */
  protected readonly notice = computed(() => {
    const { unavailable, lost, refusal, hasSurface, benchIsWorn, tooSlow, awaitsMeshes, formulas, lacks } = this.state();
    const lack = formulas.find(({ file }) => file);
    const [problem] = this.problems();
    if (unavailable) return unavailable;
    if (lost) return 'The graphics device was lost; the Stage comes back by itself.';
    const shown = hasSurface ? 'Last good picture.' : 'Not ready.';
    if (problem) return `${shown} ${problem.message}`;
    if (refusal) return `${shown} ${refusal.message}`;
    if (tooSlow !== undefined)
      return `A whole picture of this takes about ${Math.round(tooSlow / 1000)} s, so it is drawn small. Fewer steps in loops make it quicker.`;
    if (awaitsMeshes) return 'The mesh is on its way …';
    if (lack) return lack.message;
    if (lacks[0]) return lackWords(lacks[0]);
    return benchIsWorn ? undefined : 'No part of this set has this material. Choose a part in the parts tab, and give it this material.';
  });

  ngAfterViewInit(): void {
    const place = this.place().nativeElement;
    const engine = new StageEngine(place, {
      image: (image) => this.loaders().image(image),
      environment: (assets) => this.loaders().environment(assets),
      mesh: (asset) => this.loaders().mesh(asset),
      meshWork: (asset, work) => this.loaders().meshWork(asset, work),
    });
    this.made.set(engine);
    const states = engine.state.subscribe((state) => this.states.next(state));
    const resize = new ResizeObserver(() => {
      const { width, height } = place.getBoundingClientRect();
      const ratio = Math.min(devicePixelRatio, 2);
      this.extent.set({ width, height });
      if (width > 0 && height > 0) engine.setSize({ width: Math.round(width * ratio), height: Math.round(height * ratio) });
    });
    resize.observe(place);
    this.destroyRef.onDestroy(() => {
      resize.disconnect();
      states.unsubscribe();
      engine.destroy();
    });
  }

  /** Available once the view is there. */
  engine(): StageEngine {
    const engine = this.made();
    if (!engine) throw new Error('the Stage is not there yet');
    return engine;
  }

  protected down(event: PointerEvent): void {
    if (event.button === 2) return;
    this.place().nativeElement.setPointerCapture(event.pointerId);
    this.dragging = { x: event.clientX, y: event.clientY, pans: event.shiftKey || event.button === 1, moved: 0 };
  }

  protected move(event: PointerEvent): void {
    if (!this.dragging) {
      const place = { x: event.offsetX, y: event.offsetY };
      this.engine().pointAt(place);
      this.pointed.emit(place);
      return;
    }
    const { clientX, clientY } = event;
    const [dx, dy] = [clientX - this.dragging.x, clientY - this.dragging.y];
    Object.assign(this.dragging, { x: clientX, y: clientY, moved: this.dragging.moved + Math.hypot(dx, dy) });
    const { height } = this.place().nativeElement.getBoundingClientRect();
    if (this.dragging.pans) this.engine().camera.panBy(-dx / height, dy / height);
    else this.engine().camera.orbitBy(-dx * ORBIT_PER_PIXEL, dy * ORBIT_PER_PIXEL);
  }

  protected left(): void {
    this.engine().pointAt(undefined);
    this.pointed.emit(undefined);
  }

  protected up(event: PointerEvent): void {
    if (event.type === 'pointerup' && this.dragging && this.dragging.moved < HARDLY)
      this.picked.emit({ x: event.offsetX, y: event.offsetY });
    this.dragging = undefined;
    this.place().nativeElement.releasePointerCapture(event.pointerId);
  }

  protected wheel(event: WheelEvent): void {
    event.preventDefault();
    this.engine().camera.dollyBy(Math.exp(event.deltaY * DOLLY_PER_WHEEL));
  }

  protected key(event: KeyboardEvent): void {
    const engine = this.engine();
    const actions: Record<string, () => void> = {
      ArrowLeft: () => engine.camera.orbitBy(-KEY_ORBIT, 0),
      ArrowRight: () => engine.camera.orbitBy(KEY_ORBIT, 0),
      ArrowUp: () => engine.camera.orbitBy(0, KEY_ORBIT),
      ArrowDown: () => engine.camera.orbitBy(0, -KEY_ORBIT),
      '+': () => engine.camera.dollyBy(0.9),
      '-': () => engine.camera.dollyBy(1.1),
      f: () => engine.frameMesh(),
    };
    const action = event.ctrlKey || event.metaKey || event.altKey ? undefined : actions[event.key];
    if (!action) return;
    event.preventDefault();
    action();
  }
}
