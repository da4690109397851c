// Where a copy of a mesh puts its vertices: rows x, y, z of worldFromObject.
vec3 placedPoint(vec3 point, vec4 x, vec4 y, vec4 z) {
  vec4 position = vec4(point, 1.0);
  return vec3(dot(x, position), dot(y, position), dot(z, position));
}

// Normals go by the cofactor matrix, which also holds for uneven scale; a mirror turns it round. Not of unit length.
vec3 placedNormal(vec3 normal, vec3 x, vec3 y, vec3 z) {
  vec3 across = cross(y, z);
  float mirrored = dot(x, across) < 0.0 ? -1.0 : 1.0;
  return vec3(dot(across, normal), dot(cross(z, x), normal), dot(cross(x, y), normal)) * mirrored;
}

// A mirror turns the handedness of the tangent's frame round.
vec4 placedTangent(vec4 tangent, vec3 x, vec3 y, vec3 z) {
  float mirrored = dot(x, cross(y, z)) < 0.0 ? -1.0 : 1.0;
  return vec4(dot(x, tangent.xyz), dot(y, tangent.xyz), dot(z, tangent.xyz), tangent.w * mirrored);
}

vec3 towardsEye(vec3 world) {
  return safeNormalize(eyePosition.xyz - world * eyePosition.w);
}

// Depth as if a point lay so many metres nearer to the eye. Where that would be behind the eye, the true depth stays.
vec4 withDepthNearer(vec4 clip, vec3 world, vec3 toEye, float metres) {
  vec4 nearer = clipFromWorld * vec4(world + toEye * metres, 1.0);
  return vec4(clip.xy, nearer.w > 0.001 && nearer.z > 0.0 ? nearer.z / nearer.w * clip.w : clip.z, clip.w);
}
