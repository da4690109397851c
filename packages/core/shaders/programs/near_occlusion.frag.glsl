// Depth, metres from the plane of the eye, in x; normal in view space in yzw. Very far where nothing stands.
uniform sampler2D nearScene;

uniform NearOcclusion {
  vec4 nearSpan;     // xy: half the width and height of the picture at 1 metre (at any distance without perspective); z: 1 with perspective, 0 without; w: radius, metres
  vec4 nearTarget;   // xy: width and height of what is drawn, pixels; z: strength, 0…1; w: pixels of a metre at 1 metre
};

out vec4 pixel;

vec4 nearTexel(vec2 at) {
  vec2 size = vec2(textureSize(nearScene, 0));
  return texelFetch(nearScene, ivec2(clamp(at * size, vec2(0.0), size - 1.0)), 0);
}

// A point of view space, the eye looks along −z, by its place in the picture (0…1, rows from the top) and its depth.
vec3 nearPoint(vec2 at, float depth) {
  vec2 seen = vec2(at.x, 1.0 - at.y) * 2.0 - 1.0;
  return vec3(seen * nearSpan.xy * mix(1.0, depth, nearSpan.z), -depth);
}

// Interleaved gradient noise (Jimenez 2014, "Next generation post processing", SIGGRAPH course): turns the slices a little from
// pixel to pixel, evenly among neighbours.
float sliceTurn(vec2 place) {
  return fract(52.9829189 * fract(dot(place, vec2(0.06711056, 0.00583715))));
}

// The cosine of the highest horizon on one side of a slice.
float horizonAlong(vec2 at, vec2 way, vec3 here, vec3 toEye, float lowest, float shift) {
  float highest = lowest;
  for (int i = 0; i < 6; i++) {
    // Steps lie closer near the point.
    float part = (float(i) + shift) / 6.0;
    vec2 place = at + way * (part * part + 0.004);
    if (min(place.x, place.y) > 0.0 && max(place.x, place.y) < 1.0) {
      vec3 away = nearPoint(place, nearTexel(place).x) - here;
      float distance = length(away);
      // Beyond the radius it counts for nothing, and less and less towards it.
      float counts = clamp(2.0 - 2.0 * distance / nearSpan.w, 0.0, 1.0);
      highest = max(highest, mix(lowest, dot(away, toEye) / max(distance, 1e-5), counts));
    }
  }
  return highest;
}

// Horizon-based occlusion (Jimenez, Wu, Pesce, Jarabo 2016, "Practical real-time strategies for accurate indirect occlusion",
// SIGGRAPH course, section 4): in each slice through the eye the light between two horizons, weighed by its cosine, has a
// closed form (equation 7).
void main() {
  vec2 at = gl_FragCoord.xy / nearTarget.xy;
  vec4 scene = nearTexel(at);
  // Nothing stands there.
  if (scene.x > 5.9e4) {
    pixel = vec4(1.0, scene.x, 0.0, 1.0);
    return;
  }
  vec3 here = nearPoint(at, scene.x * 0.999);
  vec3 toEye = nearSpan.z > 0.5 ? normalize(-here) : vec3(0.0, 0.0, 1.0);
  vec3 normal = normalize(scene.yzw);
  float reach = min(nearSpan.w * nearTarget.w / mix(1.0, scene.x, nearSpan.z), 0.3 * nearTarget.y);
  float turn = sliceTurn(floor(gl_FragCoord.xy));
  float open = 0.0;
  for (int i = 0; i < 3; i++) {
    float angle = 3.14159265 * (float(i) + turn) / 3.0;
    vec2 way = vec2(cos(angle), sin(angle));
    // Up in the picture is up in view space, and down in its rows.
    vec3 along = vec3(way.x, -way.y, 0.0);
    vec3 across = along - toEye * dot(along, toEye);
    vec3 axis = normalize(cross(across, toEye));
    vec3 inSlice = normal - axis * dot(normal, axis);
    float weight = max(length(inSlice), 1e-4);
    float cosine = clamp(dot(inSlice, toEye) / weight, -1.0, 1.0);
    float lean = sign(dot(inSlice, across)) * acos(cosine);
    vec2 step = way * reach / nearTarget.xy;
    float shift = fract(turn * 7.0 + float(i) * 0.37) * 0.9 + 0.05;
    float right = acos(clamp(horizonAlong(at, step, here, toEye, cos(lean + 1.5707963), shift), -1.0, 1.0));
    float left = -acos(clamp(horizonAlong(at, -step, here, toEye, cos(lean - 1.5707963), shift), -1.0, 1.0));
    float high = lean + clamp(right - lean, -1.5707963, 1.5707963);
    float low = lean + clamp(left - lean, -1.5707963, 1.5707963);
    float bend = sin(lean);
    open += weight * 0.25 * (2.0 * cosine + 2.0 * (high + low) * bend - cos(2.0 * high - lean) - cos(2.0 * low - lean));
  }
  // Seen edge on, a surface is its own horizon.
  float faces = clamp(dot(normal, toEye) * 4.0 - 0.2, 0.0, 1.0);
  float visible = mix(1.0, clamp(open / 3.0, 0.0, 1.0), faces);
  pixel = vec4(mix(1.0, visible, nearTarget.z), scene.x, 0.0, 1.0);
}
