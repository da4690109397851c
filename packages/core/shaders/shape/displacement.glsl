/**
 * Displace by height: moves the surface as a height map says, along normals that neighbours share, so that edges do not tear.
 * @kind displaceByHeight 1
 * @family Shape
 * @words displacement, height map, relief, emboss, tessellation, bump, real
 * @source Cook 1984, "Shade trees", SIGGRAPH (displacement); shared normals: Thürmer, Wüthrich 1998, JGT 3(1)
 * @inlet height fraction "Height" = 0.5 in 0..1: the map, read as data.
 * @inlet scale number "Scale" = 0.1 in 0..1 unit m: from black to white.
 * @inlet middle fraction "Middle" = 0.5 in 0..1: the height that stays where it is; 0 only swells, 1 only sinks.
 * @inlet along normal "Along" = surface weldedNormal
 * @outlet result vector "Offset": world space, metres.
 */
vec3 displacedByHeight(float height, float scale, float middle, vec3 along) {
  return along * (clamp(scale, -1.0e3, 1.0e3) * (clamp(height, -16.0, 16.0) - clamp(middle, 0.0, 1.0)));
}
