uniform Caster {
  mat4 casterClip;   // clip space of the light, from world space
};

void main() {
  placeVertex();
  gl_Position = casterClip * vec4(worldPosition, 1.0);
}
