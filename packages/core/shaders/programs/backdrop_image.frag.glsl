uniform sampler2D backdropImage;

uniform Backdrop {
  vec4 backdropBelow;   // scene-linear, at the lower edge of the picture
  vec4 backdropAbove;   // at the upper edge
  vec4 backdropSize;    // xy: width and height of the whole picture in pixels; zw: parts of an image that it is wide and high
  vec4 backdropCorner;  // xy: of what is drawn now in the whole picture, pixels
};

out vec4 pixel;

// A flat image behind the meshes, the middle of both in one place; colours show where it is clear or ends.
void main() {
  vec2 at = (gl_FragCoord.xy + backdropCorner.xy) / backdropSize.xy;
  vec2 place = (at - 0.5) * backdropSize.zw + 0.5;
  vec4 seen = texture(backdropImage, place);
  vec2 inside = step(vec2(0.0), place) * step(place, vec2(1.0));
  vec3 plain = mix(backdropAbove.rgb, backdropBelow.rgb, at.y);
  pixel = vec4(mix(plain, seen.rgb, seen.a * inside.x * inside.y), 1.0);
}
