// How far a point of the surface is from the eye, metres; without perspective, from the plane through it.
float distanceToEye() {
  return eyePosition.w > 0.5 ? length(eyePosition.xyz - worldPosition) : max(-(viewFromWorld * vec4(worldPosition, 1.0)).z, 0.0);
}

// Light on its way to the eye through even fog: Beer-Lambert law.
vec3 throughFog(vec3 light) {
  // More is beyond the half floats that it is kept in, and would leave holes in what is averaged over pixels.
  vec3 held = clamp(light, -6.0e4, 6.0e4);
  float density = fogColour.w;
  if (density <= 0.0) {
    return held;
  }
  return mix(fogColour.rgb, held, exp(-density * distanceToEye()));
}
