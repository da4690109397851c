/**
 * Distance to circle: how far a place is from a circle, below 0 inside of it.
 * @kind circleDistance 1
 * @family Patterns
 * @words sdf, signed distance, circle, signed distance field, disc, round
 * @source length(p − middle) − radius (Hart 1996, "Sphere tracing", The Visual Computer 12(10), appendix A)
 * @inlet uv uv "UV" = surface uv
 * @inlet middle uv "Centre" = 0.5 0.5
 * @inlet radius number "Radius" = 0.3 in 0..1
 * @outlet result number "Distance": in units of the UV; a step at 0 draws the circle.
 */
float distanceToCircle(vec2 uv, vec2 middle, float radius) {
  return length(uv - middle) - radius;
}

/**
 * Distance to box: how far a place is from a rectangle, below 0 inside of it.
 * @kind boxDistance 1
 * @family Patterns
 * @words sdf, signed distance, signed distance field, box, rectangle, square, rounded rectangle, frame
 * @source With q = |p − middle| − size / 2: length(max(q, 0)) + min(max(q.x, q.y), 0) (distance to a box: Arvo 1990, "A simple method for box-sphere intersection testing", Graphics Gems); rounded: the same of a box that is smaller by the radius, less the radius
 * @inlet uv uv "UV" = surface uv
 * @inlet middle uv "Centre" = 0.5 0.5
 * @inlet size uv "Size" = 0.6 0.4
 * @inlet rounding number "Rounding" = 0 in 0..0.5: radius of the corners.
 * @outlet result number "Distance": in units of the UV; a step at 0 draws the rectangle.
 */
float distanceToBox(vec2 uv, vec2 middle, vec2 size, float rounding) {
  vec2 halves = abs(size) * 0.5;
  float radius = clamp(rounding, 0.0, min(halves.x, halves.y));
  vec2 q = abs(uv - middle) - halves + radius;
  return length(max(q, vec2(0.0))) + min(max(q.x, q.y), 0.0) - radius;
}
