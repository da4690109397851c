const LONGEST = 40;

/** A name in code made of words: `Rim light, width` becomes `rimLightWidth`. Not yet one that a language may use. */
export function camelName(words: string): string {
  const camel = words
    .split(/[^A-Za-z0-9]+/)
    .filter(Boolean)
    .map((word, index) => (index === 0 ? word.charAt(0).toLowerCase() : word.charAt(0).toUpperCase()) + word.slice(1))
    .join('');
  return /^[A-Za-z]/.test(camel) ? camel.slice(0, LONGEST) : `value${camel}`;
}
