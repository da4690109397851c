// What the vertex stage hands on for each pixel of a surface.
in vec3 worldPosition;
in vec3 worldNormal;
in vec4 worldTangent;
in vec3 worldWelded;
in vec2 meshUv;
in vec2 meshSecondUv;
in vec3 meshPlace;
in float copyNumber;
// Rows of worldFromObject, the same on the whole copy.
in vec4 placeRowX;
in vec4 placeRowY;
in vec4 placeRowZ;
in vec4 vertexTint;

struct Place {
  vec3 result;
  float x;
  float y;
  float z;
};

/**
 * Position: where this point of the surface is, in metres from the centre of the scene.
 * @kind position 1
 * @family Where
 * @words coordinates, location, point, xyz, world
 * @source glTF 2.0 specification, section 3.4 (right-handed, Y up, metres)
 * @outlet result position "Position": world space, metres.
 */
vec3 surfacePosition() {
  return worldPosition;
}

/**
 * Normal: the direction the surface faces here. Points at you on both sides of a thin sheet.
 * @kind normal 1
 * @family Where
 * @words facing, direction, perpendicular
 * @source glTF 2.0 specification, section 3.7.2.1
 * @outlet result normal "Normal": unit length, world space.
 */
vec3 surfaceNormal() {
  vec3 outwards = safeNormalize(worldNormal);
  return gl_FrontFacing ? outwards : -outwards;
}

/**
 * Normal, welded: the direction that all corners in one place share, also where faces meet at a sharp edge.
 * @kind weldedNormal 1
 * @family Where
 * @words shared, smooth, displacement, edge, gap, hull
 * @source Thürmer, Wüthrich 1998, "Computing vertex normals from polygonal facets", JGT 3(1): mean of the faces round a place, by angle
 * @outlet result normal "Normal": unit length, world space.
 */
vec3 surfaceWeldedNormal() {
  vec3 outwards = safeNormalize(worldWelded);
  return gl_FrontFacing ? outwards : -outwards;
}

/**
 * Tangent: the direction along the surface in which u of the UV grows.
 * @kind tangent 1
 * @family Where
 * @words grain, along, brush direction, anisotropy, strand
 * @source glTF 2.0 specification, section 3.7.2.1 (TANGENT)
 * @outlet result vector "Tangent": unit length, world space.
 */
vec3 surfaceTangent() {
  return safeNormalize(worldTangent.xyz);
}

/**
 * View direction: the direction from the surface towards your eye.
 * @kind viewDirection 1
 * @family Where
 * @words eye vector, view vector, eye, camera, incident, v
 * @source Plain vector geometry: normalize(eye − position)
 * @outlet result directionToEye "View direction": unit length, world space.
 */
vec3 surfaceToEye() {
  // Orthographic: the same direction everywhere, w is 0.
  return safeNormalize(eyePosition.xyz - worldPosition * eyePosition.w);
}

/**
 * UV: where this point lies on the unwrapped mesh; 0, 0 is the top left corner of an image.
 * @kind uv 1
 * @family Where
 * @words texture coordinates, texcoord, unwrap, st
 * @source glTF 2.0 specification, section 3.7.2.1 (TEXCOORD_0)
 * @outlet result uv "UV"
 */
vec2 surfaceUv() {
  return meshUv;
}

/**
 * Second UV: the second UV set, unwrapped without overlaps, as baked light needs it.
 * @kind secondUv 1
 * @family Where
 * @words texture coordinates, lightmap, occlusion, uv1, second set, unwrap
 * @source glTF 2.0 specification, section 3.7.2.1 (TEXCOORD_1)
 * @outlet result uv "Second UV"
 */
vec2 surfaceSecondUv() {
  return meshSecondUv;
}

/**
 * Instance index: the number of this copy of the mesh, from 0; always 0 where there is only one.
 * @kind copyIndex 1
 * @family Where
 * @words instance, grid, number, variation, each copy, copy index
 * @source Copies are counted along the rows of their grid
 * @outlet result number "Index"
 */
float surfaceCopyIndex() {
  // Interpolation does not keep it whole.
  return floor(copyNumber + 0.5);
}

/**
 * Place in mesh: how far along the mesh this point is on each axis, 0 at one end and 1 at the other.
 * @kind place 1
 * @family Where
 * @words bounds, bounding box, height, gradient, bottom, top
 * @source Position in object space, remapped from the mesh's bounds to 0…1
 * @outlet result vector "Place": x left to right, y bottom to top, z back to front.
 * @outlet x number "Left to right"
 * @outlet y number "Bottom to top"
 * @outlet z number "Back to front"
 */
Place surfacePlace() {
  return Place(meshPlace, meshPlace.x, meshPlace.y, meshPlace.z);
}

/**
 * Direction from the middle: from the middle of the mesh to this point of its surface.
 * @kind fromMiddle 1
 * @family Where
 * @words centre, center, outwards, radial, cube map direction, spherical
 * @source Position in object space from the middle of the mesh’s bounds, turned and scaled as the copy is
 * @outlet result vector "Direction": unit length, world space.
 */
vec3 surfaceFromMiddle() {
  vec3 scale = placeScale.xyz;
  vec3 extent = vec3(scale.x > 0.0 ? 1.0 / scale.x : 0.0, scale.y > 0.0 ? 1.0 / scale.y : 0.0, scale.z > 0.0 ? 1.0 / scale.z : 0.0);
  vec3 away = (meshPlace - 0.5) * extent;
  return safeNormalize(vec3(dot(placeRowX.xyz, away), dot(placeRowY.xyz, away), dot(placeRowZ.xyz, away)));
}

/**
 * Facing: 1 where the surface looks straight at you, 0 where it is seen edge on.
 * @kind facing 1
 * @family Where
 * @words n dot v, ndotv, n·v, n.v, edge, incidence, silhouette, view angle, facing the eye
 * @source Cosine of the angle between normal and view direction, clamped to 0…1
 * @inlet normal normal "Normal" = surface normal
 * @inlet toEye directionToEye "View direction" = surface viewDirection
 * @outlet result fraction "Facing"
 */
float surfaceFacing(vec3 normal, vec3 toEye) {
  return clamp(dot(normal, toEye), 0.0, 1.0);
}

/**
 * Time: seconds on the Stage's clock.
 * @kind time 1
 * @family Where
 * @words clock, seconds, animate, motion
 * @source Seconds since the clock was started
 * @outlet result seconds "Seconds"
 */
float stageTime() {
  return frameTime;
}

/**
 * Front side: 1 where the outer side of the surface is seen, 0 where its back is.
 * @kind frontFacing 1
 * @family Where
 * @words front facing, backface, back side, two sided, double sided, inside, gl_FrontFacing
 * @source GLSL ES 3.00 specification, section 7.2 (gl_FrontFacing)
 * @outlet result fraction "Front": 0 or 1.
 */
float frontSide() {
  return gl_FrontFacing ? 1.0 : 0.0;
}
