import type { IrFunction } from '../../ir/ir';
import type { StageProgram } from '../../ir/program';
import { walkStatements } from '../../ir/walk';
import { BUILTIN_FUNCTION_NAMES } from './reserved';

const RESERVED = new Set(
  `attribute const uniform varying layout centroid flat smooth break continue do for while switch case default if else in out inout
  float int void bool true false invariant discard return mat2 mat3 mat4 mat2x2 mat2x3 mat2x4 mat3x2 mat3x3 mat3x4 mat4x2 mat4x3 mat4x4
  vec2 vec3 vec4 ivec2 ivec3 ivec4 bvec2 bvec3 bvec4 uint uvec2 uvec3 uvec4
  lowp mediump highp precision sampler2D sampler3D samplerCube sampler2DShadow samplerCubeShadow sampler2DArray sampler2DArrayShadow
  isampler2D isampler3D isamplerCube isampler2DArray usampler2D usampler3D usamplerCube usampler2DArray struct
  coherent volatile restrict readonly writeonly resource atomic_uint noperspective patch sample subroutine common partition active asm class union
  enum typedef template this goto inline noinline public static extern external interface long short double half fixed unsigned superp input output
  hvec2 hvec3 hvec4 dvec2 dvec3 dvec4 fvec2 fvec3 fvec4 sampler3DRect filter image1D image2D image3D imageCube iimage1D iimage2D iimage3D
  iimageCube uimage1D uimage2D uimage3D uimageCube image1DArray image2DArray iimage1DArray iimage2DArray uimage1DArray uimage2DArray
  imageBuffer iimageBuffer uimageBuffer sampler1D sampler1DShadow sampler1DArray sampler1DArrayShadow isampler1D isampler1DArray usampler1D
  usampler1DArray sampler2DRect sampler2DRectShadow isampler2DRect usampler2DRect samplerBuffer isamplerBuffer usamplerBuffer sampler2DMS
  isampler2DMS usampler2DMS sampler2DMSArray isampler2DMSArray usampler2DMSArray sizeof cast namespace using main texture2D textureCube`.split(
    /\s+/,
  ),
);

/**
 * A name that GLSL ES 3.00 accepts (section 3.8): not a keyword, not a built-in, not starting with `gl_`, no
 * double underscore, and short enough for every device.
 */
export function glslName(name: string): string {
  const clean = name
    .replace(/[^A-Za-z0-9_]/g, '_')
    .replace(/_{2,}/g, '_')
    .slice(0, LONGEST);
  if (RESERVED.has(clean) || BUILTIN_FUNCTION_NAMES.has(clean) || /^(gl_|device|webgl_|_webgl_|\d)/.test(clean)) return `u_${clean}`;
  return clean;
}

/** WebGL 2 takes 1,024 characters; nobody reads names that long. */
const LONGEST = 200;

/** Hands out names, none twice. */
class NameTable {
  private readonly taken: Set<string>;
  private readonly byName = new Map<string, string>();

  constructor(taken: Iterable<string> = []) {
    this.taken = new Set(taken);
  }

  /** The same name of the same sort gets the same one again. */
  of(name: string, sort = ''): string {
    const key = `${sort} ${name}`;
    const known = this.byName.get(key);
    if (known !== undefined) return known;
    const wanted = glslName(name);
    let free = wanted;
    for (let count = 2; this.taken.has(free); count++) free = `${wanted}_${count}`;
    this.taken.add(free);
    this.byName.set(key, free);
    return free;
  }

  get all(): ReadonlySet<string> {
    return this.taken;
  }
}

/** The names of one stage: what stands outside functions, and in each function its locals. */
export class StageNames {
  private readonly outer: NameTable;
  private readonly globals = new Map<string, string>();
  private readonly functions = new Map<string, string>();
  private readonly structs = new Map<string, string>();
  private readonly fields = new Map<string, NameTable>();

  constructor(stage: Pick<StageProgram, 'structs' | 'blocks' | 'inputs' | 'outputs' | 'samplers' | 'privates' | 'functions'>) {
    // What both stages share must be called the same in both: these come first, and never collide.
    this.outer = new NameTable(['programMain', 'deviceFragCoord', 'deviceTarget']);
    const shared = [...stage.blocks.flatMap(({ members }) => members), ...stage.inputs, ...stage.outputs, ...stage.samplers];
    for (const { name } of [...stage.blocks, ...shared]) this.globals.set(name, this.outer.of(name));
    for (const { name } of stage.privates) this.globals.set(name, this.outer.of(name, 'private'));
    for (const { name, fields } of stage.structs) {
      this.structs.set(name, this.outer.of(name, 'struct'));
      for (const field of fields) this.field(name, field.name);
    }
    // Overloads keep one name, as GLSL allows.
    for (const { signature, name } of stage.functions)
      this.functions.set(signature, name === 'main' ? 'programMain' : this.outer.of(name, 'function'));
  }

  global(name: string): string {
    if (name === 'gl_FragCoord') return 'deviceFragCoord()';
    return name.startsWith('gl_') ? name : (this.globals.get(name) ?? glslName(name));
  }

  functionOf(signature: string): string {
    return this.functions.get(signature) ?? glslName(signature.slice(0, signature.indexOf('(')));
  }

  struct(name: string): string {
    return this.structs.get(name) ?? glslName(name);
  }

  field(struct: string, name: string): string {
    const known = this.fields.get(struct) ?? new NameTable();
    this.fields.set(struct, known);
    return known.of(name);
  }

  /** Names of a function's locals: none hides what the function may call. */
  locals({ parameters, body }: IrFunction): (name: string) => string {
    const table = new NameTable(this.outer.all);
    for (const { name } of parameters) table.of(name);
    walkStatements(body, (statement) => {
      if (statement.op === 'declare') table.of(statement.name);
    });
    return (name) => table.of(name);
  }
}
