import { library, THIS_LIGHT_KIND, type InletSpec, type NodeKind, type OutletSpec } from '@brelvin/core';
import type { ExitCode, Output } from '../output';

/** Lists the node kinds: in short, for programs, or as a page to read. */
export function listNodes({ json, markdown }: { json?: boolean; markdown?: boolean }, output: Output): ExitCode {
  const kinds = [...library().kinds.values()].sort((a, b) => a.family.localeCompare(b.family) || a.title.localeCompare(b.title));
  if (json) {
    const plain = kinds.map(({ overloads, ...kind }) => ({ ...kind, signatures: overloads.map((each) => each.signature) }));
    output.out(JSON.stringify(plain, null, 2));
    return 0;
  }
  if (markdown) {
    output.out(page(kinds));
    return 0;
  }
  const width = Math.max(...kinds.map(({ id }) => id.length));
  for (const kind of kinds) output.out(`${kind.id.padEnd(width)} ${kind.family.padEnd(8)} ${kind.title}: ${kind.help}`);
  return 0;
}

function page(kinds: readonly NodeKind[]): string {
  const families = [...new Set(kinds.map(({ family }) => family))];
  const chapters = families.map((family) => {
    const own = kinds.filter((kind) => kind.family === family);
    return [`## ${family} (${own.length})`, ...own.map(entry)].join('\n\n');
  });
  const head = `${kinds.length} kinds. Each is a documented function of the shader library; \`npx brelvin nodes --markdown\` makes this page of them.`;
  return ['# The nodes', head, ...chapters].join('\n\n');
}

function entry({ id, title, help, source, inlets, outlets, overloads }: NodeKind): string {
  // What has no function of its own has no picture, and one light of many none outside of its loop.
  const picture = overloads.length > 0 && id !== THIS_LIGHT_KIND ? `![${title}](nodes/${id}.png) ` : '';
  const lines = [`### ${title}`, '', `${picture}${help}`, ''];
  if (inlets.length > 0) lines.push(`In: ${inlets.map(inletWords).join('; ')}.`, '');
  if (outlets.length > 0) lines.push(`Out: ${outlets.map(words).join('; ')}.`, '');
  lines.push(`Formula: ${source}. In files: \`${id}\`.`);
  return lines.join('\n');
}

function inletWords(inlet: InletSpec): string {
  const { low, high, unit } = inlet;
  const numbers = 'surface' in inlet.default ? `the surface’s ${inlet.default.surface}` : inlet.default.value.join(' ');
  const value = inlet.choices ? `one of ${inlet.choices.join(', ')}` : numbers;
  const range = low === undefined || high === undefined || inlet.choices ? '' : `, ${low} to ${high}`;
  return `${words(inlet)} (${value}${range}${unit ? ` ${unit}` : ''})`;
}

function words({ label, help }: Pick<InletSpec | OutletSpec, 'label' | 'help'>): string {
  return help ? `**${label}**, ${help.replace(/\.$/, '')}` : `**${label}**`;
}
