import type { UniformBlock } from './ir';
import { typeName, type Type } from './types';

/** Where a member of a uniform block lies, in 4-byte words. */
export interface BlockMember {
  readonly name: string;
  readonly type: Type;
  readonly offset: number;
  /** Words from one array element or matrix column to the next. */
  readonly stride: number;
}
export interface BlockLayout {
  readonly name: string;
  readonly members: ReadonlyMap<string, BlockMember>;
  /** Size in words, a multiple of 4. */
  readonly words: number;
}

/**
 * The std140 layout (OpenGL ES 3.0 specification, section 2.12.6.4) of a block that holds only types on which
 * std140 and WGSL's uniform address space agree.
 *
 * @throws TypeError for a member of any other type
 */
export function blockLayout(block: UniformBlock): BlockLayout {
  const members = new Map<string, BlockMember>();
  let offset = 0;
  for (const { name, type } of block.members) {
    const { align, size, stride } = place(type);
    offset = roundUp(offset, align);
    members.set(name, { name, type, offset, stride });
    offset += size;
  }
  return { name: block.name, members, words: roundUp(offset, 4) };
}

function roundUp(value: number, step: number): number {
  return Math.ceil(value / step) * step;
}

function place(type: Type): { align: number; size: number; stride: number } {
  switch (typeName(type)) {
    case 'float':
    case 'int':
    case 'uint':
      return { align: 1, size: 1, stride: 1 };
    case 'vec2':
      return { align: 2, size: 2, stride: 2 };
    case 'vec3':
      return { align: 4, size: 3, stride: 3 };
    case 'vec4':
      return { align: 4, size: 4, stride: 4 };
    case 'mat4':
      return { align: 4, size: 16, stride: 4 };
  }
  if (type.kind === 'array' && (typeName(type.element) === 'vec4' || typeName(type.element) === 'mat4')) {
    const { size } = place(type.element);
    return { align: 4, size: size * type.length, stride: size };
  }
  throw new TypeError(`a uniform block may not hold ${typeName(type)}: its place differs between shading languages`);
}
