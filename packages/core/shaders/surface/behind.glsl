// What was drawn before a surface that others are seen through: how far it is from the eye along the line of sight's depth
// (metres, in x), and its scene-linear colour. Only such surfaces can read them; elsewhere nothing stands there.
uniform sampler2D sceneDistance;
uniform sampler2D sceneBehind;

ivec2 sceneTexel(vec2 offset) {
  vec2 size = vec2(textureSize(sceneBehind, 0));
  vec2 at = pixelHere() * targetSize.zw + clamp(offset, -4.0, 4.0);
  return ivec2(clamp(at * size, vec2(0.0), size - 1.0));
}

// Metres from the plane of the eye.
float depthHere() {
  return -(viewFromWorld * vec4(worldPosition, 1.0)).z;
}

struct SceneDepth {
  float depth;
  float gap;
};

/**
 * Scene depth: how far away is what stands behind this point.
 * @kind sceneDepth 1
 * @family Where
 * @words distance, behind, intersection, fade, soft, water, z buffer
 * @source Depth of the scene along −z of view space, drawn before surfaces that are seen through
 * @outlet depth number "Depth": metres from the plane of the eye; very far where nothing stands.
 * @outlet gap number "Behind it": metres between this point and what is behind it.
 */
SceneDepth sceneDepthBehind() {
  float depth = texelFetch(sceneDistance, sceneTexel(vec2(0.0)), 0).x;
  return SceneDepth(depth, max(depth - depthHere(), 0.0));
}

/**
 * Scene colour: what is seen behind this point, if the surface were not there.
 * @kind sceneColour 1
 * @family Where
 * @words behind, background, refraction, distort, see through, screen
 * @source The scene-linear picture of everything that is not seen through, at the place of the pixel
 * @inlet offset uv "Offset" = 0 0: across and down, in parts of the picture’s size.
 * @outlet result colour "Colour"
 */
vec3 sceneColourBehind(vec2 offset) {
  return texelFetch(sceneBehind, sceneTexel(offset), 0).rgb;
}

/**
 * Intersection glow: 1 where something stands right behind the surface, falling to 0.
 * @kind meetingGlow 1
 * @family Where
 * @words intersection, contact, edge, shield, force field, foam, shore, soft, glow where surfaces meet
 * @source Distance between the surface and the scene behind it, along the line of sight, over a width
 * @inlet width number "Width" = 0.15 in 0.01..2 unit m: how far the glow reaches.
 * @inlet power number "Power" = 2 in 0.25..8: higher is thinner.
 * @outlet result fraction "Glow"
 */
float meetingGlow(float width, float power) {
  // At the edge of a thing in front a pixel is of both, and its depth is that thing's: far in front is as far as behind.
  float apart = abs(sceneDepthBehind().depth - depthHere());
  float near = 1.0 - clamp(apart / max(abs(width), 1e-4), 0.0, 1.0);
  return pow(max(near, 1e-6), clamp(power, 0.05, 64.0));
}
