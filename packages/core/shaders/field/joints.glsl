// Where two solids meet, by their distances. Of distances that are exact, or bounds, a sharp joint's is a bound: it is never farther
// from 0 than the true one. So are the others where two planes meet at right angles, and there they have the measures that are
// written; where solids lie side by side, so that both distances fall in the same direction, theirs are up to √2 times too steep.

// A distance, and the region of the solid whose surface it is.
struct Field {
  float distance;
  int region;
};

// The regions of two solids that meet: that of the one that is nearer, or deeper.
int nearerRegion(Field a, Field b) {
  return b.distance < a.distance ? b.region : a.region;
}
int fartherRegion(Field a, Field b) {
  return b.distance > a.distance ? b.region : a.region;
}
// The wall of a cut belongs to what cuts.
int cutRegion(Field a, Field b) {
  return -b.distance > a.distance ? b.region : a.region;
}

/**
 * Union: both of two solids, with a sharp seam.
 * @kind fieldUnion 1
 * @family Fields
 * @words csg, boolean, add, join, combine, merge, or
 * @source min(a, b) (Ricci 1973, "A constructive geometry for computer graphics", The Computer Journal 16(2)); exact outside
 * @inlet a number "Distance A" = 0
 * @inlet b number "Distance B" = 0
 * @outlet result number "Distance": metres.
 */
float unionOf(float a, float b) {
  return min(a, b);
}
Field unionOf(Field a, Field b) {
  return Field(unionOf(a.distance, b.distance), nearerRegion(a, b));
}

/**
 * Intersection: what two solids have in common, with a sharp seam.
 * @kind fieldIntersection 1
 * @family Fields
 * @words csg, boolean, common, overlap, and
 * @source max(a, b) (Ricci 1973, "A constructive geometry for computer graphics", The Computer Journal 16(2)); a bound
 * @inlet a number "Distance A" = 0
 * @inlet b number "Distance B" = 0
 * @outlet result number "Distance": metres.
 */
float intersectionOf(float a, float b) {
  return max(a, b);
}
Field intersectionOf(Field a, Field b) {
  return Field(intersectionOf(a.distance, b.distance), fartherRegion(a, b));
}

/**
 * Difference: a solid without another, with a sharp seam.
 * @kind fieldDifference 1
 * @family Fields
 * @words csg, boolean, subtract, cut, carve, hole, without
 * @source max(a, −b) (Ricci 1973, "A constructive geometry for computer graphics", The Computer Journal 16(2)); a bound
 * @inlet a number "Distance A" = 0
 * @inlet b number "Distance B" = 0: what is taken away.
 * @outlet result number "Distance": metres.
 */
float differenceOf(float a, float b) {
  return max(a, -b);
}
Field differenceOf(Field a, Field b) {
  return Field(differenceOf(a.distance, b.distance), cutRegion(a, b));
}

/**
 * Union, round: both of two solids, with a fillet in the seam.
 * @kind fieldUnionRound 1
 * @family Fields
 * @words csg, smooth union, blend, fillet, melt, weld, metaball
 * @source The circle of this radius that touches both: with u = max(radius − (a, b), 0): max(radius, min(a, b)) − |u|; a bound where the surfaces meet at right angles, else up to √2 times too steep
 * @inlet a number "Distance A" = 0
 * @inlet b number "Distance B" = 0
 * @inlet radius number "Radius" = 0.1 in 0..2 unit m
 * @outlet result number "Distance": metres.
 */
float unionRound(float a, float b, float radius) {
  float r = max(radius, 0.0);
  return max(r, min(a, b)) - length(max(vec2(r - a, r - b), vec2(0.0)));
}
Field unionRound(Field a, Field b, float radius) {
  return Field(unionRound(a.distance, b.distance, radius), nearerRegion(a, b));
}

/**
 * Intersection, round: what two solids have in common, its edge rounded off.
 * @kind fieldIntersectionRound 1
 * @family Fields
 * @words csg, smooth intersection, rounded edge, and
 * @source Of what is outside of both the round union; a bound where the surfaces meet at right angles, else up to √2 times too steep
 * @inlet a number "Distance A" = 0
 * @inlet b number "Distance B" = 0
 * @inlet radius number "Radius" = 0.1 in 0..2 unit m
 * @outlet result number "Distance": metres.
 */
float intersectionRound(float a, float b, float radius) {
  return -unionRound(-a, -b, radius);
}
Field intersectionRound(Field a, Field b, float radius) {
  return Field(intersectionRound(a.distance, b.distance, radius), fartherRegion(a, b));
}

/**
 * Difference, round: a solid without another, the edge of the cut rounded off.
 * @kind fieldDifferenceRound 1
 * @family Fields
 * @words csg, smooth subtraction, cut, carve, rounded hole
 * @source The round intersection with what is outside of the other; a bound where the surfaces meet at right angles, else up to √2 times too steep
 * @inlet a number "Distance A" = 0
 * @inlet b number "Distance B" = 0: what is taken away.
 * @inlet radius number "Radius" = 0.1 in 0..2 unit m
 * @outlet result number "Distance": metres.
 */
float differenceRound(float a, float b, float radius) {
  return -unionRound(-a, b, radius);
}
Field differenceRound(Field a, Field b, float radius) {
  return Field(differenceRound(a.distance, b.distance, radius), cutRegion(a, b));
}

/**
 * Union, chamfered: both of two solids, with a flat strip across the seam.
 * @kind fieldUnionChamfered 1
 * @family Fields
 * @words csg, bevel, chamfer, weld, flat
 * @source The plane through both at this distance from the seam: (a + b − size) / √2, with the sharp union; a bound where the surfaces meet at right angles, else up to √2 times too steep
 * @inlet a number "Distance A" = 0
 * @inlet b number "Distance B" = 0
 * @inlet size number "Size" = 0.1 in 0..2 unit m: how far from the seam the strip begins.
 * @outlet result number "Distance": metres.
 */
float unionChamfered(float a, float b, float size) {
  return min(min(a, b), (a + b - max(size, 0.0)) * 0.70710678);
}
Field unionChamfered(Field a, Field b, float size) {
  return Field(unionChamfered(a.distance, b.distance, size), nearerRegion(a, b));
}

/**
 * Intersection, chamfered: what two solids have in common, its edge cut off flat.
 * @kind fieldIntersectionChamfered 1
 * @family Fields
 * @words csg, bevel, chamfer, cut edge, and
 * @source Of what is outside of both the chamfered union; a bound where the surfaces meet at right angles, else up to √2 times too steep
 * @inlet a number "Distance A" = 0
 * @inlet b number "Distance B" = 0
 * @inlet size number "Size" = 0.1 in 0..2 unit m: how far from the edge the cut begins.
 * @outlet result number "Distance": metres.
 */
float intersectionChamfered(float a, float b, float size) {
  return -unionChamfered(-a, -b, size);
}
Field intersectionChamfered(Field a, Field b, float size) {
  return Field(intersectionChamfered(a.distance, b.distance, size), fartherRegion(a, b));
}

/**
 * Difference, chamfered: a solid without another, the edge of the cut chamfered.
 * @kind fieldDifferenceChamfered 1
 * @family Fields
 * @words csg, bevel, chamfer, countersink, cut, carve
 * @source The chamfered intersection with what is outside of the other; a bound where the surfaces meet at right angles, else up to √2 times too steep
 * @inlet a number "Distance A" = 0
 * @inlet b number "Distance B" = 0: what is taken away.
 * @inlet size number "Size" = 0.1 in 0..2 unit m: how far from the edge the cut begins.
 * @outlet result number "Distance": metres.
 */
float differenceChamfered(float a, float b, float size) {
  return -unionChamfered(-a, b, size);
}
Field differenceChamfered(Field a, Field b, float size) {
  return Field(differenceChamfered(a.distance, b.distance, size), cutRegion(a, b));
}

/**
 * Union, stairs: both of two solids, with steps in the seam.
 * @kind fieldUnionStairs 1
 * @family Fields
 * @words csg, steps, staircase, terraced, stepped
 * @source The sharp union, and one quarter of the plane for each step: of a < i s, b < size − i s with s = size / steps the two that are nearest along the seam; a bound where the surfaces meet at right angles, else up to √2 times too steep
 * @inlet a number "Distance A" = 0
 * @inlet b number "Distance B" = 0
 * @inlet size number "Size" = 0.2 in 0..2 unit m: how far from the seam the stairs begin.
 * @inlet steps count "Steps" = 4 in 1..64
 * @outlet result number "Distance": metres.
 */
float unionStairs(float a, float b, float size, float steps) {
  float count = clamp(floor(steps + 0.5), 1.0, 64.0);
  float pace = max(size, 0.0) / count;
  if (count < 2.0 || pace < 1e-9) return min(a, b);
  float middle = clamp((a - b + size) * 0.5 / pace, 1.0, count - 1.0);
  vec2 corner = vec2(a, b - size);
  float low = floor(middle) * pace;
  float high = min(floor(middle) + 1.0, count - 1.0) * pace;
  float nearest = min(withinBoth(corner.x - low, corner.y + low), withinBoth(corner.x - high, corner.y + high));
  return min(min(a, b), nearest);
}
Field unionStairs(Field a, Field b, float size, float steps) {
  return Field(unionStairs(a.distance, b.distance, size, steps), nearerRegion(a, b));
}

/**
 * Intersection, stairs: what two solids have in common, its edge cut off in steps.
 * @kind fieldIntersectionStairs 1
 * @family Fields
 * @words csg, steps, staircase, terraced, stepped edge, and
 * @source Of what is outside of both the union with stairs; a bound where the surfaces meet at right angles, else up to √2 times too steep
 * @inlet a number "Distance A" = 0
 * @inlet b number "Distance B" = 0
 * @inlet size number "Size" = 0.2 in 0..2 unit m: how far from the edge the stairs begin.
 * @inlet steps count "Steps" = 4 in 1..64
 * @outlet result number "Distance": metres.
 */
float intersectionStairs(float a, float b, float size, float steps) {
  return -unionStairs(-a, -b, size, steps);
}
Field intersectionStairs(Field a, Field b, float size, float steps) {
  return Field(intersectionStairs(a.distance, b.distance, size, steps), fartherRegion(a, b));
}

/**
 * Difference, stairs: a solid without another, with steps down into the cut.
 * @kind fieldDifferenceStairs 1
 * @family Fields
 * @words csg, steps, staircase, terraced, stepped cut, amphitheatre
 * @source The intersection with stairs with what is outside of the other; a bound where the surfaces meet at right angles, else up to √2 times too steep
 * @inlet a number "Distance A" = 0
 * @inlet b number "Distance B" = 0: what is taken away.
 * @inlet size number "Size" = 0.2 in 0..2 unit m: how far from the edge the stairs begin.
 * @inlet steps count "Steps" = 4 in 1..64
 * @outlet result number "Distance": metres.
 */
float differenceStairs(float a, float b, float size, float steps) {
  return -unionStairs(-a, b, size, steps);
}
Field differenceStairs(Field a, Field b, float size, float steps) {
  return Field(differenceStairs(a.distance, b.distance, size, steps), cutRegion(a, b));
}

/**
 * Union, columns: both of two solids, with half round rods side by side in the seam.
 * @kind fieldUnionColumns 1
 * @family Fields
 * @words csg, ribs, rods, reeds, stepped, ornament
 * @source A chamfer, and on its face circles that touch each other; of these the nearest; a bound where the surfaces meet at right angles, else up to √2 times too steep
 * @inlet a number "Distance A" = 0
 * @inlet b number "Distance B" = 0
 * @inlet size number "Size" = 0.2 in 0..2 unit m: how far from the seam the rods begin.
 * @inlet columns count "Columns" = 3 in 1..64
 * @outlet result number "Distance": metres.
 */
float unionColumns(float a, float b, float size, float columns) {
  float legs = max(size, 0.0);
  float count = clamp(floor(columns + 0.5), 1.0, 64.0);
  // Along the chamfer and out of it; its middle is 0.
  vec2 q = vec2(a - b, a + b - legs) * 0.70710678;
  float width = legs * 1.41421356 / count;
  if (width < 1e-9) return min(a, b);
  float farthest = (count - 1.0) * 0.5;
  float column = clamp(floor(q.x / width + farthest + 0.5), 0.0, count - 1.0) - farthest;
  return min(min(min(a, b), q.y), length(vec2(q.x - column * width, q.y)) - width * 0.5);
}
Field unionColumns(Field a, Field b, float size, float columns) {
  return Field(unionColumns(a.distance, b.distance, size, columns), nearerRegion(a, b));
}

/**
 * Intersection, columns: what two solids have in common, its edge cut off in round flutes.
 * @kind fieldIntersectionColumns 1
 * @family Fields
 * @words csg, flutes, grooves, scallops, stepped edge, and
 * @source Of what is outside of both the union with columns; a bound where the surfaces meet at right angles, else up to √2 times too steep
 * @inlet a number "Distance A" = 0
 * @inlet b number "Distance B" = 0
 * @inlet size number "Size" = 0.2 in 0..2 unit m: how far from the edge the flutes begin.
 * @inlet columns count "Flutes" = 3 in 1..64
 * @outlet result number "Distance": metres.
 */
float intersectionColumns(float a, float b, float size, float columns) {
  return -unionColumns(-a, -b, size, columns);
}
Field intersectionColumns(Field a, Field b, float size, float columns) {
  return Field(intersectionColumns(a.distance, b.distance, size, columns), fartherRegion(a, b));
}

/**
 * Difference, columns: a solid without another, with round flutes along the edge of the cut.
 * @kind fieldDifferenceColumns 1
 * @family Fields
 * @words csg, flutes, grooves, scallops, stepped cut, carve
 * @source The intersection with columns with what is outside of the other; a bound where the surfaces meet at right angles, else up to √2 times too steep
 * @inlet a number "Distance A" = 0
 * @inlet b number "Distance B" = 0: what is taken away.
 * @inlet size number "Size" = 0.2 in 0..2 unit m: how far from the edge the flutes begin.
 * @inlet columns count "Flutes" = 3 in 1..64
 * @outlet result number "Distance": metres.
 */
float differenceColumns(float a, float b, float size, float columns) {
  return -unionColumns(-a, b, size, columns);
}
Field differenceColumns(Field a, Field b, float size, float columns) {
  return Field(differenceColumns(a.distance, b.distance, size, columns), cutRegion(a, b));
}

/**
 * Union, grooved: both of two solids, with a round groove cut along the seam.
 * @kind fieldUnionGrooved 1
 * @family Fields
 * @words csg, seam, channel, engraved, joint, panel gap
 * @source The sharp union without a rod of this radius along the seam, √(a² + b²) < radius; a bound where the surfaces meet at right angles, else up to √2 times too steep
 * @inlet a number "Distance A" = 0
 * @inlet b number "Distance B" = 0
 * @inlet radius number "Radius" = 0.05 in 0..2 unit m
 * @outlet result number "Distance": metres.
 */
float unionGrooved(float a, float b, float radius) {
  return max(min(a, b), max(radius, 0.0) - length(vec2(a, b)));
}
Field unionGrooved(Field a, Field b, float radius) {
  return Field(unionGrooved(a.distance, b.distance, radius), nearerRegion(a, b));
}

/**
 * Intersection, grooved: what two solids have in common, with a round groove cut along its edge.
 * @kind fieldIntersectionGrooved 1
 * @family Fields
 * @words csg, rebate, channel, edge, joint, and
 * @source The sharp intersection without a rod of this radius along the edge, √(a² + b²) < radius; a bound where the surfaces meet at right angles, else up to √2 times too steep
 * @inlet a number "Distance A" = 0
 * @inlet b number "Distance B" = 0
 * @inlet radius number "Radius" = 0.05 in 0..2 unit m
 * @outlet result number "Distance": metres.
 */
float intersectionGrooved(float a, float b, float radius) {
  return max(max(a, b), max(radius, 0.0) - length(vec2(a, b)));
}
Field intersectionGrooved(Field a, Field b, float radius) {
  return Field(intersectionGrooved(a.distance, b.distance, radius), fartherRegion(a, b));
}

/**
 * Difference, grooved: a solid with a channel in it where another's surface meets it.
 * @kind fieldDifferenceGrooved 1
 * @family Fields
 * @words csg, engrave, channel, score, inlay, line
 * @source The first without the rectangle |a| < depth, |b| < width / 2; a bound where the surfaces meet at right angles, else up to √2 times too steep
 * @inlet a number "Distance A" = 0
 * @inlet b number "Distance B" = 0: whose surface draws the line.
 * @inlet width number "Width" = 0.05 in 0..2 unit m
 * @inlet depth number "Depth" = 0.05 in 0..2 unit m
 * @outlet result number "Distance": metres.
 */
float differenceGrooved(float a, float b, float width, float depth) {
  return max(a, -withinBoth(abs(a) - max(depth, 0.0), abs(b) - max(width, 0.0) * 0.5));
}
Field differenceGrooved(Field a, Field b, float width, float depth) {
  return Field(differenceGrooved(a.distance, b.distance, width, depth), cutRegion(a, b));
}

/**
 * Region: gives what runs in a name of its own, by which parts of a set are dressed. The node is called as the region is.
 * @kind fieldRegion 1
 * @family Fields
 * @words name, part, material id, tag, label, dress
 * @source the distance as it is, with a number for the name
 * @given region
 * @inlet distance number "Distance" = 0
 * @outlet result field "Field": joints and all that changes a distance keep its region.
 */
Field regionOf(float distance, int region) {
  return Field(distance, region);
}

/**
 * Morph: a solid on its way to another.
 * @kind fieldMorph 1
 * @family Fields
 * @words blend shapes, metamorphosis, tween, interpolate, between, mix
 * @source mix(a, b, share); a bound, since the mean of two slopes of at most 1 is at most 1
 * @inlet a number "Distance A" = 0
 * @inlet b number "Distance B" = 0
 * @inlet share fraction "Share" = 0.5 in 0..1
 * @outlet result number "Distance": metres.
 */
float morphed(float a, float b, float share) {
  return mix(a, b, clamp(share, 0.0, 1.0));
}
Field morphed(Field a, Field b, float share) {
  return Field(morphed(a.distance, b.distance, share), share < 0.5 ? a.region : b.region);
}

/**
 * Grow: a solid that is larger all round by so much, its edges rounded; smaller below 0.
 * @kind fieldGrow 1
 * @family Fields
 * @words offset, inflate, round, dilate, erode, thicken, shrink
 * @source distance − amount; exact outside where the distance is
 * @inlet distance number "Distance" = 0
 * @inlet amount number "Amount" = 0.1 in -1..1 unit m
 * @outlet result number "Distance": metres.
 */
float grown(float distance, float amount) {
  return distance - amount;
}
Field grown(Field distance, float amount) {
  return Field(grown(distance.distance, amount), distance.region);
}

/**
 * Onion: hollows a solid out to a wall of this thickness, half of it outside.
 * @kind fieldOnion 1
 * @family Fields
 * @words shell, hollow, wall, layer, skin
 * @source |distance| − thickness / 2; as good as the distance
 * @inlet distance number "Distance" = 0
 * @inlet thickness number "Thickness" = 0.05 in 0..1 unit m
 * @outlet result number "Distance": metres.
 */
float onion(float distance, float thickness) {
  return abs(distance) - max(thickness, 0.0) * 0.5;
}
Field onion(Field distance, float thickness) {
  return Field(onion(distance.distance, thickness), distance.region);
}

/**
 * Displace field: moves the surface outwards by what any node gives, waves or noise.
 * @kind fieldDisplace 1
 * @family Fields
 * @words displacement, bump, relief, ripple, wobble, noise
 * @source (distance − amount) / (1 + steepest): a bound while the amount grows by no more than the steepest slope a metre (Hart 1996, "Sphere tracing", The Visual Computer 12(10), section 3.3)
 * @inlet distance number "Distance" = 0
 * @inlet amount number "Amount" = 0 unit m: outwards.
 * @inlet steepest number "Steepest slope" = 1 in 0..20: of the amount, metres a metre; too small a number lets rays pass through.
 * @outlet result number "Distance": metres; never more than the true one.
 */
float displaced(float distance, float amount, float steepest) {
  return (distance - amount) / (1.0 + max(steepest, 0.0));
}
Field displaced(Field distance, float amount, float steepest) {
  return Field(displaced(distance.distance, amount, steepest), distance.region);
}
