uniform sampler2D sceneColour;
uniform sampler2D bloomColour;

uniform View {
  vec4 viewExposure;   // x: factor, 2 to the number of stops; y: tone curve by number; z: strength of the bloom; w: 1 to leave the values linear
  vec4 viewSize;       // width and height of the target in pixels
};

out vec4 pixel;

void main() {
  // The scene may be smaller than the target (while dragging): read it by place, not by pixel.
  vec2 at = gl_FragCoord.xy / viewSize.xy;
  vec3 scene = texture(sceneColour, at).rgb * viewExposure.x;
  if (viewExposure.z > 0.0) {
    scene += textureLod(bloomColour, at, 0.0).rgb * viewExposure.z;
  }
  vec3 shown = toneCurve(scene, viewExposure.y);
  vec3 encoded = viewExposure.w > 0.5 ? shown : srgbFromLinear(shown);
  pixel = vec4(encoded + ditherAt(gl_FragCoord.xy), 1.0);
}
