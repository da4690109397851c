// Which way this corner goes when the mesh grows by one: the same for all corners in one place.
in vec3 extrusionDirection;

// The mesh grown by the outline's width across the line of sight. Only what lies behind the surface is seen of it.
void main() {
  placeVertex();
  vec3 world = worldPosition;
  // A shape turns the way as it turns the normal.
  vec3 facing = safeNormalize(placedNormal(meshNormal, instanceRowX.xyz, instanceRowY.xyz, instanceRowZ.xyz));
  vec3 unturned = safeNormalize(placedNormal(extrusionDirection, instanceRowX.xyz, instanceRowY.xyz, instanceRowZ.xyz));
  vec3 way = safeNormalize(unturned + safeNormalize(worldNormal) - facing) * length(extrusionDirection);
  vec3 toEye = towardsEye(world);
  vec3 across = way - toEye * dot(way, toEye);
  vec4 clip = clipFromWorld * vec4(world + across * partOutline.x, 1.0);
  vec4 seen = viewFromWorld * vec4(across, 0.0);
  clip.xy += seen.xy * (partOutline.y * 2.0 / targetSize.xy * pictureCorner.zw * clip.w);
  gl_Position = withDepthNearer(clip, world, toEye, partDepth.x - partOutline.z);
}
