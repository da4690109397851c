// Sphere tracing (Hart 1996, "Sphere tracing: a geometric method for the antialiased ray tracing of implicit surfaces", The Visual
// Computer 12(10)): along a ray it is safe to go as far as the field says. A little farther is tried, and taken back where the balls
// round both places do not touch (Keinert, Schäfer, Korndörfer, Ganse, Stamminger 2014, "Enhanced sphere tracing", STAG, section 3.1).

// The point of the far side of a field's box that is drawn here, world space.
in vec3 boxPoint;

// Supplied by the field: its distance at a point of object space, metres, and the number of the part there.
float fieldAt(vec3 position, out int region);

vec4 rowOf(mat4 m, int row) {
  return vec4(m[0][row], m[1][row], m[2][row], m[3][row]);
}

// The unit vector away from the eye along which a picture shows points in one place: where two planes of its clip space meet.
vec3 sightThrough(mat4 clip, vec3 world) {
  vec4 seen = clip * vec4(world, 1.0);
  vec3 together = rowOf(clip, 3).xyz;
  vec3 across = rowOf(clip, 0).xyz - together * (seen.x / seen.w);
  vec3 up = rowOf(clip, 1).xyz - together * (seen.y / seen.w);
  vec3 deeper = rowOf(clip, 2).xyz - together * (seen.z / seen.w);
  vec3 sight = safeNormalize(cross(across, up));
  return dot(deeper, sight) < 0.0 ? -sight : sight;
}

// A vector of world space in the object space of a copy; rows x, y, z of worldFromObject.
vec3 unplacedVector(vec3 vector, vec3 x, vec3 y, vec3 z) {
  vec3 across = cross(y, z);
  float volume = dot(x, across);
  return (across * vector.x + cross(z, x) * vector.y + cross(x, y) * vector.z) / (abs(volume) > 1e-20 ? volume : 1e-20);
}

vec3 unplacedPoint(vec3 world, vec4 x, vec4 y, vec4 z) {
  return unplacedVector(world - vec3(x.w, y.w, z.w), x.xyz, y.xyz, z.xyz);
}

struct FieldHit {
  bool there;
  // Metres back from the far side of the box, along the line of sight.
  float back;
  // Object space.
  vec3 position;
  int region;
  // Metres of world space that a pixel covers there.
  float pixel;
  // −1 where the line began inside of a solid, whose walls are then seen from inside; else 1.
  float side;
  // How often the field was asked.
  int steps;
};

const int MOST_STEPS = 1024;

// Where a line of sight first meets the field of a copy.
// clip: of the picture that is drawn; pixels: how many it is wide.
FieldHit tracedField(mat4 clip, float pixels, vec4 x, vec4 y, vec4 z) {
  vec3 sight = sightThrough(clip, boxPoint);
  vec3 end = unplacedPoint(boxPoint, x, y, z);
  vec3 way = unplacedVector(sight, x.xyz, y.xyz, z.xyz);
  // Backwards to where the line enters the box, or to the picture's nearest plane.
  vec3 low = placeOrigin.xyz;
  vec3 size = vec3(placeScale.x > 0.0 ? 1.0 / placeScale.x : 0.0, placeScale.y > 0.0 ? 1.0 / placeScale.y : 0.0, placeScale.z > 0.0 ? 1.0 / placeScale.z : 0.0);
  vec3 safe = vec3(abs(way.x) > 1e-9 ? way.x : 1e-9, abs(way.y) > 1e-9 ? way.y : 1e-9, abs(way.z) > 1e-9 ? way.z : 1e-9);
  vec3 leaves = max((end - low) / safe, (end - low - size) / safe);
  vec4 seen = clip * vec4(boxPoint, 1.0);
  float nearing = dot(rowOf(clip, 2).xyz, sight);
  float span = max(min(min(leaves.x, min(leaves.y, leaves.z)), nearing > 1e-9 ? seen.z / nearing : 1e9), 0.0);
  vec3 start = end - way * span;
  float growth = dot(rowOf(clip, 3).xyz, sight);
  float across = 2.0 / (pixels * max(length(rowOf(clip, 0).xyz), 1e-9));
  // The field counts in metres of object space, the line of sight in those of the world.
  float scale = partField.z / max(length(way), 1e-12);
  FieldHit hit = FieldHit(false, 0.0, end, 0, 0.0, 1.0, 1);
  int region = 0;
  hit.side = fieldAt(start, region) < 0.0 ? -1.0 : 1.0;
  float along = 0.0;
  float last = 0.0;
  float stride = 0.0;
  float relaxed = 1.4;
  int most = min(int(partField.x), MOST_STEPS);
  for (int i = 0; i < MOST_STEPS; i++) {
    // A stride that was longer than is safe may have led past the far side too soon.
    if (along > span && stride > last) {
      along += last - stride;
      stride = last;
      relaxed = 1.0;
    }
    if (i >= most || along > span) break;
    hit.steps += 1;
    float distance = hit.side * fieldAt(start + way * along, region) * scale;
    if (relaxed > 1.0 && abs(distance) + last < stride) {
      along += last - stride;
      stride = last;
      relaxed = 1.0;
      continue;
    }
    hit.pixel = across * max(seen.w - growth * (span - along), 1e-4);
    float near = hit.pixel * partField.y;
    // A field that is steeper than it should be leads past its surface: back to it.
    if (distance < -near && along > 0.0) {
      along = max(along + distance, 0.0);
      stride = 0.0;
      last = 0.0;
      relaxed = 1.0;
      continue;
    }
    if (distance < near) {
      hit.there = true;
      along = min(along + distance, span);
      break;
    }
    last = distance;
    stride = distance * relaxed;
    along += stride;
  }
  hit.back = span - along;
  hit.position = start + way * along;
  hit.region = region;
  return hit;
}

// The slope of the field by differences at the corners of a tetrahedron, object space; 0 where it has none.
vec3 fieldSlope(vec3 position, float reach) {
  vec3 slope = vec3(0.0);
  int region = 0;
  for (int i = 0; i < 4; i++) {
    vec3 corner = vec3(i == 0 || i == 3 ? 1.0 : -1.0, i == 1 || i == 3 ? 1.0 : -1.0, i == 2 || i == 3 ? 1.0 : -1.0);
    slope += corner * fieldAt(position + corner * reach, region);
  }
  return slope / (4.0 * reach);
}

// How far from a point its slope is measured: a pixel's worth, and more than numbers of its size are rounded by.
float slopeReach(vec3 position, float pixel) {
  vec3 away = abs(position);
  return max(0.5 * pixel, 2e-4 * max(1.0, max(away.x, max(away.y, away.z))));
}
