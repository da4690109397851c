import type { MaterialCode } from '@brelvin/contract';
import { importerOf } from '../../catalogue/function-library';
import { programNames, type Library } from '../../catalogue/library';
import { hashText } from '../../ir/hash';
import { PIXEL_DEPTH } from '../../ir/builtin-variables';
import type { Global, IrFunction, Statement } from '../../ir/ir';
import { hardened } from '../../ir/hardened';
import { componentCount, scalarOf, typeName, type Type } from '../../ir/types';
import { expressionsOf, walkExpression, walkStatements } from '../../ir/walk';
import { weightOf } from '../../ir/weight';
import {
  DiagnosticList,
  elaborate,
  goodMends,
  SourceText,
  withoutComments,
  type Diagnostic,
  type ElaboratedSource,
  type ElaborationOptions,
  isWgsl,
  type SymbolIndex,
} from '../../language';
import { MOST_CARRIED, TOO_MANY_CARRIED } from '../limits';
import { givesOpaque, writesOpaque } from './alpha';
import { knownDirections } from './known-directions';
import { declaredParameters, type DeclaredParameter } from './declared-parameters';
import { SYSTEM_ATTRIBUTES, SYSTEM_UNIFORMS, SYSTEM_VARYINGS, type SystemName } from './system-names';

/** How diagnostics call the texts of a code material. */
export const CODE_PATH = 'code';
export const VERTICES_PATH = 'vertices';

/** What stands for a variable of the text: a library expression, by the variable's name in the IR. */
export type StandIns = ReadonlyMap<string, string>;

/** One stage of a code material, ready to be linked. */
export interface CodeStage {
  /** Its own functions and those that came with imports, loops guarded. */
  readonly functions: readonly IrFunction[];
  readonly source: ElaboratedSource;
  readonly standIns: StandIns;
}

/** A value that goes from the vertices to the pixels, under its name in the IR. */
export type CarriedGlobal = Pick<Global, 'name' | 'type' | 'flat'>;

/** A code material that was read without an error. */
export interface CodeProgram {
  readonly form: 'functions' | 'whole';
  readonly pixels: CodeStage;
  /** Of a whole program: its own vertex stage. */
  readonly vertices?: CodeStage;
  readonly carried: readonly CarriedGlobal[];
  /** Of a whole program: what its `main` writes as the picture. */
  readonly output?: Pick<Global, 'name' | 'type'>;
  /** What else it writes, which nothing shows. */
  readonly unseen: readonly Pick<Global, 'name' | 'type'>[];
  /** Whether its rows count downwards, as ours do; those of GLSL count upwards. */
  readonly rowsDown: boolean;
  /** Whether it gives its depth itself. */
  readonly writesDepth: boolean;
  /** Which of the functions that a material may have there are; what `paint` gives. */
  readonly has: {
    readonly shape: boolean;
    readonly opacity: boolean;
    readonly outline: boolean;
    readonly paints: 'Lit' | 'vec3' | 'vec4';
    /** Whether its alpha may be below 1. */
    readonly seenThrough: boolean;
  };
}

export interface CodeReading {
  readonly diagnostics: readonly Diagnostic[];
  readonly parameters: readonly DeclaredParameter[];
  /** Absent while there is an error. */
  readonly program?: CodeProgram;
}

/** Operations that a program may have with all calls put in place; drivers take many seconds beyond. */
const HEAVIEST = 300_000;

const WHOLE = /\bvoid\s+main\s*\(/;
const ENTRY = /@(?:fragment|vertex)\b/;

/** Whether a text is a whole program, in the manner of the standard, instead of functions. */
export function isWhole({ text, vertices }: MaterialCode): boolean {
  return isWgsl(text) ? ENTRY.test(withoutComments(text)) : WHOLE.test(withoutComments(text)) || vertices !== undefined;
}

/** Tells texts apart: what was said of one is not said of another. */
export function codeKey({ text, vertices }: MaterialCode): string {
  return hashText(`${text}\n${vertices ?? ''}`);
}

interface Remembered {
  readonly key: readonly unknown[];
  readonly reading: CodeReading;
}
const remembered: Remembered[] = [];
const MOST_REMEMBERED = 16;

/** Reads the text of a material. The same text is read once, as long as the functions of the Library stay the same. */
export function readCode(code: MaterialCode, library: Library): CodeReading {
  const key = [code.text, code.vertices, library];
  const at = remembered.findIndex((each) => each.key.every((part, index) => part === key[index]));
  const found = remembered[at];
  if (found) return found.reading;
  const reading = new CodeReader(code, library).read();
  remembered.unshift({ key, reading });
  remembered.length = Math.min(remembered.length, MOST_REMEMBERED);
  return reading;
}

const said = new WeakMap<CodeReading, readonly Diagnostic[]>();

/** What is to be said of a material's texts, with those mends that mend. */
export function codeDiagnostics(code: MaterialCode, library: Library): readonly Diagnostic[] {
  const reading = readCode(code, library);
  const known = said.get(reading);
  if (known) return known;
  const found = goodMends(
    reading.diagnostics,
    (path) => (path === VERTICES_PATH ? code.vertices : code.text) ?? '',
    (path, text) => new CodeReader(path === VERTICES_PATH ? { ...code, vertices: text } : { ...code, text }, library).read().diagnostics,
  );
  said.set(reading, found);
  return found;
}

const UNIFORM_NAMES: ReadonlySet<string> = new Set(Object.keys(SYSTEM_UNIFORMS));
const VARYING_NAMES: ReadonlySet<string> = new Set(Object.keys(SYSTEM_VARYINGS));
const ATTRIBUTE_NAMES: ReadonlySet<string> = new Set(Object.keys(SYSTEM_ATTRIBUTES));

/** What a text of a material is read with. */
export function codeOptions(library: Library, index?: SymbolIndex): ElaborationOptions {
  const names = { mark: 'mine', taken: programNames() };
  return {
    advice: true,
    parameters: true,
    names,
    importer: importerOf(library),
    directions: knownDirections(library),
    systemUniforms: UNIFORM_NAMES,
    systemInputs: (stage) => (stage === 'pixels' ? VARYING_NAMES : ATTRIBUTE_NAMES),
    index,
  };
}

class CodeReader {
  private readonly texts: { readonly source: SourceText; readonly diagnostics: DiagnosticList }[] = [];

  constructor(
    private readonly code: MaterialCode,
    private readonly library: Library,
  ) {}

  read(): CodeReading {
    const whole = isWhole(this.code);
    const { text, vertices: second } = this.code;
    const wgsl = isWgsl(text);
    const pixels = this.text(CODE_PATH, text, whole && wgsl ? 'pixels' : undefined);
    const vertices = wgsl ? this.vertexEntry() : second === undefined ? undefined : this.text(VERTICES_PATH, second);
    const parameters = this.parameters(whole, pixels, vertices);
    const program = whole ? this.whole(pixels, vertices) : this.functions(pixels);
    const diagnostics = this.texts.flatMap((each) => each.diagnostics.items);
    const broken = diagnostics.some(({ severity }) => severity === 'error');
    return { diagnostics, parameters, program: broken ? undefined : program };
  }

  /** Of WGSL both stages stand in one text: it is read once for each. */
  private vertexEntry(): ElaboratedSource | undefined {
    const { text, vertices } = this.code;
    if (vertices !== undefined) this.say('In WGSL the vertices stand in the same text, with “@vertex”. Take the second text away.');
    if (!/@vertex\b/.test(withoutComments(text))) return undefined;
    return elaborate(CODE_PATH, text, this.library.module, { ...codeOptions(this.library), advice: false, stage: 'vertices' });
  }

  private text(path: string, text: string, stage?: ElaborationOptions['stage']): ElaboratedSource {
    const source = new SourceText(path, text);
    const read = elaborate(path, text, this.library.module, { ...codeOptions(this.library), stage });
    const diagnostics = new DiagnosticList(source);
    diagnostics.items.push(...read.diagnostics);
    this.texts.push({ source, diagnostics });
    return read;
  }

  private say(message: string, range = { from: 0, to: 0 }, text = 0, mends: Parameters<DiagnosticList['add']>[3] = {}): void {
    this.texts[text]?.diagnostics.add('error', message, range, mends);
  }

  /** Uniforms of both texts, each once; both must agree on them. */
  private parameters(whole: boolean, pixels: ElaboratedSource, vertices: ElaboratedSource | undefined): DeclaredParameter[] {
    const system = (name: string): boolean => whole && Object.hasOwn(SYSTEM_UNIFORMS, name);
    const all: DeclaredParameter[] = [];
    [pixels, vertices].forEach((source, text) => {
      if (!source) return;
      // Of WGSL both stages are of one text, whose uniforms were read already.
      if (text === 1 && isWgsl(this.code.text)) return;
      const { parameters, problems } = declaredParameters(source.uniforms.filter(({ name }) => !system(name)));
      for (const { severity, message, range } of problems) this.texts[text]?.diagnostics.add(severity, message, range);
      for (const each of parameters) {
        const before = all.find(({ uniform }) => uniform === each.uniform);
        if (!before) all.push(each);
        else if (before.codeType !== each.codeType) {
          this.say(
            `“${each.uniform}” is ${each.codeType} here, but ${before.codeType} in the pixel stage. Both must agree.`,
            each.nameRange,
            text,
          );
        }
      }
    });
    return all;
  }

  /** A material of `paint`, and perhaps `shape`, `opacity` and `outline`. */
  private functions(source: ElaboratedSource): CodeProgram | undefined {
    const { module } = source;
    const find = (name: string): IrFunction[] => ownOf(source).filter((each) => each.name === name);
    const [paint, second] = find('paint');
    if (!paint) {
      const end = this.code.text.length;
      const wgsl = isWgsl(this.code.text);
      const mend = { label: 'Add a paint function', edits: [{ from: end, to: end, text: wgsl ? FIRST_WGSL_PAINT : FIRST_PAINT }] };
      const words = wgsl ? '“fn paint(s: Surface) -> Lit” or “… -> vec4f”' : '“Lit paint(Surface s)” or “vec4 paint(Surface s)”';
      if (this.noErrors) this.say(`A material needs ${words}.`, undefined, 0, { mends: [mend] });
      return undefined;
    }
    if (second) this.say('A material has one “paint”.', second.nameRange);
    const paints = typeName(paint.result);
    this.head(paint, ['Lit', 'vec4', 'vec3'], 'Surface', 'in');
    const [shape] = find('shape');
    const [opacity] = find('opacity');
    const [outline] = find('outline');
    if (shape) this.head(shape, ['void'], 'Shape', 'inout');
    if (opacity) this.head(opacity, ['float'], 'Surface', 'in');
    if (outline) this.head(outline, ['vec3'], 'Surface', 'in');
    const outs = [...module.globals.values()].filter(({ storage, origin }) => storage === 'out' && origin?.path === CODE_PATH);
    for (const each of module.globals.values()) {
      if (each.storage !== 'in' || each.origin?.path !== CODE_PATH) continue;
      const message =
        'Nothing comes in from outside here. What “shape” hands on to “paint” is declared once, with “out”; the rest is in Surface.';
      this.say(message, each.origin.range);
    }
    this.carried(outs, 0);
    if (!shape && this.noErrors) {
      for (const { origin } of outs)
        this.say('Nothing writes this: only “void shape(inout Shape s)” can hand something on to “paint”.', origin?.range);
    }
    const pixelRoots = pixelRootsOf(paint, opacity, outline);
    this.onlyRead(outs, pixelRoots, source);
    if (shape) this.withoutDiscard(shape, source);
    this.withoutDepth([...pixelRootsOf(paint, opacity, outline), ...(shape ? [shape] : [])], source);
    this.weigh([...pixelRoots, ...(shape ? [shape] : [])], source);
    return {
      form: 'functions',
      pixels: this.stage(source, new Map()),
      carried: shape ? outs : [],
      unseen: [],
      rowsDown: true,
      writesDepth: false,
      has: {
        shape: Boolean(shape),
        opacity: Boolean(opacity),
        outline: Boolean(outline),
        paints: paints === 'vec4' || paints === 'vec3' ? paints : 'Lit',
        seenThrough: Boolean(opacity) || (paints === 'vec4' && !givesOpaque(paint, module.functions)),
      },
    };
  }

  /** Programs with `void main()` in each stage. */
  private whole(pixels: ElaboratedSource, vertices: ElaboratedSource | undefined): CodeProgram | undefined {
    const wgsl = isWgsl(this.code.text);
    // Of WGSL both stages are of one text.
    const [second, path] = wgsl ? [0, CODE_PATH] : [1, VERTICES_PATH];
    const mains = [pixels, vertices].map((source, stage) => {
      const text = stage === 0 ? 0 : second;
      const main = source && ownOf(source).find((each) => each.name === 'main' && each.parameters.length === 0);
      const wanted = wgsl ? 'a function with “@fragment”' : '“void main()” in each stage';
      if (source && !main && this.noErrors) this.say(`A whole program needs ${wanted}.`, undefined, text);
      return main;
    });
    const [output, ...unseen] = this.outputs(globalsOf(pixels, CODE_PATH, 'out'));
    if (mains[0] && !output && this.noErrors && wgsl)
      this.say('The pixels give nothing. Return a colour: -> @location(0) vec4f.', mains[0].nameRange);
    else if (mains[0] && !output && this.noErrors) {
      const mend = { label: 'Declare “out vec4 pixel”', edits: [{ from: 0, to: 0, text: 'out vec4 pixel;\n' }] };
      this.say('The pixel stage gives nothing. Declare “out vec4 pixel;” and put a colour into it.', undefined, 0, { mends: [mend] });
    }
    const carried = vertices ? globalsOf(vertices, path, 'out') : [];
    this.carried(carried, second);
    const taken = globalsOf(pixels, CODE_PATH, 'in');
    if (vertices) this.match(taken, carried);
    const standIns = [
      this.standIns(pixels, CODE_PATH, vertices ? undefined : SYSTEM_VARYINGS, 0),
      vertices && this.standIns(vertices, path, SYSTEM_ATTRIBUTES, second),
    ] as const;
    const [pixelMain, vertexMain] = mains;
    if (pixelMain) this.weigh([pixelMain], pixels);
    if (vertexMain && vertices) {
      this.weigh([vertexMain], vertices);
      this.withoutDiscard(vertexMain, vertices, second);
    }
    if (!output) return undefined;
    return {
      form: 'whole',
      pixels: this.stage(pixels, standIns[0]),
      vertices: vertices && this.stage(vertices, standIns[1] ?? new Map()),
      carried: carried.filter(({ name }) => taken.some((each) => each.name === name)),
      output,
      rowsDown: wgsl,
      unseen,
      writesDepth: this.writesDepth(pixelMain, pixels),
      has: {
        shape: false,
        opacity: false,
        outline: false,
        paints: 'vec4',
        seenThrough: typeName(output.type) === 'vec4' && !writesOpaque(output.name, ownOf(pixels), pixels.module.functions),
      },
    };
  }

  /** What the pixel stage gives, the one that is seen first. */
  private outputs(all: readonly Global[]): readonly Global[] {
    const sorted = [...all].sort((a, b) => (a.location ?? 0) - (b.location ?? 0));
    for (const { type, location, origin } of sorted) {
      const scalar = scalarOf(type);
      const fits = componentCount(type) > 0 && type.kind !== 'matrix' && scalar !== 'bool';
      if (!fits)
        this.say(`The pixel stage cannot give a ${typeName(type)}. Take a float or a vector, as in “out vec4 pixel”.`, origin?.range);
      else if (all.length > 1 && location === undefined)
        this.say('With several outputs each has its place: layout(location = 0) out vec4 …', origin?.range);
      const before = sorted.find((each) => each.location === location);
      if (location !== undefined && before?.origin !== origin) this.say(`Location ${location} is taken by another output.`, origin?.range);
    }
    const [first, ...unseen] = sorted;
    if (first && scalarOf(first.type) !== 'float') {
      this.say(`What is shown must be of floats, as in “out vec4 pixel”; this is ${typeName(first.type)}.`, first.origin?.range);
    }
    for (const { origin } of unseen)
      this.warn('Only the output at location 0 is shown; this one is computed and thrown away.', origin?.range);
    return sorted;
  }

  private warn(message: string, range = { from: 0, to: 0 }, text = 0): void {
    this.texts[text]?.diagnostics.add('warning', message, range);
  }

  /** Whether a stage gives its depth itself (GLSL ES 3.00 section 7.2). */
  private writesDepth(root: IrFunction | undefined, source: ElaboratedSource): boolean {
    return root !== undefined && writesTo(PIXEL_DEPTH, [root], source).length > 0;
  }

  private withoutDepth(roots: readonly IrFunction[], source: ElaboratedSource): void {
    for (const { origin } of writesTo(PIXEL_DEPTH, roots, source))
      this.say('Only a whole program with “void main()” gives its own depth.', origin?.range);
  }

  private get noErrors(): boolean {
    return !this.texts.some(({ diagnostics }) => diagnostics.items.some(({ severity }) => severity === 'error'));
  }

  private stage(source: ElaboratedSource, standIns: StandIns): CodeStage {
    const { functions } = this.library.module;
    const brought = [...source.module.functions.values()].filter((each) => functions.get(each.signature) !== each);
    const own = new Set(source.own);
    const safe = hardened(
      brought.filter(({ signature }) => own.has(signature)),
      source.module.functions,
    );
    return { functions: [...brought.filter(({ signature }) => !own.has(signature)), ...safe], source, standIns };
  }

  private head(
    declared: IrFunction,
    results: readonly string[],
    struct: string,
    direction: IrFunction['parameters'][number]['direction'],
  ): void {
    const { parameters, name, nameRange, result } = declared;
    const [first] = parameters;
    const fits = parameters.length === 1 && first && typeName(first.type) === struct && first.direction === direction;
    if (fits && results.includes(typeName(result))) return;
    const form = (result: string): string => {
      if (!isWgsl(this.code.text)) return `${result} ${name}(${direction === 'in' ? '' : `${direction} `}${struct} s)`;
      const given = result === 'void' ? '' : ` -> ${WGSL_RESULTS[result] ?? result}`;
      return `fn ${name}(s: ${direction === 'in' ? struct : `ptr<function, ${struct}>`})${given}`;
    };
    const forms = results.map(form).join(' or ');
    this.say(`“${name}” must be written as ${forms}.`, nameRange);
  }

  private carried(outs: readonly Global[], text: number): void {
    for (const { type, flat, origin } of outs) {
      const scalar = scalarOf(type);
      if (componentCount(type) === 0 || type.kind === 'matrix' || scalar === 'bool')
        this.say(`A ${typeName(type)} cannot be carried to the pixels. Take a float or vector.`, origin?.range, text);
      else if (scalar !== 'float' && !flat)
        this.say('Whole numbers cannot be blended between vertices. Write “flat out”.', origin?.range, text);
    }
    const over = outs[MOST_CARRIED];
    if (over) this.say(TOO_MANY_CARRIED, over.origin?.range, text);
  }

  /** What the pixel stage takes must be handed on by the vertex stage. */
  private match(taken: readonly Global[], carried: readonly Global[]): void {
    for (const { name: irName, type, origin } of taken) {
      const source = carried.find((each) => each.name === irName);
      const name = this.written(irName, origin, 0);
      if (!source) this.say(`The vertex stage hands on no “${name}”. Declare it there: out ${typeName(type)} ${name};`, origin?.range);
      else if (typeName(source.type) !== typeName(type))
        this.say(`“${name}” is ${typeName(type)} here, but the vertex stage hands on a ${typeName(source.type)}.`, origin?.range);
    }
  }

  /** What the names of outside stand for. */
  private standIns(source: ElaboratedSource, path: string, ins: Readonly<Record<string, SystemName>> | undefined, text: number): StandIns {
    const found = new Map<string, string>();
    const put = (name: string, irName: string, type: Type, known: SystemName, range: Global['origin']): void => {
      if (typeName(type) === known.type) found.set(irName, known.stands);
      else this.say(`“${name}” is a ${known.type}, not a ${typeName(type)}. ${known.help}`, range?.range, text);
    };
    for (const { name, irName, type, nameRange } of source.uniforms) {
      const known = Object.hasOwn(SYSTEM_UNIFORMS, name) ? SYSTEM_UNIFORMS[name] : undefined;
      if (known) put(name, irName, type, known, { path, range: nameRange });
    }
    if (!ins) return found;
    for (const { name: irName, type, origin, called } of globalsOf(source, path, 'in')) {
      const name = called ?? this.written(irName, origin, text);
      const known = Object.hasOwn(ins, name) ? ins[name] : undefined;
      if (known) put(name, irName, type, known, origin);
      else this.say(`There is no “${name}” to take in. There are ${Object.keys(ins).join(', ')}.`, origin?.range, text);
    }
    return found;
  }

  /** A variable's name as it stands in the text. */
  private written(irName: string, origin: Global['origin'], text: number): string {
    return origin?.range ? (this.texts[text]?.source.slice(origin.range) ?? irName) : irName;
  }

  /** What is carried to the pixels can only be read there. */
  private onlyRead(outs: readonly Global[], roots: readonly IrFunction[], source: ElaboratedSource): void {
    const names = new Set(outs.map(({ name }) => name));
    if (names.size === 0) return;
    for (const declared of reached(roots, source)) {
      walkStatements(declared.body, (statement) => {
        if (statement.op !== 'assign') return;
        let root = statement.target;
        while (root.op === 'member' || root.op === 'swizzle' || root.op === 'index') root = root.object;
        if (root.op === 'reference' && root.scope === 'global' && names.has(root.name))
          this.say(
            `“${this.written(root.name, source.module.globals.get(root.name)?.origin, 0)}” comes from the vertices; only “shape” can write it.`,
            statement.origin?.range,
          );
      });
    }
  }

  /** Vertices cannot be left out. */
  private withoutDiscard(root: IrFunction, source: ElaboratedSource, text = 0): void {
    for (const declared of reached([root], source)) {
      walkStatements(declared.body, (statement) => {
        if (statement.op === 'discard')
          this.say('“discard” leaves out pixels; it cannot stand in the vertex stage.', statement.origin?.range, text);
      });
    }
  }

  private weigh(roots: readonly IrFunction[], { module }: ElaboratedSource): void {
    for (const { signature, nameRange, name } of roots) {
      const weight = weightOf(signature, module.functions);
      if (weight <= HEAVIEST) continue;
      const words = `${Math.round(weight / 1000).toLocaleString('en')},000`;
      this.say(
        `With all calls put in place “${name}” has about ${words} operations; devices take at most ${HEAVIEST / 1000},000.`,
        nameRange,
      );
    }
  }
}

const WGSL_RESULTS: Readonly<Record<string, string>> = { vec3: 'vec3f', vec4: 'vec4f', float: 'f32' };

export const FIRST_WGSL_PAINT = `
fn paint(s: Surface) -> Lit {
  return lambert(vec3f(0.8), s.normal);
}
`;

export const FIRST_PAINT = `
Lit paint(Surface s) {
  return lambert(vec3(0.8), s.normal);
}
`;

function ownOf({ own, module }: ElaboratedSource): IrFunction[] {
  return own.flatMap((signature) => module.functions.get(signature) ?? []);
}

function globalsOf({ module }: ElaboratedSource, path: string, storage: Global['storage']): Global[] {
  return [...module.globals.values()].filter((each) => each.storage === storage && each.origin?.path === path);
}

function pixelRootsOf(...roots: readonly (IrFunction | undefined)[]): IrFunction[] {
  return roots.filter((each) => each !== undefined);
}

/** Statements that write to a global, anywhere below some functions. */
function writesTo(name: string, roots: readonly IrFunction[], source: ElaboratedSource): Statement[] {
  const found: Statement[] = [];
  for (const { body } of reached(roots, source)) {
    walkStatements(body, (statement) => {
      if (statement.op === 'assign' && statement.target.op === 'reference' && statement.target.name === name) found.push(statement);
    });
  }
  return found;
}

/** The functions of the text that are reached from some of them. */
function reached(roots: readonly IrFunction[], { module }: ElaboratedSource): IrFunction[] {
  const found = new Map<string, IrFunction>();
  const enter = (declared: IrFunction | undefined): void => {
    if (!declared || found.has(declared.signature) || declared.origin.path.includes('.glsl')) return;
    found.set(declared.signature, declared);
    walkStatements(declared.body, (statement) => {
      for (const expression of expressionsOf(statement))
        walkExpression(expression, (each) => {
          if (each.op === 'call') enter(module.functions.get(each.callee));
        });
    });
  };
  roots.forEach(enter);
  return [...found.values()];
}
