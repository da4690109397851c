uniform Caster {
  mat4 casterClip;   // clip space of the light, from world space
};

out vec3 boxPoint;

void main() {
  placeVertex();
  boxPoint = worldPosition;
  gl_Position = casterClip * vec4(worldPosition, 1.0);
}
