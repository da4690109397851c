const MARK = ' on field';

/** The name under which a material is compiled once more, for parts of fields. */
export function onField(material: string): string {
  return material + MARK;
}

export function isOnField(id: string): boolean {
  return id.endsWith(MARK);
}

/** The material that is compiled under a name. */
export function materialOf(id: string): string {
  return isOnField(id) ? id.slice(0, -MARK.length) : id;
}
