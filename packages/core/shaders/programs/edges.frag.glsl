uniform sampler2D sceneColour;
uniform sampler2D edgeSurface;   // normal, depth and number of what is seen
uniform sampler2D edgeColour;    // the colour of its lines

uniform Edges {
  vec4 edgeSize;   // xy: width and height of the edge textures; z: their pixels to one of the picture; w: 1 under perspective
  vec4 edgeLine;   // x: half the width of a line, pixels of the edge textures; yz: first and last number of the parts
};

out vec4 pixel;

// Depths that bend by more than this part of themselves break; normals that differ by more than this cosine do.
const float DEPTH_BREAK = 0.01;
const float NORMAL_BREAK = 0.8;

ivec2 withinEdges(ivec2 place) {
  return clamp(place, ivec2(0), ivec2(edgeSize.xy) - 1);
}

vec4 edgeAt(ivec2 place) {
  return texelFetch(edgeSurface, withinEdges(place), 0);
}

// Whether a lies nearer to the eye than b; nothing is there where the number is 0.
bool isNearer(vec4 a, vec4 b) {
  if (a.w == 0.0 || b.w == 0.0) {
    return a.w != 0.0;
  }
  return edgeSize.w > 0.5 ? a.z > b.z : a.z < b.z;
}

bool bends(vec4 here, vec4 one, vec4 other) {
  return abs(one.z + other.z - 2.0 * here.z) > DEPTH_BREAK * here.z;
}

// A round surface bends over the width of a line, but not from one pixel to the next.
bool depthBreaks(ivec2 place, vec2 way) {
  int steps = int(ceil(edgeLine.x));
  vec4 before = edgeAt(place - ivec2(floor(way * float(steps) + 0.5)));
  vec4 here = edgeAt(place - ivec2(floor(way * float(steps - 1) + 0.5)));
  for (int number = 2 - steps; number <= steps; number++) {
    vec4 next = edgeAt(place + ivec2(floor(way * float(number) + 0.5)));
    if (bends(here, before, next)) {
      return true;
    }
    before = here;
    here = next;
  }
  return false;
}

bool breaks(vec4 here, vec4 one, vec4 other, ivec2 place, vec2 way) {
  if (here.w != one.w || here.w != other.w) {
    return true;
  }
  if (here.w == 0.0) {
    return false;
  }
  if (dot(fromOctahedral(one.xy), fromOctahedral(other.xy)) < NORMAL_BREAK) {
    return true;
  }
  return bends(here, one, other) && depthBreaks(place, way);
}

// The line through this place, its cover in w: lines belong to the nearest of the parts that meet.
vec4 lineAt(ivec2 place) {
  vec4 here = edgeAt(place);
  vec4 found = vec4(0.0);
  vec4 nearest = vec4(0.0);
  float reach = edgeLine.x;
  for (int turn = 0; turn < 4; turn++) {
    float angle = float(turn) * 0.7853981634;
    vec2 way = vec2(cos(angle), sin(angle));
    ivec2 step = ivec2(floor(way * reach + 0.5));
    vec4 one = edgeAt(place + step);
    vec4 other = edgeAt(place - step);
    if (breaks(here, one, other, place, way)) {
      vec4 front = here;
      ivec2 at = place;
      if (isNearer(one, front)) {
        front = one;
        at = place + step;
      }
      if (isNearer(other, front)) {
        front = other;
        at = place - step;
      }
      if (front.w >= edgeLine.y && front.w <= edgeLine.z && isNearer(front, nearest)) {
        nearest = front;
        found = vec4(texelFetch(edgeColour, withinEdges(at), 0).rgb, 1.0);
      }
    }
  }
  return found;
}

void main() {
  ivec2 at = ivec2(gl_FragCoord.xy);
  int fine = int(edgeSize.z + 0.5);
  vec4 sum = vec4(0.0);
  for (int y = 0; y < fine; y++) {
    for (int x = 0; x < fine; x++) {
      sum += lineAt(at * fine + ivec2(x, y));
    }
  }
  vec4 line = sum / float(fine * fine);
  vec4 scene = texelFetch(sceneColour, at, 0);
  pixel = vec4(scene.rgb * (1.0 - line.w) + line.rgb, scene.a * (1.0 - line.w) + line.w);
}
