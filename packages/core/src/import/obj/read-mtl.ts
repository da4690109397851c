import { PLAIN_IMPORT, type ImportedMaterial } from '../imported-scene';

/** A material of an MTL file, with the names of its images' files. */
export interface MtlMaterial {
  readonly material: Omit<ImportedMaterial, 'maps'>;
  readonly files: Readonly<Partial<Record<keyof ImportedMaterial['maps'] | 'bump' | 'opacity', string>>>;
}

/** Of options before a file's name: how many numbers follow each. */
const OPTIONS: Readonly<Record<string, number>> = {
  '-bm': 1,
  '-o': 3,
  '-s': 3,
  '-t': 3,
  '-mm': 2,
  '-blendu': 1,
  '-blendv': 1,
  '-clamp': 1,
  '-texres': 1,
  '-imfchan': 1,
  '-boost': 1,
  '-cc': 1,
  '-type': 1,
};

/**
 * Reads an MTL file: its diffuse colour, what it emits, opacity and maps; metallic and roughness where they are told, as many programs now do; else
 * the roughness that fits its exponent, from Blinn-Phong to GGX by alpha² = 2 / (n + 2) (Walter et al. 2007, section 5.1).
 */
export function readMtl(text: string): MtlMaterial[] {
  const found: MtlMaterial[] = [];
  let values: Record<string, readonly number[]> = {};
  let files: Record<string, string> = {};
  let name: string | undefined;
  const close = (): void => {
    if (name !== undefined) found.push({ material: materialOf(name, values), files });
    [values, files] = [{}, {}];
  };
  for (const raw of text.split(/\r?\n/)) {
    const [word = '', ...rest] = raw.trim().split(/\s+/);
    const lower = word.toLowerCase();
    if (lower === 'newmtl') {
      close();
      name = rest.join(' ');
    } else if (MAPS[lower]) files[MAPS[lower] ?? ''] = fileName(rest);
    else if (lower) values[lower] = rest.map(Number);
  }
  close();
  return found;
}

const MAPS: Readonly<Record<string, string>> = {
  map_kd: 'baseColour',
  map_ke: 'emission',
  norm: 'normal',
  map_kn: 'normal',
  map_bump: 'bump',
  bump: 'bump',
  map_d: 'opacity',
};

function fileName(words: readonly string[]): string {
  let at = 0;
  while (at < words.length - 1 && (words[at] ?? '').startsWith('-')) at += 1 + (OPTIONS[words[at] ?? ''] ?? 1);
  return words.slice(at).join(' ').replace(/\\/g, '/');
}

function materialOf(name: string, values: Readonly<Record<string, readonly number[]>>): MtlMaterial['material'] {
  const colour = (word: string, instead: readonly number[]): readonly number[] => {
    const told = values[word]?.slice(0, 3);
    return told && told.length > 0 && told.every(Number.isFinite)
      ? [told[0] ?? 0, told[1] ?? told[0] ?? 0, told[2] ?? told[0] ?? 0]
      : instead;
  };
  const number = (word: string, instead: number): number => {
    const [told] = values[word] ?? [];
    return told !== undefined && Number.isFinite(told) ? told : instead;
  };
  const exponent = number('ns', 10);
  const opacity = values['tr'] ? 1 - number('tr', 0) : number('d', 1);
  const { maps: _, ...plain } = PLAIN_IMPORT;
  return {
    ...plain,
    name,
    baseColour: colour('kd', [0.8, 0.8, 0.8]).map((each) => Math.min(Math.max(each, 0), 1)),
    metallic: Math.min(Math.max(number('pm', 0), 0), 1),
    roughness: Math.min(Math.max(number('pr', Math.sqrt(Math.sqrt(2 / (Math.max(exponent, 0) + 2)))), 0), 1),
    emission: colour('ke', [0, 0, 0]).map((each) => Math.max(each, 0)),
    opacity: Math.min(Math.max(opacity, 0), 1),
    alpha: opacity < 1 ? 'blend' : 'opaque',
  };
}
