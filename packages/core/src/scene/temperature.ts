/**
 * The colour of a glowing black body, scene-linear Rec. 709, its brightest channel 1.
 *
 * The Planckian locus after Krystek 1985, "An algorithm to calculate correlated colour temperature", Color Research and
 * Application 10(1), equations 4 and 5 (CIE 1960 u, v); then CIE 1931 x, y and the matrix of IEC 61966-2-1.
 *
 * @param kelvin 1,000 to 15,000; beyond, the nearer end counts
 */
export function temperatureColour(kelvin: number): [number, number, number] {
  const t = Math.min(Math.max(kelvin, COLDEST_KELVIN), HOTTEST_KELVIN);
  const u = (0.860117757 + 1.54118254e-4 * t + 1.28641212e-7 * t * t) / (1 + 8.42420235e-4 * t + 7.08145163e-7 * t * t);
  const v = (0.317398726 + 4.22806245e-5 * t + 4.20481691e-8 * t * t) / (1 - 2.89741816e-5 * t + 1.61456053e-7 * t * t);
  const x = (3 * u) / (2 * u - 8 * v + 4);
  const y = (2 * v) / (2 * u - 8 * v + 4);
  const [X, Z] = [x / y, (1 - x - y) / y];
  const linear = [
    3.2404542 * X - 1.5371385 - 0.4985314 * Z,
    -0.969266 * X + 1.8760108 + 0.041556 * Z,
    0.0556434 * X - 0.2040259 + 1.0572252 * Z,
  ].map((each) => Math.max(each, 0));
  const brightest = Math.max(...linear);
  const [red = 0, green = 0, blue = 0] = linear.map((each) => each / brightest);
  return [red, green, blue];
}

export const COLDEST_KELVIN = 1000;
export const HOTTEST_KELVIN = 15_000;
