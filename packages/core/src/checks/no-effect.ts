import { joinEdits } from '../document/edit';
import { GraphEdits } from '../document/graph-edits';
import type { Check } from './check';
import { openNumbers, placedNodes, placeOf } from './graph-places';
import { evenFeed } from './image-feeds';

/** While an inlet has this value, others of the node change nothing. */
interface Idle {
  readonly kind: string;
  readonly inlet: string;
  readonly value: number;
  readonly idle: readonly string[];
  /** A value at which they count again. */
  readonly instead: number;
  /** The idle inlets are there because somebody wanted them, whether their values were touched or not. */
  readonly always?: boolean;
}

const IDLE: readonly Idle[] = [
  { kind: 'mix', inlet: 'amount', value: 0, idle: ['b'], instead: 0.5 },
  { kind: 'mix', inlet: 'amount', value: 1, idle: ['a'], instead: 0.5 },
  { kind: 'multiply', inlet: 'a', value: 0, idle: ['b'], instead: 1 },
  { kind: 'multiply', inlet: 'b', value: 0, idle: ['a'], instead: 1 },
  { kind: 'rim', inlet: 'strength', value: 0, idle: ['power', 'colour'], instead: 0.5 },
  { kind: 'rim', inlet: 'colour', value: 0, idle: ['power', 'strength'], instead: 1 },
  { kind: 'blinnPhong', inlet: 'specular', value: 0, idle: ['exponent'], instead: 0.2 },
  { kind: 'bands', inlet: 'count', value: 1, idle: ['softness'], instead: 3 },
  { kind: 'bands', inlet: 'floor', value: 1, idle: ['tint'], instead: 0.4 },
  {
    kind: 'physicalSurface',
    inlet: 'metallic',
    value: 1,
    idle: ['transmission', 'thickness', 'absorbed', 'dispersion', 'specular', 'specularColour'],
    instead: 0,
    always: true,
  },
  { kind: 'physicalSurface', inlet: 'transmission', value: 0, idle: ['thickness', 'absorbed', 'absorbedAt', 'dispersion'], instead: 1 },
  { kind: 'physicalSurface', inlet: 'absorbedAt', value: 0, idle: ['absorbed'], instead: 0.2 },
  { kind: 'physicalSurface', inlet: 'coat', value: 0, idle: ['coatRoughness', 'coatNormal'], instead: 1 },
  { kind: 'physicalSurface', inlet: 'sheenColour', value: 0, idle: ['sheenRoughness'], instead: 0.5 },
  { kind: 'physicalSurface', inlet: 'anisotropy', value: 0, idle: ['grooves'], instead: 0.7 },
  { kind: 'physicalSurface', inlet: 'iridescence', value: 0, idle: ['filmIor', 'filmThickness'], instead: 1 },
  { kind: 'physicalSurface', inlet: 'emissionStrength', value: 0, idle: ['emission'], instead: 1 },
  { kind: 'power', inlet: 'b', value: 0, idle: ['a'], instead: 2 },
];

/** A number or ribbon that changes nothing now, and because of what. */
export const noEffect: Check = {
  id: 'no-effect',
  find: (input) =>
    placedNodes(input).flatMap((node) =>
      IDLE.filter((each) => each.kind === node.kind.id).flatMap((rule) => {
        const cause = node.inlets.find((each) => each.spec.name === rule.inlet);
        // A map that has one value everywhere is as good as a number.
        const map = cause && evenFeed(input, cause);
        const numbers = cause && (openNumbers(node, cause) ?? map?.value);
        if (!cause || !numbers?.every((each) => Math.abs(each - rule.value) < (map ? 0.005 : 1e-12))) return [];
        // Only what somebody has touched is worth a word.
        const touched = node.inlets.filter(
          (each) => rule.idle.includes(each.spec.name) && (rule.always || each.ribbon || node.node?.values[each.spec.name] !== undefined),
        );
        if (touched.length === 0) return [];
        const labels = touched.map((each) => `“${each.spec.label}”`).join(' and ');
        const edits = new GraphEdits(node.home.group);
        const value = cause.type === 'colour' ? [rule.instead, rule.instead, rule.instead] : rule.instead;
        return [
          {
            place: placeOf(node, rule.inlet),
            node: node.id,
            title: map
              ? `${node.kind.title}: ${labels} has no effect now, because the map of “${cause.spec.label}” is ${rule.value} everywhere.`
              : `${node.kind.title}: ${labels} has no effect now, because “${cause.spec.label}” is ${rule.value}.`,
            explanation: 'Nothing is broken, but changing it does not change the picture until the other number changes.',
            mend: {
              label: `Set “${cause.spec.label}” to ${rule.instead}`,
              document: 'material' as const,
              edit: joinEdits(
                `Change ${cause.spec.label}`,
                ...(map ? [edits.disconnect({ node: node.home.node, inlet: rule.inlet })] : []),
                edits.setInletValue({ node: node.home.node, inlet: rule.inlet }, value, cause.spec.label),
              ),
            },
          },
        ];
      }),
    ),
};
