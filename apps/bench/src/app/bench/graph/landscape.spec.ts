import { asLandscape, type TidyBox, type TidyPlace } from './landscape';

const card = (id: string, height = 120): TidyBox => ({ id, width: 172, height });

/** Layers of so many cards each, one above the other. */
function towers(...counts: number[]): { boxes: TidyBox[]; places: TidyPlace[] } {
  const boxes = counts.flatMap((count, layer) =>
    Array.from({ length: count }, (_, index) => card(`${layer}:${index}`, 60 + (index % 5) * 40)),
  );
  const places = boxes.map(({ id }): TidyPlace => {
    const [layer = 0, index = 0] = id.split(':').map(Number);
    return [id, { x: layer * 236, y: index * 250 }];
  });
  return { boxes, places };
}

function extent(boxes: readonly TidyBox[], places: readonly TidyPlace[]): { width: number; height: number } {
  const size = new Map(boxes.map((box) => [box.id, box]));
  const across = places.flatMap(([id, { x }]) => [x, x + (size.get(id)?.width ?? 0)]);
  const down = places.flatMap(([id, { y }]) => [y, y + (size.get(id)?.height ?? 0)]);
  return { width: Math.max(...across) - Math.min(...across), height: Math.max(...down) - Math.min(...down) };
}

describe('A tidy graph', () => {
  it('of 150 nodes is a landscape, not a tower, whether they stand in one layer or in a few', () => {
    for (const counts of [[150], [110, 30, 9, 1], [40, 40, 40, 30]]) {
      const { boxes, places } = towers(...counts);
      const { width, height } = extent(boxes, asLandscape(boxes, places));
      expect(width / height)
        .withContext(counts.join())
        .toBeGreaterThan(1.2);
      expect(width / height)
        .withContext(counts.join())
        .toBeLessThan(3);
    }
  });

  it('has no card on another, and later layers further right', () => {
    const { boxes, places } = towers(110, 30, 9, 1);
    const tidy = asLandscape(boxes, places);
    expect(tidy.length).toBe(boxes.length);
    const size = new Map(boxes.map((box) => [box.id, box]));
    for (const [a, at] of tidy)
      for (const [b, other] of tidy) {
        if (a >= b) continue;
        const apartAcross = at.x + 172 <= other.x || other.x + 172 <= at.x;
        const apartDown = at.y + size.get(a)!.height <= other.y || other.y + size.get(b)!.height <= at.y;
        expect(apartAcross || apartDown)
          .withContext(`${a} and ${b}`)
          .toBeTrue();
        if (a.split(':')[0]! < b.split(':')[0]!) expect(at.x + 172).toBeLessThan(other.x);
      }
  });

  it('stays as it was laid out where it is one already', () => {
    const { boxes, places } = towers(1, 2, 1, 1, 2, 1, 1);
    expect(asLandscape(boxes, places)).toEqual(places);
  });
});
