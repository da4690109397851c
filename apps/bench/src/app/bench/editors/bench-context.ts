import { inject, Injectable } from '@angular/core';
import type { RibbonType } from '@brelvin/contract';
import { hexFromLinear, type Catalogue, type Meaning, type NodeKind } from '@brelvin/core';
import { FunctionShelf } from '../../shared/functions/function-shelf';

/** The catalogue, and small questions about it. */
@Injectable({ providedIn: 'root' })
export class BenchContext {
  private readonly functions = inject(FunctionShelf);

  /** With the functions of the Library; whoever reads it in a computation follows them. */
  get catalogue(): Catalogue {
    return this.functions.library();
  }

  kind(id: string): NodeKind | undefined {
    return this.catalogue.kinds.get(id);
  }

  /** The type shown before a graph is resolved. */
  defaultType(meaning: Meaning): RibbonType {
    const types: Record<Meaning, RibbonType> = {
      number: 'number',
      fraction: 'number',
      ior: 'number',
      count: 'number',
      seconds: 'number',
      uv: 'vec2',
      vector: 'vec3',
      position: 'vec3',
      normal: 'vec3',
      directionToLight: 'vec3',
      directionToEye: 'vec3',
      colour: 'colour',
      light: 'light',
      field: 'field',
      stops: 'stops',
      image: 'image',
      cubeImage: 'cubeImage',
      choice: 'number',
    };
    return types[meaning];
  }

  hex(colour: readonly number[]): string {
    return hexFromLinear(colour);
  }
}
