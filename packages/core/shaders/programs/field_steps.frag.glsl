out vec4 pixel;

// How many steps each line of sight takes through a field's box, whether it meets the field or not.
void main() {
  FieldHit hit = tracedField(clipFromWorld, 1.0 / (targetSize.z * pictureCorner.z), placeRowX, placeRowY, placeRowZ);
  vec3 sight = sightThrough(clipFromWorld, boxPoint);
  vec4 clip = clipFromWorld * vec4(boxPoint - sight * (hit.there ? hit.back : 0.0), 1.0);
  gl_FragDepth = clamp(clip.z / clip.w, 0.0, 1.0);
  pixel = vec4(scaleColour(float(hit.steps) / max(inspectRange.z, 1.0)), 1.0);
}
