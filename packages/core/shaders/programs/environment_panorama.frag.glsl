uniform sampler2D panorama;

uniform Panorama {
  vec4 panoramaFace;   // x: face of the cube; y: 1 / its side in pixels; z: level of the panorama that has about as many pixels
};

out vec4 pixel;

// One face of a cube of a panorama whose middle looks along −z.
void main() {
  vec3 way = faceDirection(int(panoramaFace.x), gl_FragCoord.xy * panoramaFace.y);
  vec2 at = vec2(atan(way.x, -way.z) * 0.15915494 + 0.5, acos(clamp(way.y, -1.0, 1.0)) * 0.31830989);
  pixel = vec4(textureLod(panorama, at, panoramaFace.z).rgb, 1.0);
}
