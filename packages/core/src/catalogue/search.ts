import type { RibbonType } from '@brelvin/contract';
import { distance } from 'fastest-levenshtein';
import type { NodeKind } from './kind';

/** Words that say nothing of what is sought. */
const IDLE = new Set(['a', 'an', 'the', 'of', 'to', 'from', 'by', 'in', 'with', 'and', 'many', 'node']);
/** A shorter beginning is no stem: too much begins so. */
const SHORTEST_STEM = 4;

/**
 * Kinds that match what was typed, likeliest first; all of them, by family, when nothing was typed. Every word
 * must match somewhere: title, synonyms (the first of a kind's words before its others), family, help, letters in order, all
 * but one letter, or what it begins with.
 */
export function searchKinds(kinds: Iterable<NodeKind>, query: string): NodeKind[] {
  const wanted = query.trim().toLowerCase();
  const all = [...kinds];
  if (!wanted) return all.sort((a, b) => a.family.localeCompare(b.family) || a.title.localeCompare(b.title));
  return all
    .map((kind) => ({ kind, score: Math.max(...spellings(wanted).map((each) => fit(kind, each))) }))
    .filter(({ score }) => score > 0)
    .sort((a, b) => b.score - a.score || a.kind.title.localeCompare(b.kind.title))
    .map(({ kind }) => kind);
}

/** As it was typed, and as titles and words are spelt. */
function spellings(typed: string): string[] {
  const british = typed.replaceAll(/colou?r/g, 'colour').replaceAll('gray', 'grey');
  return british === typed ? [typed] : [typed, british];
}

function fit(kind: NodeKind, wanted: string): number {
  return Math.max(score(kind, wanted), wordByWord(kind, wanted.split(/\s+/)));
}

function wordByWord(kind: NodeKind, typed: readonly string[]): number {
  const telling = typed.filter((word) => !IDLE.has(word));
  const words = telling.length > 0 ? telling : typed;
  const scores = words.map((word) => score(kind, word));
  return scores.some((each) => each === 0) ? 0 : scores.reduce((sum, each) => sum + each, 0) / scores.length - 1;
}

function score(kind: NodeKind, wanted: string): number {
  const title = kind.title.toLowerCase();
  if (title === wanted) return 100;
  const words = kind.words.map((word) => word.toLowerCase());
  const known = words.indexOf(wanted);
  // Of many titles that begin so, those that are also called so.
  if (title.startsWith(wanted)) return known >= 0 ? 85 : endsWithinWord(title, wanted) ? 64 : 80;
  if (known >= 0) return 75 - Math.min(known, 10);
  if (title.includes(wanted)) return 60;
  if (words.some((word) => word.startsWith(wanted))) return 45;
  if (words.some((word) => word.includes(wanted))) return 35;
  if (kind.family.toLowerCase().startsWith(wanted)) return 30;
  if (wanted.length > 3 && [title, ...title.split(/\W+/), ...words].some((word) => distance(word, wanted) === 1)) return 25;
  if ([...title.split(/\W+/), ...words].some((word) => isStem(word, wanted))) return 22;
  if (lettersInOrder(title, wanted)) return 20;
  return wanted.length > 2 && kind.help.toLowerCase().includes(wanted) ? 10 : 0;
}

/** Whether a title begins with too few letters of a word for that word to be meant: “int” is no intersection. */
function endsWithinWord(title: string, wanted: string): boolean {
  return wanted.length < SHORTEST_STEM && /\w/.test(title.charAt(wanted.length));
}

/** Whether a longer word that was typed begins with it: “lambertian”, “banding”. */
function isStem(word: string, typed: string): boolean {
  return word.length >= SHORTEST_STEM && typed.startsWith(word) && !/\s/.test(typed);
}

function lettersInOrder(text: string, letters: string): boolean {
  let at = 0;
  for (const letter of letters) {
    at = text.indexOf(letter, at) + 1;
    if (at === 0) return false;
  }
  return true;
}

/** What one usually puts behind an outlet of a type, or before an inlet of it, likeliest first. */
const USUAL: Readonly<Record<'inlet' | 'outlet', Partial<Record<RibbonType, readonly string[]>>>> = {
  inlet: {
    light: ['add', 'multiply', 'mix'],
    colour: ['lambert', 'bands', 'multiply', 'mix', 'blinnPhong'],
    number: ['multiply', 'remap', 'smoothstep', 'mix', 'clamp'],
    vec2: ['image', 'split', 'multiply'],
    vec3: ['dot', 'normalize', 'split'],
  },
  outlet: {
    light: ['bands', 'lambert', 'blinnPhong', 'add'],
    colour: ['colour', 'image', 'gradient', 'mix', 'multiply'],
    number: ['parameter', 'facing', 'multiply', 'remap', 'place'],
    vec2: ['uv', 'secondUv'],
    vec3: ['normal', 'position', 'viewDirection'],
  },
};

/** 0…1: how likely a kind is wanted at the free end of a ribbon. */
export function likeliness(kind: string, type: RibbonType, free: 'inlet' | 'outlet'): number {
  const usual = USUAL[free][type] ?? [];
  const place = usual.indexOf(kind);
  return place < 0 ? 0 : 1 - place / (usual.length + 1);
}
