// What a material that is written as code is given: a point of the surface for `paint`, a vertex for `shape`.

/** A point of the surface as `paint` sees it. */
struct Surface {
  vec3 position;   // world space, metres
  vec3 normal;     // unit length, world space, on the side that is seen
  vec3 tangent;    // unit length, world space, the way u grows
  vec3 toEye;      // unit length, world space
  vec2 uv;
  vec2 uv2;        // the second set, without overlaps
  vec3 place;      // 0…1 within the mesh: left to right, bottom to top, back to front
  vec4 colour;     // of the vertices, scene-linear
  float copy;      // number of the copy, from 0
};

/** A vertex as `shape` moves it: what is put into `position` is where it goes, and its normal follows. */
struct Shape {
  vec3 position;   // world space, metres
  vec3 normal;     // unit length, world space
  vec2 uv;
  vec2 uv2;
  vec3 place;
  vec4 colour;
  float copy;
};

Surface thisSurface() {
  return Surface(
    worldPosition, surfaceNormal(), surfaceTangent(), surfaceToEye(), meshUv, meshSecondUv, meshPlace, vertexTint, surfaceCopyIndex()
  );
}

Shape thisShape() {
  return Shape(worldPosition, safeNormalize(worldNormal), meshUv, meshSecondUv, meshPlace, vertexTint, surfaceCopyIndex());
}

// Whether a loop of the user's was broken off. Programs with such loops have one of their own.
bool loopsRanOut() {
  return false;
}

// Stripes, black and white, where a loop was broken off: what was to be seen there is not known.
vec4 brokenOff(vec4 painted) {
  float stripe = step(0.5, fract((pixelHere().x - pixelHere().y) / 8.0));
  return loopsRanOut() ? vec4(vec3(stripe), 1.0) : painted;
}
