// How far a point of the surface is from the eye, metres; without perspective, from the plane through it.
float distanceToEye() {
  return eyePosition.w > 0.5 ? length(eyePosition.xyz - worldPosition) : max(-(viewFromWorld * vec4(worldPosition, 1.0)).z, 0.0);
}

// Light on its way to the eye through even fog: Beer-Lambert law.
vec3 throughFog(vec3 light) {
  float density = fogColour.w;
  if (density <= 0.0) {
    return light;
  }
  return mix(fogColour.rgb, light, exp(-density * distanceToEye()));
}
