uniform sampler2D firstPicture;
uniform sampler2D secondPicture;

uniform Compare {
  vec4 compareView;   // x: 0 side by side, 1 wiped, 2 their difference; y: where the wipe is, 0..1; z: factor of the difference
  vec4 compareSize;   // xy: width and height of the target in pixels; z: width of one picture
};

out vec4 pixel;

// Two finished pictures in one, as the eye sees them: nothing is computed on their encoded values but the difference.
void main() {
  ivec2 at = ivec2(gl_FragCoord.xy);
  if (compareView.x < 0.5) {
    int wide = int(compareSize.z);
    bool isFirst = at.x < wide;
    ivec2 place = ivec2(isFirst ? at.x : min(at.x - wide, wide - 1), at.y);
    pixel = isFirst ? texelFetch(firstPicture, place, 0) : texelFetch(secondPicture, place, 0);
    return;
  }
  vec4 first = texelFetch(firstPicture, at, 0);
  vec4 second = texelFetch(secondPicture, at, 0);
  if (compareView.x < 1.5) {
    pixel = gl_FragCoord.x < compareView.y * compareSize.x ? first : second;
    return;
  }
  pixel = vec4(clamp(abs(first.rgb - second.rgb) * compareView.z, 0.0, 1.0), 1.0);
}
