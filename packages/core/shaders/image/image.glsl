struct ImageSample {
  vec3 colour;
  float alpha;
  float red;
  float green;
  float blue;
};

// Turns the picture counter-clockwise about its middle, then repeats it, then shifts it. v runs downwards.
vec2 imagePlace(vec2 uv, vec2 repeat, vec2 offset, float turn) {
  vec2 fromMiddle = uv - 0.5;
  float c = cos(turn);
  float s = sin(turn);
  vec2 turned = vec2(fromMiddle.x * c - fromMiddle.y * s, fromMiddle.x * s + fromMiddle.y * c) + 0.5;
  return turned * repeat + offset;
}

struct UvTransform {
  vec2 uv;
  float turn;
};

/**
 * UV transform: one place that repeats, shifts and turns all images whose UV it runs into.
 * @kind uvTransform 1
 * @family Images
 * @words place 2d, tiling, tile, scale uv, rotate uv, offset uv, pan, texture transform, mapping, repeat
 * @source KHR_texture_transform; MaterialX 1.39, place2d; turned about the middle
 * @inlet uv uv "UV" = surface uv
 * @inlet repeat vector "Repeat" = 1 1: how often a picture stands side by side, and one above the other
 * @inlet offset vector "Offset" = 0 0: in pictures
 * @inlet turn number "Rotation" = 0 unit radians: counter-clockwise, about the middle
 * @outlet uv uv "UV"
 * @outlet turn number "Rotation": radians; a normal map that is turned needs it, too.
 */
UvTransform transformedUv(vec2 uv, vec2 repeat, vec2 offset, float turn) {
  return UvTransform(imagePlace(uv, repeat, offset, turn), turn);
}

/**
 * Image: a picture laid over the surface, its channels also one by one.
 * @kind image 1
 * @family Images
 * @words texture, map, picture, bitmap, photo, sampler, png, jpeg, albedo map
 * @source GLSL ES 3.00 specification, section 8.8 (texture); placed as in KHR_texture_transform, but turned about the middle
 * @inlet image image "Image"
 * @inlet uv uv "UV" = surface uv
 * @inlet repeat vector "Repeat" = 1 1: how often the picture stands side by side, and one above the other
 * @inlet offset vector "Offset" = 0 0: in pictures
 * @inlet turn number "Rotation" = 0 unit radians: counter-clockwise, about the middle
 * @outlet colour colour "Colour": scene-linear for a colour image, as stored for data.
 * @outlet alpha fraction "Alpha"
 * @outlet red number "Red"
 * @outlet green number "Green"
 * @outlet blue number "Blue"
 */
ImageSample sampleImage(sampler2D image, vec2 uv, vec2 repeat, vec2 offset, float turn) {
  vec4 texel = texture(image, imagePlace(uv, repeat, offset, turn));
  return ImageSample(texel.rgb, texel.a, texel.r, texel.g, texel.b);
}
