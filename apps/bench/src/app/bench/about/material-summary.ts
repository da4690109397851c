import type { Material } from '@brelvin/contract';
import { inletOf, DOCK, dockInlets, type MaterialSource, type Rate } from '@brelvin/core';

export interface SummaryLine {
  readonly label: string;
  readonly words: string;
}

const RATES: readonly (readonly [Rate, string])[] = [
  ['pixel', 'per pixel'],
  ['vertex', 'per vertex'],
  ['frame', 'per frame'],
  ['constant', 'constant'],
];

/** What a material consists of, in a few lines. */
export function summaryOf(material: Material, rates: Readonly<Record<string, Rate>>): SummaryLine[] {
  const { code, surface, groups, parameters, variants, images, tags } = material;
  const lines: (SummaryLine | undefined)[] = [
    code
      ? {
          label: 'Code',
          words: `${count(lineCount(code.text), 'line')}${code.vertices ? `, ${count(lineCount(code.vertices), 'line')} for vertices` : ''}`,
        }
      : {
          label: 'Graph',
          words: [count(Object.keys(surface.nodes).length, 'node'), some(Object.keys(groups).length, 'group')].filter(Boolean).join(', '),
        },
    code ? undefined : { label: 'Dock', words: docked(material) },
    line('Computed', rateWords(rates)),
    line(
      'Parameters',
      [some(Object.keys(parameters).length, 'parameter'), some(Object.keys(variants).length, 'variant')].filter(Boolean).join(', '),
    ),
    line('Images', some(Object.keys(images).length, 'image')),
    line('Tags', tags.join(', ')),
  ];
  return lines.filter((each) => each !== undefined);
}

function line(label: string, words: string): SummaryLine | undefined {
  return words ? { label, words } : undefined;
}

function docked(material: MaterialSource): string {
  const { surface } = material;
  const taken = new Set(
    Object.keys(surface.ribbons)
      .map(inletOf)
      .filter(({ node }) => node === DOCK)
      .map(({ inlet }) => inlet),
  );
  return (
    dockInlets(material)
      .filter(({ name }) => taken.has(name))
      .map(({ label }) => label)
      .join(', ') || 'nothing runs into it yet'
  );
}

function rateWords(rates: Readonly<Record<string, Rate>>): string {
  const all = Object.values(rates);
  const counted = RATES.map(([rate, words]) => [all.filter((each) => each === rate).length, words] as const);
  return counted.flatMap(([number, words]) => (number > 0 ? [`${number} ${words}`] : [])).join(', ');
}

function lineCount(text: string): number {
  return text.split('\n').length;
}

function count(number: number, word: string): string {
  return `${number} ${word}${number === 1 ? '' : 's'}`;
}

function some(number: number, word: string): string {
  return number > 0 ? count(number, word) : '';
}
