out vec4 pixel;

// What of a field is seen here: metres back from the far side of its box, the octahedral normal, and whose it is. See recordedPoint.
void main() {
  FieldHit hit = tracedField(clipFromWorld, 1.0 / (targetSize.z * pictureCorner.z), placeRowX, placeRowY, placeRowZ);
  if (!hit.there) {
    discard;
  }
  vec3 sight = sightThrough(clipFromWorld, boxPoint);
  float stretched = length(unplacedVector(sight, placeRowX.xyz, placeRowY.xyz, placeRowZ.xyz));
  vec3 slope = fieldSlope(hit.position, slopeReach(hit.position, hit.pixel * stretched)) * hit.side;
  vec3 normal = safeNormalize(placedNormal(slope, placeRowX.xyz, placeRowY.xyz, placeRowZ.xyz));
  // Where the field has no slope.
  normal = dot(normal, normal) < 0.5 ? -sight : normal;
  vec4 clip = clipFromWorld * vec4(boxPoint - sight * hit.back, 1.0);
  gl_FragDepth = clamp(clip.z / clip.w, 0.0, 1.0);
  pixel = vec4(hit.back, octahedral(normal), recordNumber(clamp(float(hit.region), 0.0, MOST_REGIONS - 1.0)));
}
