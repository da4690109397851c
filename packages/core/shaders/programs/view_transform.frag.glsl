uniform sampler2D sceneColour;
uniform sampler2D bloomColour;

uniform View {
  vec4 viewExposure;   // x: factor, 2 to the number of stops; y: tone curve by number; z: strength of the bloom; w: 1 to leave the values linear
  vec4 viewSize;       // xy: width and height of the target in pixels; z: 0 whole picture, 1 over squares, 2 with alpha
  vec4 viewPart;       // xy: corner of the target in the whole picture, pixels; zw: 1 / width and height of that
};

out vec4 pixel;

void main() {
  // The scene may be smaller than the target (while dragging): read it by place, not by pixel.
  vec2 at = gl_FragCoord.xy / viewSize.xy;
  vec4 scene = texture(sceneColour, at);
  vec3 spread = vec3(0.0);
  if (viewExposure.z > 0.0) {
    spread = textureLod(bloomColour, (gl_FragCoord.xy + viewPart.xy) * viewPart.zw, 0.0).rgb * viewExposure.z;
  }
  float cover = coverOf(scene, spread, viewSize.z);
  vec3 shown = toneCurve((scene.rgb * viewExposure.x + spread) / max(cover, 1e-4), viewExposure.y);
  vec3 encoded = viewExposure.w > 0.5 ? shown : srgbFromLinear(shown);
  pixel = handedOn(encoded, cover, viewSize.z, gl_FragCoord.xy + viewPart.xy);
}
