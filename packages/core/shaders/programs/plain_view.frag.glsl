uniform sampler2D sceneColour;

uniform View {
  vec4 viewExposure;   // x: factor, 2 to the number of stops; w: 1 to leave the values linear
  vec4 viewSize;       // width and height of the target in pixels
};

out vec4 pixel;

// The view transform where no tone curve bends and no light spreads.
void main() {
  vec3 shown = clamp(texture(sceneColour, gl_FragCoord.xy / viewSize.xy).rgb * viewExposure.x, 0.0, 1.0);
  vec3 encoded = viewExposure.w > 0.5 ? shown : srgbFromLinear(shown);
  pixel = vec4(encoded + ditherAt(gl_FragCoord.xy), 1.0);
}
