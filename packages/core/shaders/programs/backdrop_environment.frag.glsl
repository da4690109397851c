uniform samplerCube backdropCube;

uniform EnvironmentBackdrop {
  vec4 backdropRight;    // xyz: from the middle of the picture to its right edge, at distance 1 of what is ahead; world space
  vec4 backdropUp;       // the same to its upper edge
  vec4 backdropAhead;    // xyz: where the eye looks, unit length
  vec4 backdropFrame;    // x, y: 1 / width and height of the whole picture in pixels; z, w: cosine and sine of the environment's turn
  vec4 backdropLevel;    // x: level that is read; y: strength; z, w: corner of what is drawn now in the whole picture, pixels
};

out vec4 pixel;

// The environment behind the meshes.
void main() {
  vec2 at = (gl_FragCoord.xy + backdropLevel.zw) * backdropFrame.xy;
  vec2 seen = vec2(at.x, 1.0 - at.y) * 2.0 - 1.0;
  vec3 way = normalize(backdropAhead.xyz + backdropRight.xyz * seen.x + backdropUp.xyz * seen.y);
  vec2 turn = backdropFrame.zw;
  vec3 turned = vec3(turn.x * way.x - turn.y * way.z, way.y, turn.y * way.x + turn.x * way.z);
  pixel = vec4(min(textureLod(backdropCube, turned, backdropLevel.x).rgb * backdropLevel.y, vec3(6.0e4)), 1.0);
}
