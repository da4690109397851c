// A number of a cell, the same on every device: only whole numbers are hashed.
uint cellHash(vec3 cell) {
  vec3 held = clamp(cell, -2.0e9, 2.0e9);
  return pcgHash(uint(int(held.x)) + pcgHash(uint(int(held.y)) + pcgHash(uint(int(held.z)))));
}

// 0…1 from a hash.
float unitFrom(uint hashed) {
  return float(hashed >> 8u) / 16777215.0;
}

// Three numbers of a cell, each 0…1.
vec3 cellPlace(vec3 cell) {
  uint first = cellHash(cell);
  uint second = pcgHash(first);
  return vec3(unitFrom(first), unitFrom(second), unitFrom(pcgHash(second)));
}

// Quintic fade: first and second derivative are 0 at both ends (Perlin 2002, "Improving noise", SIGGRAPH).
vec3 faded(vec3 t) {
  return t * t * t * (t * (t * 6.0 - 15.0) + 10.0);
}

// A cell's corner pulls towards one of twelve directions (Perlin 2002); how far along it a point lies.
float gradientPull(vec3 cell, vec3 away) {
  uint pick = cellHash(cell) % 12u;
  float one = (pick & 1u) == 0u ? 1.0 : -1.0;
  float other = (pick & 2u) == 0u ? 1.0 : -1.0;
  return pick < 4u ? one * away.x + other * away.y : pick < 8u ? one * away.x + other * away.z : one * away.y + other * away.z;
}

// Gradient noise at a place, about −1…1.
float gradientNoiseAt(vec3 place) {
  vec3 held = clamp(place, -1.0e6, 1.0e6);
  vec3 cell = floor(held);
  vec3 part = held - cell;
  vec3 t = faded(part);
  float sum = 0.0;
  for (int corner = 0; corner < 8; corner++) {
    vec3 step = vec3(float(corner & 1), float((corner >> 1) & 1), float(corner >> 2));
    vec3 weight = mix(1.0 - t, t, step);
    sum += weight.x * weight.y * weight.z * gradientPull(cell + step, part - step);
  }
  return sum;
}

// Where the frequency of noise is beyond what pixels can show, its mean is shown instead.
float shownPart(vec3 place) {
  vec3 turn = fwidth(place);
  return 1.0 - clamp(max(turn.x, max(turn.y, turn.z)) * 2.0 - 0.5, 0.0, 1.0);
}

/**
 * Noise, white: a value of its own for every cell.
 * @kind whiteNoise 1
 * @family Patterns
 * @words random, hash, grain, static
 * @source pcg hash of whole cells (Jarzynski, Olano 2020, JCGT 9(3))
 * @inlet place position "Position" = surface position: by default the point of the surface, metres.
 * @inlet scale number "Scale" = 4 in 0.1..50: cells along one unit.
 * @outlet result fraction "Value": 0…1.
 */
float whiteNoise(vec3 place, float scale) {
  return unitFrom(cellHash(floor(clamp(place * scale, -2.0e9, 2.0e9))));
}

/**
 * Noise, value: soft blobs: random values, blended.
 * @kind valueNoise 1
 * @family Patterns
 * @words noise, clouds, soft, blobs, smooth random
 * @source Values of cells by pcg hash of whole cells (Jarzynski, Olano 2020, JCGT 9(3)), quintic blend (Perlin 2002)
 * @inlet place position "Position" = surface position: by default the point of the surface, metres.
 * @inlet scale number "Scale" = 4 in 0.1..50: cells along one unit.
 * @outlet result fraction "Value": 0…1.
 */
float valueNoise(vec3 place, float scale) {
  vec3 held = clamp(place * scale, -1.0e6, 1.0e6);
  vec3 cell = floor(held);
  vec3 t = faded(held - cell);
  float sum = 0.0;
  for (int corner = 0; corner < 8; corner++) {
    vec3 step = vec3(float(corner & 1), float((corner >> 1) & 1), float(corner >> 2));
    vec3 weight = mix(1.0 - t, t, step);
    sum += weight.x * weight.y * weight.z * unitFrom(cellHash(cell + step));
  }
  return mix(0.5, sum, shownPart(held));
}

/**
 * Noise, gradient: hills and hollows of one size.
 * @kind gradientNoise 1
 * @family Patterns
 * @words perlin, hills, waves, bumps, organic
 * @source Perlin 2002, "Improving noise", SIGGRAPH, over the pcg hash of whole cells (Jarzynski, Olano 2020, JCGT 9(3))
 * @inlet place position "Position" = surface position: by default the point of the surface, metres.
 * @inlet scale number "Scale" = 4 in 0.1..50: cells along one unit.
 * @outlet result number "Value": −1…1, 0 on average.
 */
float gradientNoise(vec3 place, float scale) {
  vec3 held = clamp(place * scale, -1.0e6, 1.0e6);
  return clamp(gradientNoiseAt(held), -1.0, 1.0) * shownPart(held);
}

struct CellularNoise {
  float distance;
  float second;
  float edge;
  float id;
};

/**
 * Noise, cellular: cells round scattered points: scales, pebbles, cracks.
 * @kind cellularNoise 1
 * @family Patterns
 * @words worley, voronoi, cells, stones, scales, cracks
 * @source Worley 1996, "A cellular texture basis function", SIGGRAPH; points by the pcg hash of whole cells (Jarzynski, Olano 2020, JCGT 9(3))
 * @inlet place position "Position" = surface position: by default the point of the surface, metres.
 * @inlet scale number "Scale" = 4 in 0.1..50: cells along one unit.
 * @inlet scatter fraction "Scatter" = 1 in 0..1: 0 is a regular grid.
 * @outlet distance number "Distance": to the nearest point, in cells.
 * @outlet second number "Second": to the next nearest.
 * @outlet edge number "Edge": how much nearer the first is than the second; 0 on the border.
 * @outlet id fraction "Cell": a number of its own for each cell, 0…1.
 */
CellularNoise cellularNoise(vec3 place, float scale, float scatter) {
  vec3 held = clamp(place * scale, -1.0e6, 1.0e6);
  vec3 home = floor(held);
  float nearest = 1.0e3;
  float second = 1.0e3;
  vec3 owner = home;
  for (int index = 0; index < 27; index++) {
    vec3 cell = home + vec3(float(index % 3), float((index / 3) % 3), float(index / 9)) - 1.0;
    vec3 point = cell + mix(vec3(0.5), cellPlace(cell), clamp(scatter, 0.0, 1.0));
    float away = length(point - held);
    second = min(second, max(nearest, away));
    owner = away < nearest ? cell : owner;
    nearest = min(nearest, away);
  }
  return CellularNoise(nearest, second, second - nearest, unitFrom(pcgHash(cellHash(owner))));
}

/**
 * Noise, fractal: hills on hills: several sizes of gradient noise added up.
 * @kind fractalNoise 1
 * @family Patterns
 * @words fbm, clouds, octaves, turbulence, terrain
 * @source Musgrave 2003, in Ebert et al., "Texturing and Modeling", chapter 16 (fractional Brownian motion)
 * @inlet place position "Position" = surface position: by default the point of the surface, metres.
 * @inlet scale number "Scale" = 4 in 0.1..50: cells along one unit.
 * @inlet octaves count "Octaves" = 4 in 1..8: how many sizes.
 * @inlet gain fraction "Gain" = 0.5 in 0..1: how strong each size is beside the one before.
 * @inlet lacunarity number "Lacunarity" = 2 in 1..4: how much smaller each size is.
 * @outlet result number "Value": about −1…1.
 */
float fractalNoise(vec3 place, float scale, float octaves, float gain, float lacunarity) {
  vec3 at = clamp(place * scale, -1.0e6, 1.0e6);
  float strength = 1.0;
  float sum = 0.0;
  float total = 0.0;
  float count = clamp(floor(octaves + 0.5), 1.0, 8.0);
  for (int octave = 0; octave < 8; octave++) {
    if (float(octave) < count) {
      sum += strength * gradientNoiseAt(at) * shownPart(at);
      total += strength;
      strength *= clamp(gain, 0.0, 1.0);
      at = clamp(at * clamp(lacunarity, 1.0, 4.0) + 19.19, -1.0e6, 1.0e6);
    }
  }
  return clamp(sum / total, -1.0, 1.0);
}

/**
 * Noise, ridged: sharp crests, as of mountains or veins.
 * @kind ridgedNoise 1
 * @family Patterns
 * @words ridges, veins, mountains, marble, cracks
 * @source Musgrave 2003, in Ebert et al., "Texturing and Modeling", chapter 16 (ridged multifractal, without weights)
 * @inlet place position "Position" = surface position: by default the point of the surface, metres.
 * @inlet scale number "Scale" = 4 in 0.1..50: cells along one unit.
 * @inlet octaves count "Octaves" = 4 in 1..8: how many sizes.
 * @inlet gain fraction "Gain" = 0.5 in 0..1: how strong each size is beside the one before.
 * @inlet lacunarity number "Lacunarity" = 2 in 1..4: how much smaller each size is.
 * @outlet result fraction "Value": 0…1, 1 on the crests.
 */
float ridgedNoise(vec3 place, float scale, float octaves, float gain, float lacunarity) {
  vec3 at = clamp(place * scale, -1.0e6, 1.0e6);
  float strength = 1.0;
  float sum = 0.0;
  float total = 0.0;
  float count = clamp(floor(octaves + 0.5), 1.0, 8.0);
  for (int octave = 0; octave < 8; octave++) {
    if (float(octave) < count) {
      float crest = 1.0 - min(abs(gradientNoiseAt(at)), 1.0);
      sum += strength * mix(0.6, crest * crest, shownPart(at));
      total += strength;
      strength *= clamp(gain, 0.0, 1.0);
      at = clamp(at * clamp(lacunarity, 1.0, 4.0) + 19.19, -1.0e6, 1.0e6);
    }
  }
  return sum / total;
}

/**
 * Noise, simplex: hills and hollows without the grid that other noises have.
 * @kind simplexNoise 1
 * @family Patterns
 * @words smooth, organic, hills, clouds
 * @source Gustavson 2005, "Simplex noise demystified", with twelve directions by the pcg hash of whole cells (Jarzynski, Olano 2020, JCGT 9(3))
 * @inlet place position "Position" = surface position: by default the point of the surface, metres.
 * @inlet scale number "Scale" = 4 in 0.1..50: cells along one unit.
 * @outlet result number "Value": −1…1, 0 on average.
 */
float simplexNoise(vec3 place, float scale) {
  vec3 held = clamp(place * scale, -1.0e5, 1.0e5);
  vec3 cell = floor(held + (held.x + held.y + held.z) / 3.0);
  vec3 away = held - (cell - (cell.x + cell.y + cell.z) / 6.0);
  vec3 above = step(away.yzx, away.xyz);
  vec3 below = 1.0 - above;
  vec3 second = min(above, below.zxy);
  vec3 third = max(above, below.zxy);
  float sum = simplexCorner(cell, away)
    + simplexCorner(cell + second, away - second + 1.0 / 6.0)
    + simplexCorner(cell + third, away - third + 1.0 / 3.0)
    + simplexCorner(cell + 1.0, away - 0.5);
  return clamp(sum * 32.0, -1.0, 1.0) * shownPart(held);
}

// What one corner of a simplex adds: its pull, fading to 0 before the next simplex begins.
float simplexCorner(vec3 cell, vec3 away) {
  float near = max(0.6 - dot(away, away), 0.0);
  return near * near * near * near * gradientPull(cell, away);
}

/**
 * Noise, warped: noise whose place is pushed about by noise: marble, smoke, wood.
 * @kind warpedNoise 1
 * @family Patterns
 * @words domain warping, marble, smoke, swirl, wood, turbulence
 * @source Ebert et al. 2003, "Texturing and modeling", chapter 2: noise as an offset of its own domain; gradient noise (Perlin 2002)
 * @inlet place position "Position" = surface position: by default the point of the surface, metres.
 * @inlet scale number "Scale" = 2 in 0.1..50: cells along one unit.
 * @inlet warp number "Warp" = 1 in 0..4: how far the place is pushed, in cells.
 * @outlet result number "Value": −1…1, 0 on average.
 */
float warpedNoise(vec3 place, float scale, float warp) {
  vec3 held = clamp(place * scale, -1.0e5, 1.0e5);
  vec3 push = vec3(gradientNoiseAt(held + 11.3), gradientNoiseAt(held + vec3(5.2, 37.1, 2.9)), gradientNoiseAt(held + vec3(23.7, 3.3, 17.9)));
  vec3 pushed = held + push * clamp(warp, 0.0, 100.0);
  return clamp(gradientNoiseAt(pushed) + 0.5 * gradientNoiseAt(pushed * 2.03 + 3.1), -1.0, 1.0) * shownPart(pushed);
}

struct Flakes {
  float flake;
  vec3 normal;
  float id;
};

/**
 * Flakes: small mirrors strewn at random, each tilted its own way, as in metallic paint.
 * @kind flakes 1
 * @family Patterns
 * @words glitter, sparkle, car paint, metallic, mica
 * @source Cells of Worley 1996, "A cellular texture basis function", SIGGRAPH, with a tilted normal each; pcg hash (Jarzynski, Olano 2020, JCGT 9(3))
 * @inlet place position "Position" = surface position: by default the point of the surface, metres.
 * @inlet scale number "Scale" = 40 in 1..400: flakes along one unit.
 * @inlet density fraction "Density" = 0.6 in 0..1: how many of them are there.
 * @inlet size fraction "Size" = 0.8 in 0..1: of a flake, as a part of its cell.
 * @inlet spread fraction "Spread" = 0.3 in 0..1: how far they tilt.
 * @outlet flake fraction "Flake": 1 on a flake.
 * @outlet normal normal "Normal": of the flake, world space; the surface’s between flakes.
 * @outlet id fraction "Number": one of its own for each, 0…1.
 */
Flakes flakesAt(vec3 place, float scale, float density, float size, float spread) {
  vec3 held = clamp(place * scale, -1.0e6, 1.0e6);
  vec3 cell = floor(held);
  vec3 own = cell;
  float nearest = 8.0;
  for (int index = 0; index < 27; index++) {
    vec3 step = vec3(float(index % 3), float((index / 3) % 3), float(index / 9)) - 1.0;
    vec3 away = cell + step + cellPlace(cell + step) - held;
    float far = dot(away, away);
    if (far < nearest) {
      nearest = far;
      own = cell + step;
    }
  }
  vec3 random = cellPlace(own + 101.0);
  float id = unitFrom(cellHash(own + 59.0));
  float radius = clamp(size, 0.0, 1.0) * 0.75;
  float soft = max(length(fwidth(held)), 0.02);
  float there = id < clamp(density, 0.0, 1.0) ? 1.0 : 0.0;
  // Flakes smaller than pixels are not seen one by one.
  float flake = there * clamp((radius - sqrt(nearest)) / soft + 0.5, 0.0, 1.0) * clamp(1.5 - soft, 0.0, 1.0);
  vec3 normal = surfaceNormal();
  vec3 tilted = safeNormalize(normal + (random * 2.0 - 1.0) * clamp(spread, 0.0, 1.0));
  return Flakes(flake, safeNormalize(mix(normal, tilted, flake)), id);
}

struct Dissolved {
  float left;
  float seam;
};

/**
 * Dissolve: eats a surface away by a pattern, with a glowing seam.
 * @kind dissolve 1
 * @family Patterns
 * @words burn, vanish, disintegrate, erode, fade, reveal, threshold
 * @source A threshold over noise; the seam is a band above it
 * @inlet pattern fraction "Pattern" = 0.5: what is low goes first.
 * @inlet amount fraction "Amount" = 0.5 in 0..1: 0 leaves all, 1 takes all.
 * @inlet seam fraction "Seam" = 0.08 in 0..0.5: how wide the seam is.
 * @outlet left fraction "Mask": 1 where the surface is left; run it to the dock’s opacity.
 * @outlet seam fraction "Seam": 1 at the edge, falling to 0.
 */
Dissolved dissolve(float pattern, float amount, float seam) {
  float border = clamp(amount, 0.0, 1.0) * 1.0001 - 0.00005;
  float over = clamp(pattern, 0.0, 1.0) - border;
  float wide = clamp(seam, 0.0, 1.0);
  float left = step(0.0, over);
  float near = wide > 1e-4 && amount > 0.0 ? left * (1.0 - clamp(over / wide, 0.0, 1.0)) : 0.0;
  return Dissolved(left, near);
}
