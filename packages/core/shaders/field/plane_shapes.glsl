// Signed distances to shapes of the plane, and what makes solids of them.

// A point of the plane in the first of `count` equal sectors round the origin, folded over the sector's middle: x out along the
// middle, y away from it, never below 0. Of what is the same in all sectors, and in both halves of each, the nearest lies in the same half.
vec2 inHalfSector(vec2 point, float count) {
  float sector = 6.28318531 / count;
  float angle = dot(point, point) > 0.0 ? atan(point.y, point.x) : 0.0;
  float off = abs(angle - sector * floor(angle / sector + 0.5));
  return length(point) * vec2(cos(off), sin(off));
}

/**
 * Distance to polygon: how far a place is from a regular polygon, below 0 inside of it. A corner points along u.
 * @kind polygonDistance 1
 * @family Patterns
 * @words sdf, signed distance, signed distance field, triangle, pentagon, hexagon, octagon, regular
 * @source The distance to one edge, in the half sector in which it lies, since the others mirror it; exact
 * @inlet uv uv "UV" = surface uv
 * @inlet middle uv "Centre" = 0.5 0.5
 * @inlet radius number "Radius" = 0.3 in 0..1: from the centre to a corner.
 * @inlet sides count "Sides" = 6 in 3..64
 * @outlet result number "Distance": in units of the UV; a step at 0 draws the polygon.
 */
float distanceToPolygon(vec2 uv, vec2 middle, float radius, float sides) {
  float count = clamp(floor(sides + 0.5), 3.0, 64.0);
  float halfSector = 3.14159265 / count;
  vec2 folded = inHalfSector(uv - middle, count);
  // Round the corner at angle 0, towards the middle of the edge.
  vec2 turned = vec2(cos(halfSector) * folded.x + sin(halfSector) * folded.y, cos(halfSector) * folded.y - sin(halfSector) * folded.x);
  float outwards = turned.x - abs(radius) * cos(halfSector);
  float beyond = max(abs(turned.y) - abs(radius) * sin(halfSector), 0.0);
  return outwards > 0.0 ? length(vec2(outwards, beyond)) : outwards;
}

/**
 * Distance to star: how far a place is from a star, below 0 inside of it. A tip points along u.
 * @kind starDistance 1
 * @family Patterns
 * @words sdf, signed distance, signed distance field, pentagram, points, cog, badge
 * @source The distance to the segment from a tip to the next notch, in the half sector in which it lies, since the others mirror it; exact
 * @inlet uv uv "UV" = surface uv
 * @inlet middle uv "Centre" = 0.5 0.5
 * @inlet tips number "Tip radius" = 0.4 in 0..1
 * @inlet notches number "Notch radius" = 0.2 in 0..1
 * @inlet points count "Points" = 5 in 2..64
 * @outlet result number "Distance": in units of the UV; a step at 0 draws the star.
 */
float distanceToStar(vec2 uv, vec2 middle, float tips, float notches, float points) {
  float count = clamp(floor(points + 0.5), 2.0, 64.0);
  vec2 folded = inHalfSector(uv - middle, count);
  vec2 tip = vec2(abs(tips), 0.0);
  vec2 along = abs(notches) * vec2(cos(3.14159265 / count), sin(3.14159265 / count)) - tip;
  vec2 from = folded - tip;
  float away = length(from - along * nearestShare(dot(from, along), dot(along, along)));
  return along.x * from.y - along.y * from.x > 0.0 ? -away : away;
}

/**
 * Distance to curve: how far a place is from a curve that begins at one point, bends towards another and ends at a third.
 * @kind curveDistance 1
 * @family Patterns
 * @words sdf, signed distance, signed distance field, bezier, stroke, quadratic, arc, bow, rope, line
 * @source Quadratic Bézier curve; its nearest point is a root of the cubic (B(t) − p) · B′(t) = 0, by Viète and Cardano; exact
 * @inlet uv uv "UV" = surface uv
 * @inlet from uv "From" = 0.2 0.7
 * @inlet bend uv "Towards" = 0.5 0.1
 * @inlet to uv "To" = 0.8 0.7
 * @inlet thickness number "Thickness" = 0.05 in 0..1
 * @outlet result number "Distance": in units of the UV; a step at 0 draws the stroke.
 */
float distanceToCurve(vec2 uv, vec2 from, vec2 bend, vec2 to, float thickness) {
  float stroke = abs(thickness) * 0.5;
  vec2 start = from - uv;
  vec2 first = bend - from;
  vec2 second = from - 2.0 * bend + to;
  float curved = dot(second, second);
  float chord = dot(to - from, to - from);
  // As good as straight.
  if (curved <= 1e-8 * max(chord, 1e-12)) {
    vec2 along = to - from;
    return length(start + along * nearestShare(dot(-start, along), chord)) - stroke;
  }
  // t³ + 3 a t² + b t + c, and with t = s − a: s³ + 3 p s + 2 q.
  float a = dot(first, second) / curved;
  float b = (2.0 * dot(first, first) + dot(start, second)) / curved;
  float c = dot(start, first) / curved;
  float p = b / 3.0 - a * a;
  float q = a * a * a - 0.5 * a * b + 0.5 * c;
  float discriminant = q * q + p * p * p;
  float nearest;
  if (discriminant >= 0.0) {
    float root = sqrt(discriminant);
    // Of −q ± root the larger is free of cancellation; the other cube root is −p over it.
    float larger = q > 0.0 ? -q - root : -q + root;
    float cube = sign(larger) * pow(abs(larger), 1.0 / 3.0);
    float t = clamp((abs(cube) > 1e-12 ? cube - p / cube : 0.0) - a, 0.0, 1.0);
    vec2 there = start + (2.0 * first + second * t) * t;
    nearest = dot(there, there);
  } else {
    float size = sqrt(-p);
    float third = acos(clamp(-q / (size * size * size), -1.0, 1.0)) / 3.0;
    // The middle one of three roots is a farthest point.
    float t = clamp(2.0 * size * cos(third) - a, 0.0, 1.0);
    float u = clamp(2.0 * size * cos(third + 6.28318531 / 3.0) - a, 0.0, 1.0);
    vec2 there = start + (2.0 * first + second * t) * t;
    vec2 other = start + (2.0 * first + second * u) * u;
    nearest = min(dot(there, there), dot(other, other));
  }
  return sqrt(nearest) - stroke;
}

/**
 * Extrude: makes a solid of a shape of the plane, with flat ends.
 * @kind extrude 1
 * @family Fields
 * @words thickness, depth, prism, plate, slab, solid
 * @source The intersection of a shape with a slab at right angles to it; exact where the shape is
 * @inlet distance number "Distance" = 0: to the shape, in the plane.
 * @inlet along number "Along" = 0 unit m: the coordinate across the plane.
 * @inlet height number "Height" = 1 in 0..10 unit m
 * @outlet result number "Distance": metres.
 */
float extruded(float distance, float along, float height) {
  return withinBoth(distance, abs(along) - abs(height) * 0.5);
}

/**
 * Revolve: the place in the plane of a shape that is turned round the upright axis.
 * @kind revolve 1
 * @family Fields
 * @words lathe, turned, spin, profile, rotation
 * @source (√(x² + z²) − offset, y); exact where the shape is, while it does not cross the axis
 * @inlet position position "Position" = surface position
 * @inlet offset number "Offset" = 0 in 0..10 unit m: how far from the axis the plane’s origin lies.
 * @outlet result uv "Place": u away from the axis, v up.
 */
vec2 revolved(vec3 position, float offset) {
  return vec2(length(position.xz) - offset, position.y);
}
