import type { RibbonType } from '@brelvin/contract';
import { PARAMETER_KIND, type NodeKind } from '../catalogue/kind';
import { inletKey, type InletAddress, type OutletAddress } from '../document/graph';
import { applyChanges } from '../document/transaction';
import { cyclePath } from './graph-order';
import { titleOfNode } from './group-kind';
import { resolveGraph, type GraphProblem } from './resolve';
import { conversion, ribbonType } from './ribbon-type';
import type { TypedGraph } from './typed-graph';
import { isTakenApart } from '../catalogue/whole-structs';

interface Fit {
  readonly name: string;
  readonly cost: number;
}

/** The inlet of a kind into which a value of this type runs best; nothing when none takes it. */
export function fittingInlet(kind: NodeKind, type: RibbonType): Fit | undefined {
  return best(
    kind.inlets.flatMap((spec) =>
      kindInletTypes(kind, spec.name).map((wanted) => {
        const cost = conversion(type, wanted)?.cost;
        // An inlet that the surface fills by itself (a normal) is seldom the one that is meant.
        return { name: spec.name, cost: cost === undefined ? undefined : cost + ('surface' in spec.default ? 2 : 0) };
      }),
    ),
  );
}

/** The outlet of a kind that gives an inlet of this type what it wants best. */
export function fittingOutlet(kind: NodeKind, type: RibbonType): Fit | undefined {
  return best(
    kind.outlets.flatMap((outlet) =>
      kindOutletTypes(kind, outlet.name).map((given) => ({ name: outlet.name, cost: conversion(given, type)?.cost })),
    ),
  );
}

function best(fits: readonly { name: string; cost: number | undefined }[]): Fit | undefined {
  let found: Fit | undefined;
  for (const { name, cost } of fits) if (cost !== undefined && (!found || cost < found.cost)) found = { name, cost };
  return found;
}

/** The types an inlet of a kind may have, over all its overloads; of the group's port for a group. */
export function kindInletTypes(kind: NodeKind, name: string): RibbonType[] {
  const index = kind.inlets.findIndex((spec) => spec.name === name);
  const spec = kind.inlets[index];
  if (!spec) return [];
  if (kind.overloads.length === 0) return [spec.type ?? 'number'];
  return kind.overloads.flatMap(({ parameters }) => {
    const type = parameters[index]?.type;
    return type ? [ribbonType(type, spec.meaning)] : [];
  });
}

export function kindOutletTypes(kind: NodeKind, name: string): RibbonType[] {
  const outlet = kind.outlets.find((each) => each.name === name);
  if (!outlet) return [];
  if (kind.id === PARAMETER_KIND) return ['number', 'colour', 'stops'];
  if (kind.overloads.length === 0) return [outlet.type ?? 'number'];
  return kind.overloads.flatMap(({ result }) => {
    const field = isTakenApart(result) ? result.fields.find((each) => each.name === name)?.type : result;
    return field ? [ribbonType(field, outlet.meaning)] : [];
  });
}

/** Why a ribbon cannot run there, in words with a mend; nothing when it can. */
export function connectionProblem(typed: TypedGraph, from: OutletAddress, to: InletAddress): string | undefined {
  const { graph, material, catalogue, resolved } = typed;
  const path = cyclePath(graph, from.node, to.node);
  if (path) {
    const title = (id: string): string => {
      const node = graph.nodes[id];
      return node ? titleOfNode(catalogue, material, node) : id;
    };
    return `This would run in a circle: ${[...path, to.node].map(title).join(' → ')}.`;
  }
  const after = resolveGraph(applyChanges(material, typed.edits.connect(from, to).changes), catalogue, resolved).problems;
  const known = new Set(resolved.problems.map(sameWords));
  return after.find((problem) => !known.has(sameWords(problem)))?.message;
}

function sameWords({ node, inlet, message }: GraphProblem): string {
  return `${inletKey(node, inlet ?? '')} ${message}`;
}
