// Signed distances to solids round the origin, y up: below 0 inside. Exact outside of a solid; what is more, or less, is said.
// They are made of two plane cases: a box's corner, and a segment.

// Of what lies within two distances at right angles to each other.
float withinBoth(float first, float second) {
  vec2 q = vec2(first, second);
  return length(max(q, vec2(0.0))) + min(max(q.x, q.y), 0.0);
}

float withinAll(vec3 q) {
  return length(max(q, vec3(0.0))) + min(max(q.x, max(q.y, q.z)), 0.0);
}

// The share of the way from one end of a segment at which it is nearest; 0 where it has no length.
float nearestShare(float along, float squaredLength) {
  return clamp(along / max(squaredLength, 1e-12), 0.0, 1.0);
}

/**
 * Field, sphere: the distance to a sphere round the origin, below 0 inside.
 * @kind sphereField 1
 * @family Fields
 * @words sdf, signed distance field, ball, round, distance function
 * @source length(p) − radius (Hart 1996, "Sphere tracing", The Visual Computer 12(10), appendix A); exact
 * @inlet position position "Position" = surface position
 * @inlet radius number "Radius" = 0.5 in 0..10 unit m
 * @outlet result number "Distance": metres.
 */
float sphereField(vec3 position, float radius) {
  return length(position) - radius;
}

/**
 * Field, ellipsoid: the distance to an ellipsoid round the origin, below 0 inside.
 * @kind ellipsoidField 1
 * @family Fields
 * @words sdf, signed distance field, egg, stretched sphere, float
 * @source Nearest point r²p / (t + r²), with t the largest root of Σ (r p / (t + r²))² = 1 (Eberly 2013, "Distance from a point to an ellipse, an ellipsoid, or a hyperellipsoid"); by eight steps of Newton from where that convex sum is above 1: to a part in a thousand while no radius is more than twenty times another
 * @inlet position position "Position" = surface position
 * @inlet radii vector "Radii" = 0.5 0.3 0.4 unit m
 * @outlet result number "Distance": metres.
 */
float ellipsoidField(vec3 position, vec3 radii) {
  vec3 r = clamp(abs(radii), vec3(1e-4), vec3(1e6));
  // In one eighth of space, a little off its walls: there the sum has no poles.
  vec3 p = clamp(max(abs(position), r * 1e-4), vec3(0.0), vec3(1e7));
  vec3 squared = r * r;
  vec3 starts = r * p - squared;
  float t = max(starts.x, max(starts.y, starts.z));
  for (int step = 0; step < 8; step++) {
    vec3 share = r * p / (t + squared);
    vec3 falling = share * share / (t + squared);
    t += (dot(share, share) - 1.0) / max(2.0 * (falling.x + falling.y + falling.z), 1e-30);
  }
  float away = length(p - squared * p / (t + squared));
  vec3 inside = position / r;
  return dot(inside, inside) < 1.0 ? -away : away;
}

/**
 * Field, box: the distance to a box round the origin, below 0 inside; its edges may be rounded.
 * @kind boxField 1
 * @family Fields
 * @words sdf, signed distance field, cube, cuboid, block, rounded box
 * @source With q = |p| − size / 2: length(max(q, 0)) + min(max(q.x, q.y, q.z), 0) (distance to a box: Arvo 1990, "A simple method for box-sphere intersection testing", Graphics Gems); rounded: the same of a box that is smaller by the radius, less the radius; exact
 * @inlet position position "Position" = surface position
 * @inlet size vector "Size" = 1 1 1 unit m
 * @inlet rounding number "Rounding" = 0 in 0..1 unit m: radius of the edges.
 * @outlet result number "Distance": metres.
 */
float boxField(vec3 position, vec3 size, float rounding) {
  vec3 halves = abs(size) * 0.5;
  float radius = clamp(rounding, 0.0, min(halves.x, min(halves.y, halves.z)));
  return withinAll(abs(position) - halves + radius) - radius;
}

/**
 * Field, box frame: the distance to the twelve edges of a box, as bars of square section within it.
 * @kind boxFrameField 1
 * @family Fields
 * @words sdf, signed distance field, rack, wireframe, cage, edges, bars, scaffold
 * @source The nearest of three bars in one eighth of space, which is symmetrical; each a box. Exact outside, inside a bound where bars meet
 * @inlet position position "Position" = surface position
 * @inlet size vector "Size" = 1 1 1 unit m
 * @inlet thickness number "Thickness" = 0.1 in 0..1 unit m: edge of the bars’ section.
 * @outlet result number "Distance": metres.
 */
float boxFrameField(vec3 position, vec3 size, float thickness) {
  vec3 halves = abs(size) * 0.5;
  float bar = clamp(thickness, 0.0, 2.0 * min(halves.x, min(halves.y, halves.z))) * 0.5;
  vec3 q = abs(position) - halves;
  vec3 section = abs(q + bar) - bar;
  return min(
    withinAll(vec3(q.x, section.y, section.z)),
    min(withinAll(vec3(section.x, q.y, section.z)), withinAll(vec3(section.x, section.y, q.z)))
  );
}

/**
 * Field, plane: the distance to a plane, below 0 behind it.
 * @kind planeField 1
 * @family Fields
 * @words sdf, signed distance field, ground, floor, wall, half space
 * @source dot(p, normal) − height (Hart 1996, "Sphere tracing", The Visual Computer 12(10), appendix A); exact
 * @inlet position position "Position" = surface position
 * @inlet normal vector "Normal" = 0 1 0: any length.
 * @inlet height number "Height" = 0 in -10..10 unit m: along the normal, from the origin.
 * @outlet result number "Distance": metres.
 */
float planeField(vec3 position, vec3 normal, float height) {
  return dot(position, safeNormalize(normal)) - height;
}

/**
 * Field, cylinder: the distance to an upright cylinder round the origin, below 0 inside; its rims may be rounded.
 * @kind cylinderField 1
 * @family Fields
 * @words sdf, signed distance field, tube, post, pillar, disc, rounded cylinder
 * @source A rectangle in the half plane (√(x² + z²), y), see Field, box; exact
 * @inlet position position "Position" = surface position
 * @inlet radius number "Radius" = 0.5 in 0..10 unit m
 * @inlet height number "Height" = 1 in 0..10 unit m
 * @inlet rounding number "Rounding" = 0 in 0..1 unit m: radius of the rims.
 * @outlet result number "Distance": metres.
 */
float cylinderField(vec3 position, float radius, float height, float rounding) {
  vec2 halves = abs(vec2(radius, height * 0.5));
  float soft = clamp(rounding, 0.0, min(halves.x, halves.y));
  return withinBoth(length(position.xz) - halves.x + soft, abs(position.y) - halves.y + soft) - soft;
}

/**
 * Field, capped cone: the distance to an upright cone whose tip is cut off, below 0 inside.
 * @kind cappedConeField 1
 * @family Fields
 * @words sdf, signed distance field, truncated cone, frustum, bucket, lampshade, taper
 * @source A trapezium in the half plane (√(x² + z²), y): the nearer of its ends and its slanted side; exact
 * @inlet position position "Position" = surface position
 * @inlet bottom number "Bottom radius" = 0.5 in 0..10 unit m
 * @inlet top number "Top radius" = 0.25 in 0..10 unit m
 * @inlet height number "Height" = 1 in 0..10 unit m
 * @outlet result number "Distance": metres.
 */
float cappedConeField(vec3 position, float bottom, float top, float height) {
  vec2 low = vec2(abs(bottom), abs(height) * -0.5);
  vec2 side = vec2(abs(top) - low.x, abs(height));
  vec2 q = vec2(length(position.xz), position.y);
  vec2 onEnds = vec2(max(q.x - (q.y < 0.0 ? low.x : abs(top)), 0.0), abs(q.y) + low.y);
  vec2 onSide = q - low - side * nearestShare(dot(q - low, side), dot(side, side));
  bool inside = onEnds.y < 0.0 && (q.x - low.x) * side.y < (q.y - low.y) * side.x;
  float away = sqrt(min(dot(onEnds, onEnds), dot(onSide, onSide)));
  return inside ? -away : away;
}

/**
 * Field, cone: the distance to an upright cone round the origin, its tip above, below 0 inside.
 * @kind coneField 1
 * @family Fields
 * @words sdf, signed distance field, spike, roof, funnel
 * @source A capped cone whose top radius is 0; exact
 * @inlet position position "Position" = surface position
 * @inlet radius number "Radius" = 0.5 in 0..10 unit m
 * @inlet height number "Height" = 1 in 0..10 unit m
 * @outlet result number "Distance": metres.
 */
float coneField(vec3 position, float radius, float height) {
  return cappedConeField(position, radius, 0.0, height);
}

/**
 * Field, capsule: the distance to a segment with round ends, below 0 inside.
 * @kind capsuleField 1
 * @family Fields
 * @words sdf, signed distance field, pill, segment, line, rod, bone, stick
 * @source The distance to a segment, less the radius (Hart 1996, "Sphere tracing", The Visual Computer 12(10), appendix A); exact
 * @inlet position position "Position" = surface position
 * @inlet from position "From" = 0 -0.5 0 unit m
 * @inlet to position "To" = 0 0.5 0 unit m
 * @inlet radius number "Radius" = 0.2 in 0..10 unit m
 * @outlet result number "Distance": metres.
 */
float capsuleField(vec3 position, vec3 from, vec3 to, float radius) {
  vec3 along = to - from;
  return length(position - from - along * nearestShare(dot(position - from, along), dot(along, along))) - radius;
}

/**
 * Field, torus: the distance to a ring that lies flat round the origin, below 0 inside.
 * @kind torusField 1
 * @family Fields
 * @words sdf, signed distance field, ring, doughnut, tyre
 * @source A circle in the half plane (√(x² + z²), y) (Hart 1996, "Sphere tracing", The Visual Computer 12(10), appendix A); exact
 * @inlet position position "Position" = surface position
 * @inlet radius number "Radius" = 0.5 in 0..10 unit m: of the circle along which the ring runs.
 * @inlet thickness number "Thickness" = 0.3 in 0..10 unit m: diameter of its section.
 * @outlet result number "Distance": metres.
 */
float torusField(vec3 position, float radius, float thickness) {
  return length(vec2(length(position.xz) - abs(radius), position.y)) - abs(thickness) * 0.5;
}

/**
 * Field, link: the distance to an upright link of a chain, below 0 inside.
 * @kind linkField 1
 * @family Fields
 * @words sdf, signed distance field, chain, long ring, oval ring, shackle
 * @source A standing torus, pulled apart in its middle; exact
 * @inlet position position "Position" = surface position
 * @inlet straight number "Straight part" = 0.4 in 0..10 unit m: between its two half rings.
 * @inlet radius number "Radius" = 0.3 in 0..10 unit m: of the half circles along which it runs.
 * @inlet thickness number "Thickness" = 0.15 in 0..10 unit m: diameter of its section.
 * @outlet result number "Distance": metres.
 */
float linkField(vec3 position, float straight, float radius, float thickness) {
  float y = max(abs(position.y) - abs(straight) * 0.5, 0.0);
  return length(vec2(length(vec2(position.x, y)) - abs(radius), position.z)) - abs(thickness) * 0.5;
}

/**
 * Field, prism: the distance to an upright regular prism round the origin, below 0 inside.
 * @kind prismField 1
 * @family Fields
 * @words sdf, signed distance field, hexagon, triangle, column, nut, extruded polygon
 * @source An extruded polygon, see Distance to polygon and Extrude; exact
 * @inlet position position "Position" = surface position
 * @inlet sides count "Sides" = 6 in 3..64
 * @inlet radius number "Radius" = 0.5 in 0..10 unit m: from the middle to a corner.
 * @inlet height number "Height" = 1 in 0..10 unit m
 * @outlet result number "Distance": metres.
 */
float prismField(vec3 position, float sides, float radius, float height) {
  return extruded(distanceToPolygon(position.xz, vec2(0.0), radius, sides), position.y, height);
}

/**
 * Field, arch: the distance to a half ring on two legs, of rectangular section, below 0 inside.
 * @kind archField 1
 * @family Fields
 * @words sdf, signed distance field, gate, vault, bridge, horseshoe, doorway, hall
 * @source Above the springing line a ring, below it two rectangles, extruded; exact outside
 * @inlet position position "Position" = surface position
 * @inlet radius number "Radius" = 0.5 in 0..10 unit m: of the half circle along which it runs, round the origin.
 * @inlet legs number "Legs" = 0.5 in 0..10 unit m: how far they reach below the origin.
 * @inlet thickness number "Thickness" = 0.2 in 0..10 unit m
 * @inlet depth number "Depth" = 0.3 in 0..10 unit m: along z.
 * @outlet result number "Distance": metres.
 */
float archField(vec3 position, float radius, float legs, float thickness, float depth) {
  float across = abs((position.y > 0.0 ? length(position.xy) : abs(position.x)) - abs(radius)) - abs(thickness) * 0.5;
  float profile = withinBoth(across, -position.y - abs(legs));
  return extruded(profile, position.z, depth);
}

/**
 * Field, height: the distance to ground whose height any node gives, below 0 beneath it.
 * @kind heightField 1
 * @family Fields
 * @words sdf, signed distance field, terrain, landscape, height map, relief, ground, waves
 * @source (y − height) / √(1 + steepest²): a lower bound of the distance to a graph whose slope is never above the steepest (Hart 1996, "Sphere tracing", The Visual Computer 12(10), section 3.3)
 * @inlet position position "Position" = surface position
 * @inlet height number "Height" = 0 in -10..10 unit m
 * @inlet steepest number "Steepest slope" = 1 in 0..20: rise over run; too small a number lets rays pass through the ground.
 * @outlet result number "Distance": metres; never more than the true one.
 */
float heightField(vec3 position, float height, float steepest) {
  return (position.y - height) * inversesqrt(1.0 + steepest * steepest);
}
