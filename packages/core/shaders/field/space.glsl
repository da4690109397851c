// Changes of the space in which a field is asked: the place at which to ask it. What is moved or turned keeps its distances; what is
// repeated or mirrored does while each copy stays within its cell; what is twisted or bent has longer ones, which is said.

struct ScaledSpace {
  vec3 position;
  float factor;
};

struct RepeatedSpace {
  vec3 position;
  vec3 index;
};

struct RingSpace {
  vec3 position;
  float index;
};

/**
 * Space, moved: a field that is asked here stands at another place.
 * @kind spaceMoved 1
 * @family Fields
 * @words translate, offset, position, shift, move
 * @source p − offset; keeps distances
 * @inlet position position "Position" = surface position
 * @inlet offset vector "Offset" = 0 0 0 unit m
 * @outlet result position "Position"
 */
vec3 movedSpace(vec3 position, vec3 offset) {
  return position - offset;
}

/**
 * Space, turned: a field that is asked here stands turned round an axis through the origin.
 * @kind spaceTurned 1
 * @family Fields
 * @words rotate, rotation, axis, angle, turn
 * @source Rodrigues’ formula, by the opposite angle; keeps distances
 * @inlet position position "Position" = surface position
 * @inlet axis vector "Axis" = 0 1 0: any length.
 * @inlet angle number "Angle" = 0 in -6.2832..6.2832 unit radians
 * @outlet result position "Position"
 */
vec3 turnedSpace(vec3 position, vec3 axis, float angle) {
  vec3 k = safeNormalize(axis);
  float c = cos(angle);
  return position * c - cross(k, position) * sin(angle) + k * (dot(k, position) * (1.0 - c));
}

/**
 * Space, scaled: a field that is asked here is larger; multiply its distance by the factor.
 * @kind spaceScaled 1
 * @family Fields
 * @words scale, size, zoom, larger, smaller
 * @source f(p / s) s; keeps distances, once multiplied
 * @inlet position position "Position" = surface position
 * @inlet size number "Scale" = 1 in 0.01..100
 * @outlet position position "Position"
 * @outlet factor number "Factor": by which the field’s distance is to be multiplied.
 */
ScaledSpace scaledSpace(vec3 position, float size) {
  float factor = max(abs(size), 1e-6);
  return ScaledSpace(position / factor, factor);
}

/**
 * Space, repeated: a field that is asked here stands in a grid, endless or of so many copies.
 * @kind spaceRepeated 1
 * @family Fields
 * @words repeat, tile, array, grid, modulo, instances, rows, columns, infinite
 * @source p − spacing · cell, the cell nearest to p of those there are; keeps distances while each copy stays within half the spacing and is symmetrical, else a neighbour may be nearer
 * @inlet position position "Position" = surface position
 * @inlet spacing vector "Spacing" = 2 0 2 unit m: 0 along an axis does not repeat there.
 * @inlet copies vector "Copies" = 0 0 0: along each axis, about the origin; 0 without end.
 * @outlet position position "Position"
 * @outlet index vector "Index": of the copy along each axis; from 0, or about 0 where there is no end.
 */
RepeatedSpace repeatedSpace(vec3 position, vec3 spacing, vec3 copies) {
  vec3 pace = abs(spacing);
  vec3 repeats = step(vec3(1e-6), pace);
  vec3 last = max(floor(abs(copies) + 0.5) - 1.0, vec3(0.0));
  vec3 ends = step(vec3(0.5), abs(copies));
  vec3 first = last * 0.5 * ends;
  vec3 cell = floor(position / max(pace, vec3(1e-6)) + first + 0.5);
  vec3 index = mix(cell, clamp(cell, vec3(0.0), last), ends) * repeats;
  return RepeatedSpace(position - pace * (index - first) * repeats, index);
}

/**
 * Space, in a ring: a field that is asked here stands so many times round the upright axis, x pointing outwards.
 * @kind spaceRing 1
 * @family Fields
 * @words polar repeat, radial array, circular, around, kaleidoscope, spokes
 * @source p, turned back to the first of as many equal sectors; keeps distances while each copy stays within its sector
 * @inlet position position "Position" = surface position
 * @inlet copies count "Copies" = 6 in 1..256
 * @outlet position position "Position"
 * @outlet index number "Index": of the copy, from 0.
 */
RingSpace ringSpace(vec3 position, float copies) {
  float count = clamp(floor(copies + 0.5), 1.0, 256.0);
  float sector = 6.28318531 / count;
  float angle = dot(position.xz, position.xz) > 0.0 ? atan(position.z, position.x) : 0.0;
  float turn = floor(angle / sector + 0.5);
  float off = angle - sector * turn;
  float away = length(position.xz);
  return RingSpace(vec3(away * cos(off), position.y, away * sin(off)), turn < 0.0 ? turn + count : turn);
}

/**
 * Space, mirrored: a field that is asked here is seen in one, two or eight mirrors.
 * @kind spaceMirrored 1
 * @family Fields
 * @words mirror, symmetry, reflect, fold, kaleidoscope, octant
 * @source |x|; |x| and |z|; or both, the larger one first. Keeps distances while the field stays on its side of the mirrors
 * @inlet position position "Position" = surface position
 * @inlet ways choice "Ways" = 0 of one|two|eight
 * @inlet offset number "Offset" = 0 in -10..10 unit m: how far from the mirrors the field’s origin stands.
 * @outlet result position "Position"
 */
vec3 mirroredSpace(vec3 position, float ways, float offset) {
  vec3 p = vec3(abs(position.x), position.yz);
  if (ways > 0.5) p.z = abs(p.z);
  if (ways > 1.5 && p.z > p.x) p = p.zyx;
  return p - vec3(offset, 0.0, ways > 0.5 ? offset : 0.0);
}

/**
 * Space, twisted: a field that is asked here is twisted round the upright axis.
 * @kind spaceTwisted 1
 * @family Fields
 * @words twist, screw, helix, spiral, deform
 * @source Turned by an angle that grows with height (Barr 1984, "Global and local deformations of solid primitives", SIGGRAPH); lengthens distances, r metres off the axis by up to k / 2 + √(1 + k² / 4) with k = r · twist
 * @inlet position position "Position" = surface position
 * @inlet twist number "Twist" = 1 in -20..20: radians a metre of height.
 * @outlet result position "Position"
 */
vec3 twistedSpace(vec3 position, float twist) {
  float angle = position.y * twist;
  float c = cos(angle);
  float s = sin(angle);
  return vec3(c * position.x + s * position.z, position.y, c * position.z - s * position.x);
}

/**
 * Space, bent: a field that is asked here is bent upwards along x.
 * @kind spaceBent 1
 * @family Fields
 * @words bend, curve, curl, deform, arc
 * @source The x axis laid along a circle of radius 1 / bend (Barr 1984, "Global and local deformations of solid primitives", SIGGRAPH); lengthens distances, h metres inside the circle’s line by up to 1 / (1 − h · bend)
 * @inlet position position "Position" = surface position
 * @inlet bend number "Bend" = 0.5 in -10..10: radians a metre of length.
 * @outlet result position "Position"
 */
vec3 bentSpace(vec3 position, float bend) {
  if (abs(bend) < 1e-5) return position;
  float radius = 1.0 / bend;
  vec2 from = vec2(position.x, (radius - position.y) * sign(bend));
  float angle = dot(from, from) > 0.0 ? atan(from.x, from.y) : 0.0;
  return vec3(angle * abs(radius), radius - length(from) * sign(bend), position.z);
}

/**
 * Space, stretched: a field that is asked here is cut through its middle and pulled apart.
 * @kind spaceStretched 1
 * @family Fields
 * @words elongate, extend, stretch, pull, longer
 * @source p − clamp(p, −length / 2, length / 2); exact outside where the field is convex
 * @inlet position position "Position" = surface position
 * @inlet added vector "Length" = 1 0 0 unit m: that is put in, along each axis.
 * @outlet result position "Position"
 */
vec3 stretchedSpace(vec3 position, vec3 added) {
  vec3 halves = abs(added) * 0.5;
  return position - clamp(position, -halves, halves);
}
