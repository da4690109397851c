import type { Material, MaterialCode } from '@brelvin/contract';
import type { Library } from '../../catalogue/library';
import { samplersOf } from '../assemble-line';
import { assembleMaterial } from '../assemble-material';
import type { ProgramImage } from '../lower';
import type { MaterialSource } from '../../document/material';
import { constant, construct, swizzle, zeroOf } from '../../ir/build';
import { PIXEL_DEPTH, PIXEL_PLACE } from '../../ir/builtin-variables';
import type { Expression, Global, IrFunction, Module, Statement } from '../../ir/ir';
import { countsSteps, RAN_OUT, STEP_COUNTERS, withAllSteps } from '../../ir/loop-guard';
import { mapBody, replaceGlobals } from '../../ir/map-body';
import { linkProgram, type Program } from '../../ir/program';
import { BOOL, componentCount, FLOAT, typeName, VEC2, VEC4, type Type } from '../../ir/types';
import { mapOperands } from '../../ir/walk';
import { functionForVertexStage } from '../../ir/for-vertex-stage';
import { elaborate, formatDiagnostic, type Diagnostic } from '../../language';
import type { CompiledMaterial, CompileOptions, CompileResult } from '../compiled-material';
import { MOST_IMAGES } from '../limits';
import { addedTerms, ownVariants } from '../surface-terms';
import { recordedProgram } from '../recorded-program';
import type { GraphProblem } from '../resolve';
import { VERTEX_GAP } from '../vertex-gap';
import { SlotAllocator, type Slot, type SlotSource } from '../slots';
import { countingFragmentModule, fragmentModule, vertexModule, type SurfaceProgram } from '../surface-programs';
import type { DeclaredParameter } from './declared-parameters';
import { CODE_PATH, codeDiagnostics, codeKey, readCode, type CodeProgram, type CodeStage } from './read-code';
import { partsOf, putTogether } from './uniform-parts';

/** A material whose surface is code. */
export type CodeMaterial = MaterialSource & { readonly code: MaterialCode };

/** Compiles a material that is written as code. Same texts, same result. */
export function compileCode(
  material: CodeMaterial,
  library: Library,
  { variants = [], wornBy = 'mesh' }: CompileOptions = {},
): CompileResult {
  const { parameters, program } = readCode(material.code, library);
  const diagnostics = codeDiagnostics(material.code, library);
  const said = { diagnostics, codeKey: codeKey(material.code), rates: {} };
  const errors = diagnostics.filter(({ severity }) => severity === 'error');
  if (!program) return { ...said, problems: errors.map(problemOf) };
  const linker = new CodeLinker(program, parameters, material, library);
  const problems = [...linker.problems(), ...(wornBy === 'field' ? linker.problemsOnField() : [])];
  if (problems.length > 0) return { ...said, problems };
  const opacity = wornBy === 'mesh' ? (material.opacity ?? (program.has.seenThrough ? 'blend' : undefined)) : undefined;
  const link = (surface: SurfaceProgram): Program => (wornBy === 'field' ? linker.linkRecorded(surface) : linker.link(surface, opacity));
  const shaped = program.has.shape && wornBy === 'mesh';
  const wanted = new Set([...variants, ...ownVariants(material, { shaped, opacity, wornBy })]);
  const { slots, images } = linker;
  const fed = { slots, frame: NOTHING_PER_FRAME, shaped, opacity, baked: [], images };
  return { ...said, problems: [], compiled: assembleMaterial('plain', wanted, { link, ...fed }) };
}

const NOTHING_PER_FRAME: CompiledMaterial['frame'] = { line: [], functions: new Map() };

function problemOf({ line, column, message, path }: Diagnostic): GraphProblem {
  return { node: '', message: `Line ${line}, column ${column}${path === 'vertices' ? ' of the vertices' : ''}: ${message}` };
}

/** The parameter of a document that a uniform is. */
export function parameterOf({ parameters }: Pick<Material, 'parameters'>, uniform: string): string | undefined {
  return Object.keys(parameters).find((id) => parameters[id]?.uniform === uniform);
}

/** Puts a code material together with the library's programs. */
class CodeLinker {
  private readonly slotTable = new SlotAllocator();
  readonly images: ProgramImage[] = [];
  private readonly full: DeclaredParameter[] = [];
  /** What is read instead of each parameter, by the uniform's name. */
  private readonly reads = new Map<string, Expression>();
  private readonly pixelFunctions: readonly IrFunction[];
  private readonly vertexFunctions: readonly IrFunction[];

  constructor(
    private readonly program: CodeProgram,
    parameters: readonly DeclaredParameter[],
    private readonly material: CodeMaterial,
    private readonly library: Library,
  ) {
    const types = new Map(
      [program.pixels, program.vertices].flatMap(
        (stage) => stage?.source.uniforms.flatMap((each) => partsOf(each) ?? []).map((each) => [each.name, each.type] as const) ?? [],
      ),
    );
    for (const each of parameters) this.place(each, types.get(each.uniform) ?? FLOAT);
    const packed = this.slotTable.packedReads();
    for (const [name, read] of this.reads) this.reads.set(name, packedRead(read, packed));
    this.pixelFunctions = this.inPlace(program.pixels);
    const gap = program.has.shape ? VERTEX_GAP : undefined;
    this.vertexFunctions = this.inPlace(program.vertices ?? program.pixels).map((each) => functionForVertexStage(each, gap));
  }

  get slots(): readonly Slot[] {
    return this.slotTable.slots;
  }

  /** What a device would refuse. */
  problems(): GraphProblem[] {
    const [over] = this.full;
    const found: GraphProblem[] = [];
    if (over) found.push({ node: '', message: `There is no room for all parameters: “${over.uniform}” is beyond what a device takes.` });
    if (this.images.length > MOST_IMAGES)
      found.push({
        node: '',
        message: `A material may read ${MOST_IMAGES} different images; there are ${this.images.length}. Pack channels into one image.`,
      });
    return found;
  }

  private place(parameter: DeclaredParameter, type: Type): void {
    const { uniform } = parameter;
    const id = parameterOf(this.material, uniform) ?? `u-${uniform}`;
    if (type.kind === 'sampler') {
      const sampler = `image${this.images.length}`;
      const cube = type.name === 'samplerCube';
      this.images.push({ sampler, image: this.material.parameters[id]?.image, ...(cube ? { cube } : {}) });
      this.reads.set(uniform, { op: 'reference', scope: 'global', name: sampler, type });
      return;
    }
    const whole = typeName(type) === 'int' || typeName(type) === 'uint';
    const source: SlotSource = whole
      ? { from: 'halves', parameter: id, signed: typeName(type) === 'int' }
      : { from: 'parameter', parameter: id };
    const slot = this.slotTable.allocate(whole ? VEC2 : typeName(type) === 'bool' ? FLOAT : type, source);
    if (slot) this.reads.set(uniform, asType(slot, type));
    else this.full.push(parameter);
  }

  /** A stage's functions with everything from outside in its place. */
  private inPlace({ functions, source, standIns }: CodeStage): IrFunction[] {
    const replaced = new Map<string, Expression>();
    const named = (name: string, type: Type): Expression => ({ op: 'reference', scope: 'global', name, type });
    if (this.program.output) replaced.set(this.program.output.name, named(OUTPUT, this.program.output.type));
    for (const { name, type } of this.program.carried) replaced.set(name, named(carriedName(name), type));
    for (const uniform of source.uniforms) {
      const read = putTogether(uniform, (part) => this.reads.get(part));
      if (read) replaced.set(uniform.irName, read);
    }
    const stands = glue(
      [...standIns]
        .map(([, expression], index) => `${typeOf(source.module, [...standIns.keys()][index])} standIn${index}() { return ${expression}; }`)
        .join('\n'),
      this.vertexAttributes(source.module),
    );
    [...standIns.keys()].forEach((irName, index) => {
      const declared = stands.functions.get(`standIn${index}()`);
      const [statement] = declared?.body ?? [];
      if (statement?.op === 'return' && statement.value) replaced.set(irName, statement.value);
    });
    if (!this.program.rowsDown) replaced.set(PIXEL_PLACE, { op: 'call', callee: 'fragCoordUpwards()', args: [], type: VEC4 });
    return functions.map((each) => ({ ...each, body: [...replaceGlobals(this.asWritten(each), replaced)] }));
  }

  /** In the text of a whole program y goes up, as the standard says (GLSL ES 3.00, sections 7.2 and 8.9); ours goes down. */
  private asWritten({ body, origin }: IrFunction): readonly Statement[] {
    const { rowsDown } = this.program;
    return !rowsDown && origin.path === CODE_PATH ? mapBody(body, slopesUpwards) : body;
  }

  /** The module with all that stand-ins may name: attributes are declared only where vertices are placed. */
  private vertexAttributes(module: Module): Module {
    return {
      ...module,
      globals: new Map([...vertexModule('plain', { shaped: false, carries: false }).globals, ...this.library.module.globals]),
    };
  }

  link(surface: SurfaceProgram, opacity: CodeMaterial['opacity']): Program {
    return linkProgram(this.vertex(surface), this.fragment(this.base(surface, opacity)));
  }

  /** Over a part of a field. */
  linkRecorded(surface: SurfaceProgram): Program {
    return recordedProgram(this.fragment(this.base(surface)));
  }

  /** Why it cannot be worn by a field. */
  problemsOnField(): GraphProblem[] {
    const { vertices, carried } = this.program;
    const why = vertices ? 'it has vertices of its own' : carried.length > 0 ? `its shape hands on “${carried[0]?.name}”` : undefined;
    return why
      ? [{ node: '', message: `A field has no vertices, so its parts cannot wear this: ${why}. Give them a material that paints.` }]
      : [];
  }

  private base(surface: SurfaceProgram, opacity?: CodeMaterial['opacity']): Module {
    return countsSteps(this.pixelFunctions) ? countingFragmentModule(surface, opacity) : fragmentModule(surface, opacity);
  }

  private fragment(module: Module): Module {
    const { program } = this;
    const { output } = program;
    const outputs: Global[] = output ? [{ name: OUTPUT, type: output.type, storage: 'private' }] : [];
    const unseen = program.unseen.map((each): Global => ({ ...each, storage: 'private' }));
    const privates = [...privatesOf(program.pixels), ...unseen];
    const base = this.withOwn(module, this.pixelFunctions, [...this.carried('in'), ...outputs, ...privates]);
    const painters = ['paintSurface()', 'paintEmission()', 'paintOpacity()', 'paintOutline()'];
    const painted = glue(pixelGlue(program), base, painters);
    const functions = new Map(painted.functions);
    if (countsSteps(this.pixelFunctions)) {
      functions.set(RAN_OUT.signature, RAN_OUT);
      for (const each of painters) {
        const painter = functions.get(each);
        if (painter) functions.set(each, withAllSteps(painter));
      }
    }
    for (const each of painters) {
      const painter = functions.get(each);
      if (painter) functions.set(each, beginningWith(painter, privates, program.writesDepth));
    }
    const paintSurface = functions.get('paintSurface()');
    if (!paintSurface) throw new ReferenceError('the glue of a code material must paint');
    const added = addedTerms(paintSurface, functions, base);
    functions.set(added.signature, added);
    return { ...base, functions };
  }

  private vertex(surface: SurfaceProgram): Module {
    const { program } = this;
    const { shape } = program.has;
    const carries = program.carried.length > 0 && shape;
    const whole = program.vertices !== undefined;
    const module = vertexModule(surface, { shaped: shape, carries, whole });
    if (!shape && !whole) return module;
    const privates = privatesOf(program.vertices ?? program.pixels);
    const base = this.withOwn(module, this.vertexFunctions, [...this.carried('out'), ...privates]);
    const runs = ['shapeOffset()', 'carryToPixels()', 'codeVertices()'];
    const glued = glue(shape ? shapeGlue(program) : 'void codeVertices() { codeMain(); }', base, runs);
    const functions = new Map(glued.functions);
    for (const each of runs) {
      const run = functions.get(each);
      if (run) functions.set(each, beginningWith(run, privates, false));
    }
    return { ...glued, functions };
  }

  private carried(storage: 'in' | 'out'): Global[] {
    return this.program.carried.map(({ name, type, flat }) => ({ name: carriedName(name), type, flat, storage }));
  }

  /** A module with the material's own functions and what they read; `main` of a whole program under another name. */
  private withOwn(module: Module, functions: readonly IrFunction[], globals: readonly Global[]): Module {
    const block = this.slotTable.block();
    const samplers = samplersOf(this.images).map(([, each]) => each);
    const all = [...globals, ...samplers, this.slotTable.blockGlobal(), ...STEP_COUNTERS];
    const renamed = functions.map((each) => (each.signature === 'main()' ? { ...each, signature: 'codeMain()', name: 'codeMain' } : each));
    return {
      structs: new Map([...module.structs, ...this.ownStructs()]),
      globals: new Map([...module.globals, ...all.map((each): [string, Global] => [each.name, each])]),
      blocks: new Map(module.blocks).set(block.name, block),
      functions: new Map([...module.functions, ...renamed.map((each): [string, IrFunction] => [each.signature, each])]),
    };
  }

  private ownStructs(): Module['structs'] {
    return new Map([this.program.pixels, this.program.vertices].flatMap((stage) => (stage ? [...stage.source.module.structs] : [])));
  }
}

/** What a whole program's `main` writes, out of the way of the library's programs. */
const OUTPUT = 'codeOutput';

/** Variables of the text that its functions may change. */
function privatesOf({ source }: CodeStage): Global[] {
  return [...source.module.globals.values()].filter(({ storage, origin }) => storage === 'private' && origin !== undefined);
}

/** Each run of a material's code begins with its variables as they are written, also the second one at a pixel. */
function beginningWith(run: IrFunction, privates: readonly Global[], writesDepth: boolean): IrFunction {
  if (privates.length === 0 && !writesDepth) return run;
  const anew = privates.map(({ name, type, value }): Statement => ({
    op: 'assign',
    target: { op: 'reference', scope: 'global', name, type },
    value: value ?? zeroOf(type),
  }));
  const place: Expression = { op: 'reference', scope: 'global', name: PIXEL_PLACE, type: VEC4 };
  const depth: Statement = {
    op: 'assign',
    target: { op: 'reference', scope: 'global', name: PIXEL_DEPTH, type: FLOAT },
    value: swizzle(place, [2]),
  };
  return { ...run, body: [...anew, ...(writesDepth ? [depth] : []), ...run.body] };
}

function slopesUpwards(expression: Expression): Expression {
  const inside = mapOperands(expression, slopesUpwards);
  return inside.op === 'builtin' && inside.name === 'dFdy' ? { op: 'unary', operator: '-', value: inside, type: inside.type } : inside;
}

function carriedName(name: string): string {
  return `carried_${name}`;
}

function typeOf(module: Module, global: string | undefined): string {
  return typeName(module.globals.get(global ?? '')?.type ?? FLOAT);
}

/** A number of the block as the type that the code declares. */
function asType(slot: Expression, type: Type): Expression {
  if (typeName(type) === 'bool') return { op: 'binary', operator: '>', left: slot, right: constant(FLOAT, [0.5]), type: BOOL };
  if (typeName(type) !== 'int' && typeName(type) !== 'uint') return slot;
  const [high, low] = [0, 1].map((half) => construct(type, [swizzle(slot, [half])])) as [Expression, Expression];
  const shifted: Expression = { op: 'binary', operator: '<<', left: high, right: constant(type, [16]), type };
  return { op: 'binary', operator: '|', left: shifted, right: low, type };
}

function packedRead(read: Expression, packed: ReadonlyMap<string, Expression>): Expression {
  const [returned] = replaceGlobals([{ op: 'return', value: read }], packed);
  return returned?.op === 'return' && returned.value ? returned.value : read;
}

/** What the library's programs call, in terms of what the material has. */
function pixelGlue({ form, output, has: { opacity, outline, paints } }: CodeProgram): string {
  const whole = form === 'whole';
  const paint = whole ? '' : 'paint(thisSurface())';
  const surface = whole
    ? `codeMain(); return emitted(${colourOf(output)});`
    : `return ${paints === 'Lit' ? paint : paints === 'vec4' ? `emitted(${paint}.rgb)` : `emitted(${paint})`};`;
  const cover = whole
    ? `codeMain(); return ${typeName(output?.type ?? FLOAT) === 'vec4' ? `clamp(${OUTPUT}.a, 0.0, 1.0)` : '1.0'};`
    : `return clamp(${opacity ? 'opacity(thisSurface())' : paints === 'vec4' ? `${paint}.a` : '1.0'}, 0.0, 1.0);`;
  return `Lit paintSurface() { ${surface} }
vec3 paintEmission() { return vec3(0.0); }
float paintOpacity() { ${cover} }
vec3 paintOutline() { return ${outline ? 'outline(thisSurface())' : 'vec3(0.0)'}; }`;
}

/** What a program gives as a colour: components that it does not give are 0. */
function colourOf(output: CodeProgram['output']): string {
  const size = componentCount(output?.type ?? VEC4);
  return size === 1 ? `vec3(${OUTPUT}, 0.0, 0.0)` : size === 2 ? `vec3(${OUTPUT}, 0.0)` : `${OUTPUT}.rgb`;
}

/** `shape` is asked several times for a vertex; what it carries counts only where the vertex stands. */
function shapeGlue({ carried }: CodeProgram): string {
  const lines = (work: (name: string, type: Type, index: number) => string): string =>
    carried.map(({ name, type }, index) => work(name, type, index)).join(' ');
  return `vec3 shapeOffset() {
  ${lines((name, type, index) => `${typeName(type)} kept${index} = ${carriedName(name)};`)}
  Shape vertex = thisShape();
  shape(vertex);
  ${lines((name, _, index) => `${carriedName(name)} = kept${index};`)}
  return vertex.position - worldPosition;
}
void carryToPixels() {
  ${lines((name, type) => `${carriedName(name)} = ${writtenZero(type)};`)}
  Shape vertex = thisShape();
  shape(vertex);
}`;
}

function writtenZero(type: Type): string {
  return `${typeName(type)}(${componentCount(type) > 0 ? '0' : ''})`;
}

/**
 * Reads a text of ours on top of a module.
 *
 * @param without functions of the module that the text puts its own in the place of
 * @throws SyntaxError when the text is wrong, which our tests rule out
 */
function glue(text: string, module: Module, without: readonly string[] = []): Module {
  const functions = new Map(module.functions);
  for (const signature of without) functions.delete(signature);
  const read = elaborate('glue', text, { ...module, functions });
  const [error] = read.diagnostics;
  if (error) throw new SyntaxError(formatDiagnostic(error));
  // What is not in the text stays as it was.
  return { ...read.module, functions: new Map([...module.functions, ...read.module.functions]) };
}
