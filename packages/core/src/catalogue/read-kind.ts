import type { IrFunction } from '../ir/ir';
import { BOOL, sameType } from '../ir/types';
import type { Documentation } from '../language';
import { isTakenApart } from './whole-structs';
import type { FeatureSpec, InletDefault, InletSpec, Meaning, NodeKind, OutletSpec } from './kind';

const MEANINGS: ReadonlySet<string> = new Set<Meaning>([
  'number',
  'fraction',
  'ior',
  'count',
  'seconds',
  'uv',
  'vector',
  'position',
  'normal',
  'directionToLight',
  'directionToEye',
  'colour',
  'light',
  'field',
  'stops',
  'image',
  'cubeImage',
  'choice',
]);

const INLET =
  /^(\w+) (\w+) "([^"]+)"(?: = (?:surface (\w+)|([-\d. ]+?)))?(?: in (-?[\d.]+)\.\.(-?[\d.]+))?(?: unit (\w+))?(?: of ([^:]+))?(?:: (.*))?$/;
const OUTLET = /^(\w+) (\w+) "([^"]+)"(?:: (.*))?$/;

/** The comment above a node function does not have the form that makes a node. */
export class MalformedKind extends Error {}

/**
 * Makes a node kind of a documented function.
 *
 * @returns undefined for a comment without `@kind`
 * @throws MalformedKind
 */
export function readKind(documentation: Documentation, overloads: readonly IrFunction[]): NodeKind | undefined {
  const tags = (name: string): string[] => documentation.tags.filter((tag) => tag.name === name).map((tag) => tag.text);
  const [kind] = tags('kind');
  if (kind === undefined) return undefined;
  const [id = '', rev = ''] = kind.split(' ');
  const complain = (what: string): never => {
    throw new MalformedKind(`kind ${id}: ${what}`);
  };
  const required = (name: string): string => tags(name)[0] || complain(`@${name} is missing`);
  const scaled = new Set(tags('factors').flatMap((text) => text.split(/,\s*/)));
  const inlets = tags('inlet').map((text) => {
    const inlet = readInlet(text) ?? complain(`@inlet ${text}`);
    return scaled.delete(inlet.name) ? { ...inlet, scales: true } : inlet;
  });
  if (scaled.size > 0) complain(`@factors names ${[...scaled].join(', ')}, which is no inlet`);
  const outlets = tags('outlet').map((text) => readOutlet(text) ?? complain(`@outlet ${text}`));
  const [first] = overloads;
  if (!first) complain('no function');
  // What the compiler gives stands behind what ribbons bring.
  const given = tags('given');
  const parameters = first?.parameters.map((parameter) => parameter.name) ?? [];
  const features = tags('feature').map((text) => readFeature(text) ?? complain(`@feature ${text}`));
  const switches = first?.parameters.filter(({ type }) => sameType(type, BOOL)).map(({ name }) => name) ?? [];
  if (features.map(({ name }) => name).join() !== parameters.splice(parameters.length - features.length).join())
    complain('@feature must name the last parameters, in their order');
  if (features.some(({ name }) => !switches.includes(name))) complain('a @feature must be of type bool');
  if (given.join() !== parameters.splice(parameters.length - given.length).join()) complain(`@given must name the last parameters`);
  if (parameters.join() !== inlets.map((inlet) => inlet.name).join()) complain(`inlets must be ${parameters.join(', ')}`);
  const { result } = first ?? complain('no function');
  const fields = isTakenApart(result) ? result.fields.map((field) => field.name) : ['result'];
  if (fields.join() !== outlets.map((outlet) => outlet.name).join()) complain(`outlets must be ${fields.join(', ')}`);
  if (!/^\d+$/.test(rev)) complain('needs a revision number');
  return {
    id,
    rev: Number(rev),
    title: documentation.title,
    help: documentation.help || complain('one line of help is missing'),
    family: required('family'),
    source: required('source'),
    words: (tags('words')[0] ?? '').split(/,\s*/).filter(Boolean),
    inlets,
    outlets,
    ...(features.length > 0 ? { features } : {}),
    overloads,
  };
}

function readFeature(text: string): FeatureSpec | undefined {
  const [, name, label, help] = /^(\w+) "([^"]+)": (.+)$/.exec(text) ?? [];
  return name && label && help ? { name, label, help } : undefined;
}

function meaningOf(word: string | undefined): Meaning | undefined {
  return word !== undefined && MEANINGS.has(word) ? (word as Meaning) : undefined;
}

export function readInlet(text: string): InletSpec | undefined {
  const [, name, word, label, surface, numbers, low, high, unit, list, help = ''] = INLET.exec(text) ?? [];
  const meaning = meaningOf(word);
  if (!name || !label || !meaning || (meaning !== 'image' && meaning !== 'cubeImage' && !surface && numbers === undefined))
    return undefined;
  const choices = list?.split('|').map((each) => each.trim());
  if ((meaning === 'choice') !== (choices !== undefined)) return undefined;
  const value: InletDefault = surface ? { surface } : { value: (numbers ?? '0').trim().split(/\s+/).map(Number) };
  return {
    name,
    label,
    meaning,
    default: value,
    low: choices ? 0 : low === undefined ? undefined : Number(low),
    high: choices ? choices.length - 1 : high === undefined ? undefined : Number(high),
    unit,
    choices,
    help,
  };
}

export function readOutlet(text: string): OutletSpec | undefined {
  const [, name, word, label, help = ''] = OUTLET.exec(text) ?? [];
  const meaning = meaningOf(word);
  return name && label && meaning ? { name, label, meaning, help } : undefined;
}
