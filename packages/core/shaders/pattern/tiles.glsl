// Of a train of pulses as wide as `duty`, one a unit: what a pixel from x − w/2 to x + w/2 sees of it, 0…1.
// The train p(t) is 1 where fract(t) < duty. Each whole unit adds `duty` to its integral, the last one what it has of its pulse:
//   P(t) = ∫₀ᵗ p = duty floor(t) + min(t − floor(t), duty).
// Its mean over the pixel is the difference of the integral at both ends by the width, (P(x + w/2) − P(x − w/2)) / w, as tables
// of sums give the mean of any picture (Crow 1984, "Summed-area tables for texture mapping", SIGGRAPH).
float pulsesSeen(float x, float duty, float w) {
  // From the middle of its own unit: large numbers have no fine parts.
  float at = x - floor(x);
  float low = at - w * 0.5;
  float high = at + w * 0.5;
  float sum = duty * floor(high) + min(high - floor(high), duty) - duty * floor(low) - min(low - floor(low), duty);
  return clamp(sum / w, 0.0, 1.0);
}

// Places of patterns: beyond this a 32-bit float has no parts left.
vec2 tilePlace(vec2 uv, float count) {
  return clamp(uv * count, -1.0e5, 1.0e5);
}

// How much of the pattern a pixel covers.
vec2 tileWidth(vec2 place) {
  return max(fwidth(place), vec2(1e-3));
}

/**
 * Checker: squares of two kinds in turn.
 * @kind checker 1
 * @family Patterns
 * @words checkerboard, chess, squares, tiles, test pattern
 * @source Two pulse trains, integrated over the pixel (differences of its integral: Crow 1984, "Summed-area tables for texture mapping", SIGGRAPH)
 * @inlet uv uv "UV" = surface uv
 * @inlet count number "Squares" = 8 in 1..64: along one unit of u and v.
 * @outlet result fraction "Value": 0 or 1, between them at borders.
 */
float checkerAt(vec2 uv, float count) {
  vec2 place = tilePlace(uv, count) * 0.5;
  vec2 width = tileWidth(place);
  float across = pulsesSeen(place.x, 0.5, width.x);
  float down = pulsesSeen(place.y, 0.5, width.y);
  return across + down - 2.0 * across * down;
}

/**
 * Stripes: bands side by side along u.
 * @kind stripes 1
 * @family Patterns
 * @words lines, bars, bands
 * @source A pulse train, integrated over the pixel (differences of its integral: Crow 1984, "Summed-area tables for texture mapping", SIGGRAPH)
 * @inlet uv uv "UV" = surface uv
 * @inlet count number "Stripes" = 8 in 1..64: along one unit of u.
 * @inlet width fraction "Width" = 0.5 in 0..1: of a stripe, as a part of its distance to the next.
 * @outlet result fraction "Value": 1 on a stripe.
 */
float stripesAt(vec2 uv, float count, float width) {
  vec2 place = tilePlace(uv, count);
  return pulsesSeen(place.x, clamp(width, 0.0, 1.0), tileWidth(place).x);
}

/**
 * Grid: lines that cross each other.
 * @kind grid 1
 * @family Patterns
 * @words lines, net, squares, graph paper, mesh
 * @source Two pulse trains, integrated over the pixel (differences of its integral: Crow 1984, "Summed-area tables for texture mapping", SIGGRAPH)
 * @inlet uv uv "UV" = surface uv
 * @inlet count number "Cells" = 8 in 1..64: along one unit of u and v.
 * @inlet width fraction "Width" = 0.1 in 0..1: of a line, as a part of a cell.
 * @outlet result fraction "Value": 1 on a line.
 */
float gridAt(vec2 uv, float count, float width) {
  vec2 place = tilePlace(uv, count);
  vec2 pixel = tileWidth(place);
  float duty = clamp(width, 0.0, 1.0);
  // A line lies with its middle on the border of the cells.
  float across = pulsesSeen(place.x + duty * 0.5, duty, pixel.x);
  float down = pulsesSeen(place.y + duty * 0.5, duty, pixel.y);
  return across + down - across * down;
}

/**
 * Dots: round spots in a grid.
 * @kind dots 1
 * @family Patterns
 * @words spots, circles, polka, points
 * @source Distance to the middle of the cell, softened over a pixel; the mean where cells are smaller than pixels
 * @inlet uv uv "UV" = surface uv
 * @inlet count number "Dots" = 8 in 1..64: along one unit of u and v.
 * @inlet size fraction "Size" = 0.5 in 0..1: of a dot across, as a part of a cell.
 * @outlet result fraction "Value": 1 on a dot.
 */
float dotsAt(vec2 uv, float count, float size) {
  vec2 place = tilePlace(uv, count);
  vec2 pixel = tileWidth(place);
  float soft = max(pixel.x, pixel.y);
  float radius = clamp(size, 0.0, 1.0) * 0.5;
  float away = length(place - floor(place) - 0.5);
  float dot = clamp((radius - away) / soft + 0.5, 0.0, 1.0);
  float mean = 3.14159265 * radius * radius;
  return radius <= 0.0 ? 0.0 : mix(dot, mean, clamp(soft * 2.0 - 0.5, 0.0, 1.0));
}

struct Bricks {
  float mortar;
  float id;
  vec2 uv;
};

/**
 * Brick: courses of bricks, each shifted against the one below.
 * @kind brick 1
 * @family Patterns
 * @words wall, masonry, stones, tiles, mortar
 * @source Two pulse trains in shifted rows, integrated over the pixel (differences of its integral: Crow 1984, "Summed-area tables for texture mapping", SIGGRAPH); numbers by the pcg hash of whole cells (Jarzynski, Olano 2020, JCGT 9(3))
 * @inlet uv uv "UV" = surface uv
 * @inlet rows number "Rows" = 8 in 1..64: courses along one unit of v.
 * @inlet ratio number "Ratio" = 2 in 0.5..6: length of a brick to its height.
 * @inlet mortar fraction "Mortar" = 0.1 in 0..1: width of the joints, as a part of the height.
 * @inlet shift fraction "Shift" = 0.5 in 0..1: of each row against the one below.
 * @outlet mortar fraction "Mortar": 1 in the joints.
 * @outlet id fraction "Brick": a number of its own for each, 0…1.
 * @outlet uv uv "UV": 0…1 within the brick.
 */
Bricks brickAt(vec2 uv, float rows, float ratio, float mortar, float shift) {
  vec2 place = tilePlace(uv, rows);
  float run = max(ratio, 0.05);
  float row = floor(place.y);
  float odd = mod(row, 2.0);
  vec2 at = vec2(place.x / run + odd * clamp(shift, 0.0, 1.0), place.y);
  vec2 pixel = tileWidth(at);
  float duty = clamp(mortar, 0.0, 1.0);
  float across = pulsesSeen(at.x + duty * 0.5 / run, min(duty / run, 1.0), pixel.x);
  float down = pulsesSeen(at.y + duty * 0.5, duty, pixel.y);
  vec2 cell = floor(at);
  return Bricks(across + down - across * down, unitFrom(cellHash(vec3(cell, 0.0))), at - cell);
}

/**
 * Rings: circles in each other round a middle.
 * @kind rings 1
 * @family Patterns
 * @words target, ripples, wood, concentric, waves
 * @source A pulse train of the distance, integrated over the pixel (differences of its integral: Crow 1984, "Summed-area tables for texture mapping", SIGGRAPH)
 * @inlet uv uv "UV" = surface uv
 * @inlet count number "Rings" = 8 in 1..64: along one unit.
 * @inlet width fraction "Width" = 0.5 in 0..1: of a ring, as a part of its distance to the next.
 * @inlet middle uv "Centre" = 0.5 0.5
 * @outlet result fraction "Value": 1 on a ring.
 */
float ringsAt(vec2 uv, float count, float width, vec2 middle) {
  float away = min(length(tilePlace(uv - middle, count)), 1.0e5);
  return pulsesSeen(away, clamp(width, 0.0, 1.0), max(fwidth(away), 1e-3));
}

struct Hexagons {
  float border;
  float id;
};

/**
 * Hexagons: a honeycomb: cells with six sides.
 * @kind hexagons 1
 * @family Patterns
 * @words honeycomb, cells, bees, tiles
 * @source Two shifted rectangular lattices, the nearer middle wins; softened over a pixel
 * @inlet uv uv "UV" = surface uv
 * @inlet count number "Cells" = 8 in 1..64: along one unit of u.
 * @inlet width fraction "Width" = 0.1 in 0..1: of the border, as a part of a cell.
 * @outlet border fraction "Border": 1 on the border.
 * @outlet id fraction "Cell": a number of its own for each, 0…1.
 */
Hexagons hexagonsAt(vec2 uv, float count, float width) {
  vec2 lattice = vec2(1.0, 1.7320508);
  vec2 place = tilePlace(uv, count);
  vec2 pixel = tileWidth(place);
  vec2 a = mod(place, lattice) - lattice * 0.5;
  vec2 b = mod(place - lattice * 0.5, lattice) - lattice * 0.5;
  vec2 own = dot(a, a) < dot(b, b) ? a : b;
  vec2 away = abs(own);
  float inwards = 0.5 - max(dot(away, lattice * 0.5), away.x);
  float soft = max(pixel.x, pixel.y);
  float border = clamp((clamp(width, 0.0, 1.0) * 0.5 - inwards) / soft + 0.5, 0.0, 1.0);
  vec2 middle = floor((place - own) / (lattice * 0.5) + 0.5);
  return Hexagons(border, unitFrom(cellHash(vec3(middle, 1.0))));
}

/**
 * Waves: a smooth swell along u.
 * @kind waves 1
 * @family Patterns
 * @words sine, ripple, water, swell, stripes
 * @source 1/2 + 1/2 sin(2π (count u + shift)); its mean where waves are smaller than pixels
 * @inlet uv uv "UV" = surface uv
 * @inlet count number "Waves" = 4 in 1..64: along one unit of u.
 * @inlet shift number "Shift" = 0: in waves; drive it by time and they travel.
 * @outlet result fraction "Height": 0…1.
 */
float wavesAt(vec2 uv, float count, float shift) {
  vec2 place = tilePlace(uv, count);
  float turn = place.x + (shift - floor(shift));
  float shown = 1.0 - clamp(tileWidth(place).x * 2.0 - 0.5, 0.0, 1.0);
  return 0.5 + 0.5 * shown * sin(6.283185307 * (turn - floor(turn)));
}

/**
 * Spiral: arms that wind round a middle.
 * @kind spiral 1
 * @family Patterns
 * @words swirl, twist, arms, whirl
 * @source A pulse train of distance and angle (spiral of Archimedes), integrated over the pixel (differences of its integral: Crow 1984, "Summed-area tables for texture mapping", SIGGRAPH)
 * @inlet uv uv "UV" = surface uv
 * @inlet count number "Turns" = 6 in 0..64: along one unit from the middle.
 * @inlet arms count "Arms" = 1 in 1..12
 * @inlet width fraction "Width" = 0.5 in 0..1: of an arm, as a part of its distance to the next.
 * @inlet middle uv "Centre" = 0.5 0.5
 * @outlet result fraction "Value": 1 on an arm.
 */
float spiralAt(vec2 uv, float count, float arms, float width, vec2 middle) {
  vec2 place = clamp(uv - middle, -1.0e4, 1.0e4);
  float far = min(length(place) * clamp(abs(count), 0.0, 1.0e4), 1.0e5);
  float turned = angleOfPoint(place.y, place.x) / 6.283185307 * clamp(floor(arms + 0.5), 1.0, 64.0);
  // The angle jumps by a whole number of arms where it closes: only the distance tells how fine the pattern is.
  float turn = max(fwidth(far), 1e-3);
  return pulsesSeen(far + turned, clamp(width, 0.0, 1.0), turn);
}

struct Triangles {
  float border;
  float id;
};

/**
 * Triangles: a floor of equal-sided triangles.
 * @kind triangles 1
 * @family Patterns
 * @words tiles, triangular, facets, mosaic
 * @source The lattice of two skewed axes at 60 degrees, each of its diamonds cut in two; borders one pixel soft
 * @inlet uv uv "UV" = surface uv
 * @inlet count number "Triangles" = 8 in 1..64: along one unit of u.
 * @inlet width fraction "Width" = 0.1 in 0..1: of the border, as a part of a triangle’s height.
 * @outlet border fraction "Border": 1 on the border.
 * @outlet id fraction "Cell": a number of its own for each, 0…1.
 */
Triangles trianglesAt(vec2 uv, float count, float width) {
  vec2 place = tilePlace(uv, count);
  vec2 pixel = tileWidth(place);
  vec2 skewed = vec2(place.x - place.y * 0.57735027, place.y * 1.15470054);
  vec2 cell = floor(skewed);
  vec2 part = skewed - cell;
  float upper = part.x + part.y > 1.0 ? 1.0 : 0.0;
  vec2 own = upper > 0.5 ? 1.0 - part : part;
  // Heights above the three sides, as parts of a triangle’s height.
  float inwards = min(own.x, min(own.y, 1.0 - own.x - own.y));
  float soft = max(pixel.x, pixel.y) * 1.2;
  float border = clamp((clamp(width, 0.0, 1.0) * 0.5 - inwards) / soft + 0.5, 0.0, 1.0);
  return Triangles(border, unitFrom(cellHash(vec3(cell, upper))));
}

/**
 * Lattice: a grid of bars in space, as of a cage cut out of the solid.
 * @kind lattice 1
 * @family Patterns
 * @words cage, bars, wire, scaffold, grid, 3d
 * @source Distance to the nearest of three sets of lines along the axes; edges one pixel soft
 * @inlet place position "Position" = surface position: by default the point of the surface, metres.
 * @inlet count number "Cells" = 4 in 0.1..50: along one unit.
 * @inlet width fraction "Width" = 0.3 in 0..1: of a bar, as a part of a cell.
 * @outlet result fraction "Value": 1 in a bar.
 */
float latticeAt(vec3 place, float count, float width) {
  vec3 held = clamp(place * clamp(abs(count), 0.0, 1.0e4), -1.0e5, 1.0e5);
  vec3 away = abs(held - floor(held + 0.5));
  float bar = min(max(away.x, away.y), min(max(away.y, away.z), max(away.z, away.x)));
  float soft = max(length(fwidth(held)), 1e-4);
  float reach = clamp(width, 0.0, 1.0) * 0.5;
  float covered = 1.0 - (1.0 - 2.0 * reach) * (1.0 - 2.0 * reach) * (1.0 + 4.0 * reach);
  return mix(clamp((reach - bar) / soft + 0.5, 0.0, 1.0), covered, clamp(soft * 2.0 - 0.5, 0.0, 1.0));
}
