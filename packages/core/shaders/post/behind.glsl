// Squares that stand for nothing: what is behind the meshes of a picture that is to be laid over something else.
vec3 emptyGround(vec2 pixelPlace) {
  float check = mod(floor(pixelPlace.x / 12.0) + floor(pixelPlace.y / 12.0), 2.0);
  return vec3(mix(0.3, 0.38, check));
}

// How much of a pixel the scene covers, light that spreads past the meshes included. The scene is premultiplied.
float coverOf(vec4 scene, vec3 spread, float mode) {
  float glow = max(spread.r, max(spread.g, spread.b));
  return mode > 0.5 ? clamp(max(scene.a, glow), 0.0, 1.0) : 1.0;
}

// The picture as it is handed on: whole, over squares, or with its cover as alpha, colours not premultiplied.
vec4 handedOn(vec3 encoded, float cover, float mode, vec2 pixelPlace) {
  vec3 dither = ditherAt(pixelPlace);
  if (mode > 1.5) {
    return vec4(encoded + dither, cover);
  }
  return vec4(mix(emptyGround(pixelPlace), encoded, cover) + dither, 1.0);
}
