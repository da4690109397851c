uniform Caster {
  mat4 casterClip;
};

out vec4 pixel;

// What of a field a light sees: depth alone, a little farther, so that what is lit does not shadow itself.
void main() {
  FieldHit hit = tracedField(casterClip, 1024.0, placeRowX, placeRowY, placeRowZ);
  if (!hit.there) {
    discard;
  }
  vec3 sight = sightThrough(casterClip, boxPoint);
  vec4 clip = casterClip * vec4(boxPoint - sight * (hit.back - 2.0 * hit.pixel), 1.0);
  gl_FragDepth = clamp(clip.z / clip.w, 0.0, 1.0);
  pixel = vec4(0.0);
}
