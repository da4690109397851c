import { Injectable } from '@angular/core';
import { hexFromLinear, library, type Catalogue, type Meaning, type NodeKind, type RibbonType } from '@brelvin/core';

/** The catalogue, read once for the page, and small questions about it. */
@Injectable({ providedIn: 'root' })
export class BenchContext {
  readonly catalogue: Catalogue = library();

  kind(id: string): NodeKind | undefined {
    return this.catalogue.kinds.get(id);
  }

  /** The type shown before a graph is resolved. */
  defaultType(meaning: Meaning): RibbonType {
    const types: Record<Meaning, RibbonType> = {
      number: 'number',
      fraction: 'number',
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
      stops: 'stops',
      image: 'image',
      choice: 'number',
    };
    return types[meaning];
  }

  hex(colour: readonly number[]): string {
    return hexFromLinear(colour);
  }
}
