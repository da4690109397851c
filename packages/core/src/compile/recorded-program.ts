import { call, constant, global, local, member } from '../ir/build';
import { FRONT_FACING, PIXEL_DEPTH } from '../ir/builtin-variables';
import type { Expression, IrFunction, Module, Statement } from '../ir/ir';
import { replaceGlobals } from '../ir/map-body';
import { linkProgram, type Program } from '../ir/program';
import { BOOL, FLOAT } from '../ir/types';
import { plainVertexModule } from './surface-programs';

const RECORDED = 'recordedPoint()';
const CARRY = 'carryToPixels()';
/** Fields of the record that no vertex hands on. */
const ITS_OWN: ReadonlySet<string> = new Set(['depth', 'there']);
/** Only what looks at the eye is recorded. */
const FRONT: ReadonlyMap<string, Expression> = new Map([[FRONT_FACING, constant(BOOL, [1])]]);

/**
 * A program that draws a part of a field, of the pixel stage that draws a mesh: it stands over the field's box, and what vertices
 * hand on is read from the record of the traced field. What a graph carries to pixels is computed there.
 */
export function recordedProgram(fragment: Module): Program {
  const { vertex, fragment: linked } = linkProgram(plainVertexModule('field_box.vert'), fromRecord(fragment));
  const functions = linked.functions.map((each) => ({ ...each, body: replaceGlobals(each.body, FRONT) }));
  return { vertex, fragment: { ...linked, functions } };
}

function fromRecord(module: Module): Module {
  const [main, reads] = ['main()', RECORDED].map((signature) => module.functions.get(signature));
  if (!main || reads?.result.kind !== 'struct') throw new ReferenceError(`the shader library must define main() and ${RECORDED}`);
  const point = local('recorded', reads.result);
  const handedOn = reads.result.fields.filter(({ name }) => !ITS_OWN.has(name));
  const taken = handedOn.map(({ name, type }): Statement => ({ op: 'assign', target: global(name, type), value: member(point, name) }));
  const missed: Expression = { op: 'unary', operator: '!', value: member(point, 'there'), type: BOOL };
  const carry = module.functions.get(CARRY);
  const begun: Statement[] = [
    { op: 'declare', name: 'recorded', type: reads.result, value: call(reads, []), mutable: false },
    { op: 'if', condition: missed, then: [{ op: 'discard' }], else: [] },
    ...taken,
    { op: 'assign', target: global(PIXEL_DEPTH, FLOAT), value: member(point, 'depth') },
    ...(carry ? [{ op: 'evaluate' as const, value: call(carry, []) }] : []),
  ];
  const globals = new Map(module.globals);
  for (const { name, type } of handedOn) globals.set(name, { name, type, storage: 'private' });
  const whole: IrFunction = { ...main, body: [...begun, ...main.body] };
  return { ...module, globals, functions: new Map(module.functions).set(main.signature, whole) };
}
