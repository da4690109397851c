import type { Expression } from '../ir/ir';
import type { DirectionKind, WrittenDirection } from './direction-kind';
import type { FunctionScope } from './scope';

/** What is known of the names that a text may use. */
export interface KnownDirections {
  /** By signature of the function that gives it, by `Struct.field`, or by `in name` and `uniform name` of a whole program. */
  readonly given: ReadonlyMap<string, DirectionKind>;
  /** By signature: the kind that each parameter wants, if any. */
  readonly wanted: ReadonlyMap<string, readonly (DirectionKind | undefined)[]>;
}

export const DIRECTION_WORDS: Readonly<Record<DirectionKind, string>> = {
  normal: 'the surface’s normal',
  directionToLight: 'a direction towards the light',
  directionToEye: 'a direction towards the eye',
};

/** Follows a value back to a name whose direction is known. @param plainName what a global is called in the text */
export function writtenDirection(
  value: Expression,
  scope: FunctionScope,
  { given }: KnownDirections,
  plainName: (irName: string) => { readonly storage: string; readonly name: string } | undefined,
): WrittenDirection | undefined {
  const follow = (each: Expression): WrittenDirection | undefined => {
    switch (each.op) {
      case 'call':
        return straight(given.get(each.callee));
      case 'member':
        return each.object.type.kind === 'struct' ? straight(given.get(`${each.object.type.name}.${each.field}`)) : undefined;
      case 'reference': {
        if (each.scope === 'local') return scope.ofIr(each.name)?.direction;
        const found = plainName(each.name);
        return found && straight(given.get(`${found.storage} ${found.name}`));
      }
      case 'unary': {
        const before = each.operator === '-' ? follow(each.value) : undefined;
        return before && { ...before, turned: !before.turned };
      }
      case 'builtin':
        return each.name === 'normalize' && each.args[0] ? follow(each.args[0]) : undefined;
      default:
        return undefined;
    }
  };
  return follow(value);
}

function straight(kind: DirectionKind | undefined): WrittenDirection | undefined {
  return kind && { kind, turned: false };
}
