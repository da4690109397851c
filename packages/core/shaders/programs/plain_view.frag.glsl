uniform sampler2D sceneColour;

uniform View {
  vec4 viewExposure;   // x: factor, 2 to the number of stops; w: 1 to leave the values linear
  vec4 viewSize;       // xy: width and height of the target in pixels; z: 0 whole picture, 1 over squares, 2 with alpha
  vec4 viewPart;       // xy: corner of the target in the whole picture, pixels; zw: 1 / width and height of that
};

out vec4 pixel;

// The view transform where no tone curve bends and no light spreads.
void main() {
  vec4 scene = texture(sceneColour, gl_FragCoord.xy / viewSize.xy);
  float cover = coverOf(scene, vec3(0.0), viewSize.z);
  vec3 shown = clamp(scene.rgb / max(cover, 1e-4) * viewExposure.x, 0.0, 1.0);
  vec3 encoded = viewExposure.w > 0.5 ? shown : srgbFromLinear(shown);
  pixel = handedOn(encoded, cover, viewSize.z, gl_FragCoord.xy + viewPart.xy);
}
