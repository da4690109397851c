import { LONGEST_NAME } from '@brelvin/contract';
import { library } from '../catalogue/library';
import type { Global, IrFunction, Module } from '../ir/ir';
import { hardened } from '../ir/hardened';
import { countsSteps, STEP_COUNTERS, withAllSteps } from '../ir/loop-guard';
import { reachableFunctions } from '../ir/passes';
import { typeName } from '../ir/types';
import { walkBody } from '../ir/walk';
import { elaborate, formatDiagnostic, goodMends, type Diagnostic, type ElaboratedSource, type ElaborationOptions } from '../language';

/** Under which a field's text is known. */
export const FIELD_PATH = 'field';
/** Of one field. */
export const MOST_REGIONS = 64;

/** A named area of a field, that can wear a material of its own. */
export interface FieldRegion {
  readonly name: string;
  /** By which the field's text calls it. */
  readonly number: number;
}

/** A field's text, read: shading code of either language with a function `field`. */
export interface FieldProgram {
  /** In the order of the text; one without a name where the text names none. */
  readonly regions: readonly FieldRegion[];
  /** The library with the field's own functions, and `fieldAt(vec3,int)`: distance and number of the part, from 0. */
  readonly module: Module;
  readonly fieldAt: IrFunction;
}

export type FieldReading =
  | { readonly program: FieldProgram; readonly diagnostics: readonly Diagnostic[] }
  | { readonly program?: undefined; readonly diagnostics: readonly [Diagnostic, ...Diagnostic[]] };

/** What a field begins with. */
export const FIRST_FIELD = `const int FLOAT_BODY = 1; // region Float
const int COLLAR = 2; // region Collar

float field(vec3 p, out int region) {
  float body = ellipsoidField(p, vec3(0.7, 1.0, 0.7));
  float collar = torusField(p - vec3(0.0, 0.25, 0.0), 0.68, 0.22);
  region = collar < body ? COLLAR : FLOAT_BODY;
  return unionRound(body, collar, 0.08);
}
`;

const PATH = FIELD_PATH;
/** How a field's text is read: its other names are kept apart from those of the library. */
export const FIELD_OPTIONS: ElaborationOptions = { parameters: true, advice: true, names: { mark: 'field', allBut: 'field' } };
const AT = 'fieldAt(vec3,int)';
const CLOCK = 'frameTime';
const DERIVATIVES: ReadonlySet<string> = new Set(['dFdx', 'dFdy', 'fwidth']);
const KNOWN_ANYWHERE: ReadonlySet<string> = new Set([CLOCK, ...STEP_COUNTERS.map(({ name }) => name)]);

/** The forms that the function may have, and how each is asked. */
const FORMS: readonly { readonly signature: string; readonly result: string; readonly ask: string }[] = [
  { signature: 'field(vec3,int)', result: 'float', ask: 'float distance = field(position, own);' },
  { signature: 'field(vec3)', result: 'float', ask: 'float distance = field(position);' },
  { signature: 'field(vec3)', result: 'Field', ask: 'Field found = field(position); float distance = found.distance; own = found.region;' },
];

const NAMED_REGION = /^[^\n]*?\/\/[ \t]*region[ \t:]+([^\n]*?)[ \t]*(?:\r?\n|$)/;

/**
 * Reads a field: distances in metres, below 0 inside, with the whole shader library at hand. Regions are whole constants
 * with a comment: `const int POSTS = 1; // region Posts`.
 */
export function readField(text: string): FieldReading {
  const read = (each: string): ElaboratedSource => elaborate(PATH, each, library().module, FIELD_OPTIONS);
  const source = read(text);
  const errors = source.diagnostics.filter(({ severity }) => severity === 'error');
  const [error, ...more] = goodMends(
    errors,
    () => text,
    (_, mended) => read(mended).diagnostics,
  );
  if (error) return { diagnostics: [error, ...more] };
  const wrong = (message: string, from = 0): FieldReading => ({ diagnostics: [errorAt(text, message, from)] });
  const form = FORMS.find(({ signature, result }) => {
    const declared = source.module.functions.get(signature);
    return source.own.includes(signature) && declared && typeName(declared.result) === result;
  });
  if (!form)
    return wrong(
      'A field is a function of this form: float field(vec3 p, out int region). Without regions, float field(vec3 p); or Field field(vec3 p), which gives both.',
    );
  const [uniform] = source.uniforms;
  if (uniform) return wrong(`A field has no parameters of its own: write “${uniform.name}” as a const.`, text.indexOf(uniform.name));
  const regions = regionsOf(text, source);
  if (regions.length > MOST_REGIONS) return wrong(`A field may name ${MOST_REGIONS} regions; there are ${regions.length}.`);
  const program = programOf(source, form.ask, regions);
  const unfit = unfitRead(program);
  if (unfit) return wrong(unfit.message, unfit.from);
  return { program, diagnostics: source.diagnostics };
}

/** Whether a field changes with the Stage's clock. */
export function readsTime(program: FieldProgram): boolean {
  return globalsReadBy(AT, program.module).has(CLOCK);
}

/** What a field reads that is not the same however often, and wherever, it is asked. */
function unfitRead(program: FieldProgram): { readonly message: string; readonly from?: number } | undefined {
  const { globals } = program.module;
  const reads = [...globalsReadBy(AT, program.module)];
  const changed = reads.map((name) => globals.get(name)).find((each) => each?.storage === 'private' && each.origin?.path === PATH);
  if (changed)
    return {
      message: `“${changed.name}” is a variable outside of functions, whose value would depend on how often the field was asked: write it as a const, or inside of a function.`,
      from: changed.origin?.range?.from,
    };
  const beyond = beyondFields(AT, program.module);
  if (beyond === undefined) return undefined;
  return {
    message: `A field is asked everywhere in space, and by lights as well: there is no “${beyond}” in it. It can read p, and stageTime().`,
  };
}

/** What a function reads that is not known all through space, by its name. */
export function beyondFields(signature: string, module: Pick<Module, 'functions' | 'globals'>): string | undefined {
  return [...globalsReadBy(signature, module)].find((name) => !KNOWN_ANYWHERE.has(name) && module.globals.get(name)?.storage !== 'const');
}

/** Globals that a function reads, and what it asks of neighbouring pixels, by name. */
function globalsReadBy(signature: string, { functions }: Pick<Module, 'functions'>): ReadonlySet<string> {
  const read = new Set<string>();
  const calls = ({ body }: IrFunction): string[] => {
    const callees: string[] = [];
    walkBody(body, (each) => {
      if (each.op === 'call') callees.push(each.callee);
      if (each.op === 'reference' && each.scope === 'global') read.add(each.name);
      if (each.op === 'builtin' && DERIVATIVES.has(each.name)) read.add(each.name);
    });
    return callees;
  };
  reachableFunctions([signature], functions, calls);
  return read;
}

function programOf({ module, own }: ElaboratedSource, ask: string, regions: readonly FieldRegion[]): FieldProgram {
  const functions = own.flatMap((signature) => module.functions.get(signature) ?? []);
  const safe = hardened(functions, module.functions).map((each): [string, IrFunction] => [each.signature, each]);
  const numbered = regions.reduceRight((rest, { number }, part) => (part === 0 ? rest : `own == ${number} ? ${part} : ${rest}`), '0');
  const text = `float fieldAt(vec3 position, out int region) { int own = 0; ${ask} region = ${numbered}; return distance; }`;
  const all = { ...module, functions: new Map([...module.functions, ...safe]) };
  const asked = elaborate('field part', text, { ...all, functions: withoutPrototype(all.functions) });
  const fieldAt = asked.module.functions.get(AT);
  if (!fieldAt || asked.diagnostics.length > 0) throw new SyntaxError(asked.diagnostics.map(formatDiagnostic).join('\n'));
  const named = regions.length > 0 ? regions : [{ name: 'field', number: 0 }];
  // Each asking has all steps that loops may take.
  const counts = countsSteps(safe.map(([, each]) => each));
  const globals = counts ? new Map([...all.globals, ...STEP_COUNTERS.map((each): [string, Global] => [each.name, each])]) : all.globals;
  const whole = counts ? withAllSteps(fieldAt) : fieldAt;
  return { regions: named, module: { ...all, globals, functions: new Map([...all.functions, [AT, whole]]) }, fieldAt: whole };
}

/** The library declares what a field supplies. */
function withoutPrototype(functions: Module['functions']): Module['functions'] {
  const rest = new Map(functions);
  rest.delete(AT);
  return rest;
}

function regionsOf(text: string, { module }: ElaboratedSource): FieldRegion[] {
  const found = [...module.globals.values()].flatMap(({ storage, value, origin, type }): FieldRegion[] => {
    const { range } = origin ?? {};
    if (storage !== 'const' || origin?.path !== PATH || !range || typeName(type) !== 'int' || value?.op !== 'constant') return [];
    const name = NAMED_REGION.exec(text.slice(range.to))?.[1]?.slice(0, LONGEST_NAME).trim();
    return name ? [{ name, number: value.value[0] ?? 0 }] : [];
  });
  const known = new Map<number, FieldRegion>();
  for (const each of found) if (!known.has(each.number)) known.set(each.number, each);
  return [...known.values()];
}

function errorAt(text: string, message: string, from = 0): Diagnostic {
  const at = Math.max(from, 0);
  const before = text.slice(0, at).split('\n');
  return {
    severity: 'error',
    message,
    path: PATH,
    range: { from: at, to: at },
    line: before.length,
    column: (before.at(-1)?.length ?? 0) + 1,
  };
}
