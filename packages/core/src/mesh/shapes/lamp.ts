import { disc, outlineThrough, turned, type OutlinePoint } from '../lathe';
import type { MeshData } from '../mesh';
import { PatchBuilder } from '../patch';

type Outline = readonly (readonly [radius: number, height: number])[];

/** All outlines go from the top down: radius and height, as parts of the whole height. */
const CHIMNEY: Outline = [
  [0.095, 1],
  [0.088, 0.97],
  [0.09, 0.9],
  [0.105, 0.8],
  [0.15, 0.68],
  [0.172, 0.58],
  [0.155, 0.49],
  [0.118, 0.43],
  [0.112, 0.41],
];
const GALLERY: Outline = [
  [0.128, 0.445],
  [0.134, 0.43],
  [0.13, 0.395],
  [0.1, 0.38],
];
const COLLAR: Outline = [
  [0.1, 0.38],
  [0.085, 0.36],
  [0.088, 0.34],
  [0.115, 0.33],
];
const FONT: Outline = [
  [0.115, 0.33],
  [0.2, 0.29],
  [0.245, 0.22],
  [0.225, 0.14],
  [0.13, 0.09],
];
const STEM: Outline = [
  [0.13, 0.09],
  [0.1, 0.075],
  [0.16, 0.05],
  [0.23, 0.025],
  [0.235, 0],
];
const TUBE: Outline = [
  [0.022, 0.5],
  [0.026, 0.49],
  [0.03, 0.43],
  [0.075, 0.4],
];
const WICK: Outline = [
  [0.004, 0.535],
  [0.014, 0.532],
  [0.017, 0.52],
  [0.017, 0.49],
];

/** The loft's lamp: a glass chimney of one wall, open above and below; the brass burner on its font; the end of the wick. */
export function lamp({ height, segments, rings }: { height: number; segments: number; rings: number }): MeshData {
  const builder = new PatchBuilder();
  const standing = ({ radius, height: up, normal }: OutlinePoint): OutlinePoint => ({
    radius: radius * height,
    height: (up - 0.5) * height,
    normal,
  });
  const section = (name: string, points: Outline): void => {
    builder.patch(name, segments, rings, (u, v) => turned(standing(outlineThrough(points, v)), u));
  };
  section('chimney', CHIMNEY);
  for (const outline of [GALLERY, COLLAR, FONT, STEM, TUBE]) section('burner', outline);
  builder.patch('burner', segments, 2, disc(0.13 * height, -0.105 * height, 'up'));
  builder.patch('burner', segments, 2, disc(0.235 * height, -0.5 * height, 'down'));
  section('wick', WICK);
  return builder.finish({ closed: false });
}
