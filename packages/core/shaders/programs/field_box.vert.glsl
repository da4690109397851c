out vec3 boxPoint;

// The box in which a field is looked for.
void main() {
  placeVertex();
  boxPoint = worldPosition;
  gl_Position = clipFromWorld * vec4(worldPosition, 1.0);
}
