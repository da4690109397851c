// What whole programs, with `void main()`, know by name from outside. Clip space is 0…1 in z.

mat4 worldFromObject() {
  return transpose(mat4(placeRowX, placeRowY, placeRowZ, vec4(0.0, 0.0, 0.0, 1.0)));
}

mat4 clipFromObject() {
  return clipFromWorld * worldFromObject();
}

mat4 viewFromObject() {
  return viewFromWorld * worldFromObject();
}

mat3 worldNormalFromObject() {
  return transpose(inverse(mat3(worldFromObject())));
}

mat3 viewNormalFromObject() {
  return transpose(inverse(mat3(viewFromObject())));
}

vec3 eyeInWorld() {
  return eyePosition.xyz;
}

vec2 pictureSize() {
  return targetSize.xy;
}

vec3 towardsSun() {
  return sunDirection.xyz;
}

vec3 lightOfSun() {
  return sunColour.rgb;
}

vec3 lightFromAround() {
  return ambientColour.rgb;
}

// GLSL ES 3.00 specification, section 7.2: rows are counted from the lower edge of the picture.
vec4 fragCoordUpwards() {
  vec2 at = pixelHere();
  return vec4(at.x, 1.0 / targetSize.w - at.y, gl_FragCoord.zw);
}
