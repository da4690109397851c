out vec4 pixel;

// Dashes of black and white: seen on every surface.
void main() {
  float dash = mod(floor(gl_FragCoord.x / 3.0) + floor(gl_FragCoord.y / 3.0), 2.0);
  pixel = vec4(vec3(dash), 1.0);
}
