import type { SetMesh, StageSet } from '@brelvin/contract';
import { followsClock, followsPointer } from '../compile/material-values';
import type { Device, DeviceBuffer } from '../device/device';
import type { MaterialSource } from '../document/material';
import { IN_PLACE, ONE_COPY, STILL } from '../document/set';
import { overridesOf, FLOOR, type PartOverrides } from '../document/part-rules';
import { buildMesh } from '../mesh/build-mesh';
import { FormulaError } from '../mesh/formula';
import type { MeshData } from '../mesh/mesh';
import { turnedMesh } from '../mesh/turned-mesh';
import { meetsBounds, type Ray } from '../mesh/ray';
import { framePoints, START_CAMERA, type OrbitCamera } from '../scene/camera';
import { instanceCount, instanceRows, isMirrored, rowsFarFirst } from '../scene/instance-transforms';
import { ballRound, type Ball } from '../scene/shadow-views';
import { PointerEase } from '../scene/pointer-ease';
import type { FrameItem } from './frame-item';
import type { FrameRenderer } from './frame-renderer';
import { fieldSource, fieldText } from '../mesh/field-source';
import { INSTANCE_WORDS, objectBuffer, type MeshBuffers } from './mesh-buffers';
import { FieldForm } from './field-form';
import { MeshForm } from './mesh-form';
import type { SurfaceForm } from './surface-form';
import { portraitOf } from './portrait';
import type { StandingState } from './shadows';
import type { MaterialPipelines } from './material-pipelines';
import type { PipelineState } from './program-pipelines';
import type { BoundBlock } from './bound-block';
import type { OwnValues } from './own-values';

/** A material with its program; without one what wears it is drawn as "not ready". */
export interface AssignedMaterial {
  readonly material: MaterialSource;
  readonly surface?: MaterialPipelines;
  /** The same for parts of fields. */
  readonly onField?: MaterialPipelines;
}

/** A part of a mesh of the set. */
export interface PartAddress {
  readonly mesh: string;
  readonly part: string;
}

/** Why a mesh does not stand there as it should. */
export interface SceneProblem {
  readonly mesh: string;
  readonly message: string;
  /** What it shows could not be had: a file, or a field. */
  readonly file?: boolean;
}

interface StandingMesh {
  readonly mesh: SetMesh;
  readonly form: SurfaceForm;
  readonly rows: Float32Array<ArrayBuffer>;
  readonly copies: DeviceBuffer;
  /** Of one copy, made when it is first wanted. */
  alone?: DeviceBuffer;
  /** The copies, the farthest first, made when they are first wanted. */
  sorted?: DeviceBuffer;
}

interface PartValues {
  readonly surface: MaterialPipelines;
  readonly buffer: OwnValues;
}

interface StandingPart extends PartAddress {
  readonly first: number;
  readonly count: number;
  readonly dress: PartOverrides;
  readonly object: BoundBlock;
  readonly pointer: PointerEase;
  values?: PartValues;
  /** The same for what it wears under a lens. */
  seenValues?: PartValues;
}

/** What stands on the Stage, on a device: meshes with their places and copies, parts with what they wear. */
export class StageScene {
  private readonly meshes = new Map<string, StandingMesh>();
  private parts: StandingPart[] = [];
  private readonly worn = new Map<string, AssignedMaterial>();
  private set?: StageSet;
  private bench = '';
  /** Stands for what is shown, whichever scene shows it: another object after every change. */
  private shown: object = {};
  private castersBall?: Ball;
  private failures: readonly SceneProblem[] = [];

  constructor(
    private readonly device: Device,
    private readonly renderer: FrameRenderer,
  ) {}

  /** Formulas that could not be read, whose meshes stay as they were, and files that could not be had. */
  get problems(): readonly SceneProblem[] {
    return this.failures;
  }

  /** Takes up a set; meshes whose recipe is as it was are kept. */
  show(set: StageSet): void {
    if (set.meshes === this.set?.meshes && set.floor === this.set.floor && set.partRules === this.set.partRules) return;
    this.set = set;
    this.shown = {};
    this.castersBall = undefined;
    const wanted = new Map(Object.entries(set.meshes));
    if (set.floor.shown) wanted.set(FLOOR, floorMesh(set));
    for (const [id, standing] of this.meshes) if (!wanted.has(id)) this.removeMesh(id, standing);
    const failures: SceneProblem[] = [];
    for (const [id, mesh] of wanted) {
      if (mesh.shape === 'field' && fieldText(mesh) === undefined) {
        failures.push({ mesh: id, message: 'The field that it shows is not here: it was deleted, or is still on its way.', file: true });
        continue;
      }
      try {
        this.putMesh(id, mesh);
        const failure = mesh.source && this.renderer.meshes.failureOf(mesh.source.asset);
        if (failure !== undefined) failures.push({ mesh: id, message: `“${mesh.source?.file}” cannot be had. ${failure}`, file: true });
      } catch (error) {
        if (!(error instanceof FormulaError)) throw error;
        failures.push({ mesh: id, message: `Line ${error.line}, column ${error.column}: ${error.message}` });
      }
    }
    this.failures = failures;
    this.dressParts(set);
  }

  /** Whether a mesh of a file is still on its way. */
  get awaitsMeshes(): boolean {
    return [...this.meshes.values()].some(
      ({ mesh, form }) =>
        mesh.source && form instanceof MeshForm && form.awaited && this.renderer.meshes.failureOf(mesh.source.asset) === undefined,
    );
  }

  /** Puts the meshes of files in place that have come since. */
  refresh(): void {
    const { set } = this;
    this.set = undefined;
    if (set) this.show(set);
  }

  /** Names the material on the Bench, which parts without a rule wear. */
  setBench(material: string): void {
    this.bench = material;
  }

  /** Puts a material's program into use, or takes it away. */
  assign(material: string, worn: AssignedMaterial | undefined): void {
    // What has a shape throws another shadow with every number.
    if (worn?.surface?.compiled.shaped || this.worn.get(material)?.surface?.compiled.shaped) this.shown = {};
    if (worn) this.worn.set(material, worn);
    else this.worn.delete(material);
  }

  /** The material a part wears; the floor wears one of its own unless a rule says otherwise. */
  materialOf({ mesh, part }: PartAddress): string {
    const found = this.parts.find((each) => each.mesh === mesh && each.part === part);
    return found ? this.wornBy(found) : this.bench;
  }

  /** The materials that parts of fields wear, which need programs for that. */
  get wornOnFields(): ReadonlySet<string> {
    return new Set(this.parts.flatMap((part) => (this.meshes.get(part.mesh)?.form.field ? [this.wornBy(part)] : [])));
  }

  /** Whether any part wears the material on the Bench. */
  get benchIsWorn(): boolean {
    return this.parts.some((part) => part.mesh !== FLOOR && this.wornBy(part) === this.bench);
  }

  /**
   * Everything to draw at a time of the Stage's clock, in drawing order.
   *
   * @param lens what wears the material on the Bench wears this instead
   */
  items(seconds: number, lens?: MaterialPipelines): FrameItem[] {
    for (const standing of this.meshes.values()) {
      if (standing.mesh.motion.kind === 'still') continue;
      standing.rows.set(instanceRows(standing.mesh, seconds));
      standing.copies.write(standing.rows);
    }
    return [...this.parts].sort((a, b) => a.dress.drawOrder - b.dress.drawOrder).flatMap((part) => this.item(part, seconds, lens));
  }

  /** Whether the clock changes the picture. */
  get moves(): boolean {
    return (
      [...this.meshes.values()].some(({ mesh, form }) => mesh.motion.kind !== 'still' || form.moves) ||
      this.parts.some((part) => {
        const worn = this.worn.get(this.wornBy(part));
        return worn?.surface !== undefined && followsClock(worn.surface.compiled, worn.material);
      })
    );
  }

  /** Whether the clock moves vertices. */
  private get shapeMoves(): boolean {
    return [...this.worn.values()].some(({ surface, material }) => surface?.compiled.shaped && followsClock(surface.compiled, material));
  }

  /** Whether the pointer over a part can change the picture. */
  get followsPointer(): boolean {
    return this.parts.some((part) => {
      const worn = this.worn.get(this.wornBy(part));
      return worn?.surface !== undefined && followsPointer(worn.surface.compiled, worn.material);
    });
  }

  /** Tells over which part the pointer is. */
  point(at: PartAddress | undefined): void {
    for (const part of this.parts) part.pointer.inside = part.mesh === at?.mesh && part.part === at.part;
  }

  /** Whether what follows the pointer is on its way. */
  get pointing(): boolean {
    return this.parts.some((part) => part.pointer.moving);
  }

  advancePointer(seconds: number): void {
    for (const part of this.parts) part.pointer.advance(seconds);
  }

  /**
   * Points of world space round everything but the floor, at rest; of the floor when nothing else stands there.
   * x y z one after the other.
   */
  outline(): Float32Array {
    const all = [...this.meshes];
    const shown = all.filter(([id]) => id !== FLOOR);
    const points = (shown.length > 0 ? shown : all).map(([, { form, mesh }]) => form.points(rowsAtRest(mesh)));
    const outline = new Float32Array(points.reduce((sum, { length }) => sum + length, 0));
    let start = 0;
    for (const each of points) {
      outline.set(each, start);
      start += each.length;
    }
    return outline.length > 0 ? outline : Float32Array.from([-1, -1, -1, 1, 1, 1]);
  }

  /** A ball round what throws shadows, and the state it is in. */
  casters(seconds: number): { readonly ball: Ball; readonly standing: StandingState } {
    const moving = this.shapeMoves || [...this.meshes.values()].some(({ mesh, form }) => mesh.motion.kind !== 'still' || form.moves);
    this.castersBall ??= ballRound(this.outline());
    return { ball: this.castersBall, standing: { shown: this.shown, seconds: moving ? seconds : 0 } };
  }

  /** The view for the Library of the set: everything that stands in it. */
  wholeView(): OrbitCamera {
    return framePoints(START_CAMERA, this.outline());
  }

  /** The view for the Library: what wears the material on the Bench, or everything when nothing does. */
  portrait(): OrbitCamera {
    const wearing = this.parts.filter((part) => part.mesh !== FLOOR && this.wornBy(part) === this.bench);
    if (wearing.length === 0) return this.wholeView();
    return portraitOf(
      wearing.flatMap((part) => {
        const standing = this.meshes.get(part.mesh);
        return standing ? [{ corners: standing.form.triangles(part), rows: rowsAtRest(standing.mesh) }] : [];
      }),
    );
  }

  /** The part that is seen along a ray of world space. */
  pick({ origin, direction }: Ray): (PartAddress & { readonly copy: number }) | undefined {
    let best: { seen: number; found: PartAddress & { copy: number } } | undefined;
    for (const [id, { form, rows }] of this.meshes) {
      const parts = this.parts.filter((part) => part.mesh === id);
      for (let copy = 0; copy * INSTANCE_WORDS < rows.length; copy++) {
        const local = intoObject(rows, copy * INSTANCE_WORDS, origin, direction);
        if (!local || !meetsBounds(form.bounds, local)) continue;
        for (const part of parts) {
          const distance = form.pick({ ...part, name: part.part }, local);
          if (distance === undefined) continue;
          const seen = distance - part.dress.depthOffset;
          if (!best || seen < best.seen) best = { seen, found: { mesh: id, part: part.part, copy } };
        }
      }
    }
    return best?.found;
  }

  destroy(): void {
    for (const [id, standing] of [...this.meshes]) this.removeMesh(id, standing);
    this.clearParts();
  }

  private wornBy(part: StandingPart): string {
    return part.dress.material ?? (part.mesh === FLOOR ? FLOOR : this.bench);
  }

  private item(part: StandingPart, seconds: number, lens?: MaterialPipelines): FrameItem[] {
    const standing = this.meshes.get(part.mesh);
    if (!standing) return [];
    const { field } = standing.form;
    const own = this.worn.get(this.wornBy(part));
    const dressed = field && own ? { ...own, surface: own.onField } : own;
    const worn = lens && own && !field && this.wornBy(part) === this.bench ? { ...own, surface: lens } : dressed;
    const live = { seconds, pointer: (period: number) => part.pointer.value(period), overrides: part.dress.values };
    return [
      {
        mesh: standing.form.draw,
        field,
        surface: worn?.surface,
        material: worn?.material,
        part: {
          name: this.nameOf(part),
          first: part.first,
          count: part.count,
          object: part.object,
          instances: standing.copies,
          instanceCount: instanceCount(standing.mesh),
          drawOrder: part.dress.drawOrder,
          middle: middleOf(standing),
          instancesFarFirst: (camera) => this.copiesFarFirst(standing, camera),
          instanceAlone: (copy) => this.aloneCopy(standing, copy),
          cull: cullOf(part.dress.faces, standing.form.closed),
          mirrored: isMirrored(standing.mesh.placing),
          ground: part.mesh === FLOOR ? (this.set?.floor.look ?? 'fading') : undefined,
          casts: part.dress.casts && part.mesh !== FLOOR,
          values: worn?.surface && this.valuesOf(part, worn.surface, lens ? 'seenValues' : 'values'),
          live,
        },
      },
    ];
  }

  private nameOf({ mesh, part }: StandingPart): string {
    if (mesh === FLOOR) return 'floor';
    const name = this.set?.meshes[mesh]?.name ?? mesh;
    return part === '' ? name : `${name} / ${part}`;
  }

  private copiesFarFirst(standing: StandingMesh, camera: OrbitCamera): DeviceBuffer {
    if (standing.rows.length === INSTANCE_WORDS) return standing.copies;
    standing.sorted ??= this.device.createBuffer({ usage: 'vertex', size: standing.rows.byteLength });
    standing.sorted.write(rowsFarFirst(standing.rows, camera));
    return standing.sorted;
  }

  private aloneCopy(standing: StandingMesh, copy: number): DeviceBuffer {
    standing.alone ??= this.device.createBuffer({ usage: 'vertex', size: INSTANCE_WORDS * 4 });
    standing.alone.write(standing.rows.slice(copy * INSTANCE_WORDS, (copy + 1) * INSTANCE_WORDS));
    return standing.alone;
  }

  private valuesOf(part: StandingPart, surface: MaterialPipelines, which: 'values' | 'seenValues'): OwnValues {
    const known = part[which];
    if (known?.surface === surface) return known.buffer;
    known?.buffer.destroy();
    const buffer = surface.createValues();
    part[which] = { surface, buffer };
    return buffer;
  }

  private putMesh(id: string, mesh: SetMesh): void {
    const before = this.meshes.get(id);
    const file = mesh.source && this.renderer.meshes.find(mesh.source.asset);
    const found = file && mesh.turned ? turnedMesh(file) : file;
    const kept =
      before && (found ? before.form instanceof MeshForm && before.form.isOf(found) : sameRecipe(before.mesh, mesh))
        ? before.form
        : undefined;
    const form = kept ?? this.formOf(mesh, found);
    const rows = instanceRows(mesh, 0);
    const copies = this.device.createBuffer({ usage: 'vertex', size: rows.byteLength });
    copies.write(rows);
    before?.copies.destroy();
    before?.alone?.destroy();
    before?.sorted?.destroy();
    if (!kept) before?.form.destroy();
    this.meshes.set(id, { mesh, form, rows, copies });
  }

  private formOf(mesh: SetMesh, file: MeshData | undefined): SurfaceForm {
    const upload = (data: MeshData): MeshBuffers => this.renderer.uploadMesh(data);
    if (mesh.shape === 'field') return new FieldForm(this.device, fieldSource(fieldText(mesh) ?? '', mesh.numbers), upload);
    const data = file ?? buildMesh(mesh);
    return new MeshForm(data, upload(data));
  }

  private removeMesh(id: string, { form, copies, alone, sorted }: StandingMesh): void {
    form.destroy();
    for (const each of [copies, alone, sorted]) each?.destroy();
    this.meshes.delete(id);
  }

  private dressParts(set: StageSet): void {
    const pointers = new Map(this.parts.map((part) => [`${part.mesh} ${part.part}`, part.pointer]));
    this.clearParts();
    this.parts = [...this.meshes].flatMap(([id, { form }], number) =>
      form.parts.map(({ name, first, count }, index): StandingPart => {
        const part = id === FLOOR ? FLOOR : name;
        const dress = overridesOf(set, id, part);
        const pointer = pointers.get(`${id} ${part}`) ?? new PointerEase();
        return {
          mesh: id,
          part,
          first,
          count,
          dress,
          pointer,
          object: objectBuffer(this.device, form.bounds, dress.depthOffset, dress.receives, index, form.numbers?.(number)),
        };
      }),
    );
  }

  private clearParts(): void {
    for (const part of this.parts) {
      part.object.destroy();
      part.values?.buffer.destroy();
      part.seenValues?.buffer.destroy();
    }
    this.parts = [];
  }
}

/** Whether two meshes have the same triangles, by what they are made from. */
function sameRecipe(a: SetMesh, b: SetMesh): boolean {
  return a.shape === b.shape && a.numbers === b.numbers && a.smooth === b.smooth && a.formula === b.formula;
}

function rowsAtRest(mesh: SetMesh): Float32Array {
  return instanceRows({ ...mesh, motion: STILL }, 0);
}

/** The middle of a mesh's bounds, where its first copy puts it. */
function middleOf({ form: { bounds }, rows }: StandingMesh): number[] {
  const middle = bounds.low.map((low, axis) => (low + (bounds.high[axis] ?? 0)) / 2);
  return [0, 1, 2].map((row) =>
    [0, 1, 2].reduce((sum, axis) => sum + (rows[row * 4 + axis] ?? 0) * (middle[axis] ?? 0), rows[row * 4 + 3] ?? 0),
  );
}

function floorMesh({ floor }: StageSet): SetMesh {
  const placing = { ...IN_PLACE, position: [0, floor.height, 0], turn: [-Math.PI / 2, 0, 0] };
  const numbers = { width: floor.size, height: floor.size };
  return { name: FLOOR, shape: 'plane', numbers, smooth: true, placing, motion: STILL, copies: ONE_COPY, order: 0 };
}

function cullOf(faces: PartOverrides['faces'], closed: boolean): PipelineState['cull'] {
  if (faces === 'auto') return closed ? 'back' : 'none';
  return { front: 'back', back: 'front', both: 'none' }[faces] as PipelineState['cull'];
}

/** A ray of world space in the space of a copy; distances along it stay the same. Nothing when the copy is flat. */
function intoObject(rows: Float32Array, at: number, origin: readonly number[], direction: readonly number[]): Ray | undefined {
  const cell = (row: number, column: number): number => rows[at + row * 4 + column] ?? 0;
  const cofactor = (row: number, column: number): number => {
    const [a, b] = [(row + 1) % 3, (row + 2) % 3];
    const [c, d] = [(column + 1) % 3, (column + 2) % 3];
    return cell(a, c) * cell(b, d) - cell(a, d) * cell(b, c);
  };
  const determinant = cell(0, 0) * cofactor(0, 0) + cell(0, 1) * cofactor(0, 1) + cell(0, 2) * cofactor(0, 2);
  if (Math.abs(determinant) < 1e-12) return undefined;
  const inverse = (vector: readonly number[]): number[] =>
    [0, 1, 2].map((column) => [0, 1, 2].reduce((sum, row) => sum + cofactor(row, column) * (vector[row] ?? 0), 0) / determinant);
  return { origin: inverse([0, 1, 2].map((axis) => (origin[axis] ?? 0) - cell(axis, 3))), direction: inverse(direction) };
}
