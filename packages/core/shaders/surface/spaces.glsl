// A vector of world space in the space of the object, by the inverse of the rows of worldFromObject. A copy that is flat
// has no inverse; then nothing is turned.
vec3 intoObject(vec3 vector) {
  vec3 x = placeRowX.xyz;
  vec3 y = placeRowY.xyz;
  vec3 z = placeRowZ.xyz;
  vec3 across = cross(y, z);
  float volume = dot(x, across);
  vec3 turned = across * vector.x + cross(z, x) * vector.y + cross(x, y) * vector.z;
  return abs(volume) < 1e-12 ? vector : turned / volume;
}

vec3 outOfObject(vec3 vector) {
  return vec3(dot(placeRowX.xyz, vector), dot(placeRowY.xyz, vector), dot(placeRowZ.xyz, vector));
}

vec3 originOfObject() {
  return vec3(placeRowX.w, placeRowY.w, placeRowZ.w);
}

vec3 intoView(vec3 vector) {
  return (viewFromWorld * vec4(vector, 0.0)).xyz;
}

struct InSpaces {
  vec3 object;
  vec3 view;
};

/**
 * Position, other spaces: where this point is, as the object and as the camera see it.
 * @kind positionSpaces 1
 * @family Where
 * @words local, object space, view space, camera space, coordinates
 * @source glTF 2.0 specification, section 3.4; inverse of the copy's transform, and the view transform
 * @outlet object position "Object": object space, metres: goes along when the object moves.
 * @outlet view position "View": view space, metres: x right, y up, the eye looks along −z.
 */
InSpaces positionInSpaces() {
  return InSpaces(intoObject(worldPosition - originOfObject()), (viewFromWorld * vec4(worldPosition, 1.0)).xyz);
}

/**
 * Normal, other spaces: the direction the surface faces, as the object and as the camera see it.
 * @kind normalSpaces 1
 * @family Where
 * @words local, object space, view space, camera space, facing
 * @source Normals go by the transposed inverse; back into object space therefore by the transpose
 * @outlet object vector "Object": unit length, object space.
 * @outlet view vector "View": unit length, view space.
 */
InSpaces normalInSpaces() {
  vec3 normal = surfaceNormal();
  vec3 object = placeRowX.xyz * normal.x + placeRowY.xyz * normal.y + placeRowZ.xyz * normal.z;
  return InSpaces(safeNormalize(object), safeNormalize(intoView(normal)));
}

/**
 * Tangent, other spaces: the direction along the surface in which u grows, as the object and as the camera see it.
 * @kind tangentSpaces 1
 * @family Where
 * @words local, object space, view space, camera space, grain
 * @source glTF 2.0 specification, section 3.7.2.1 (TANGENT); inverse of the copy's transform, and the view transform
 * @outlet object vector "Object": unit length, object space.
 * @outlet view vector "View": unit length, view space.
 */
InSpaces tangentInSpaces() {
  vec3 tangent = surfaceTangent();
  return InSpaces(safeNormalize(intoObject(tangent)), safeNormalize(intoView(tangent)));
}

/**
 * View direction, other spaces: the direction towards your eye, as the object and as the camera see it.
 * @kind viewDirectionSpaces 1
 * @family Where
 * @words local, object space, view space, camera space, eye
 * @source Plain vector geometry; inverse of the copy's transform, and the view transform
 * @outlet object vector "Object": unit length, object space.
 * @outlet view vector "View": unit length, view space.
 */
InSpaces viewDirectionInSpaces() {
  vec3 toEye = surfaceToEye();
  return InSpaces(safeNormalize(intoObject(toEye)), safeNormalize(intoView(toEye)));
}

/**
 * Change space: converts a point or a direction from one space to another.
 * @kind changeSpace 1
 * @family Vectors
 * @words transform, matrix, object, world, view, local, convert, tangent to world
 * @source glTF 2.0 specification, section 3.4 (object and world); the view transform of the camera
 * @inlet value vector "Value" = 0 0 0
 * @inlet is choice "It is" = 0 of a point|a direction
 * @inlet from choice "From" = 1 of object|world|view
 * @inlet to choice "To" = 0 of object|world|view
 * @outlet result vector "Changed": a direction keeps the length that the object's scale gives it.
 */
vec3 changedSpace(vec3 value, float is, float from, float to) {
  float point = is < 0.5 ? 1.0 : 0.0;
  vec3 world = value;
  if (from < 0.5) {
    world = outOfObject(value) + originOfObject() * point;
  } else if (from > 1.5) {
    // The view transform only turns and moves: its inverse turns back.
    vec3 turned = value - viewFromWorld[3].xyz * point;
    world = vec3(dot(viewFromWorld[0].xyz, turned), dot(viewFromWorld[1].xyz, turned), dot(viewFromWorld[2].xyz, turned));
  }
  if (to < 0.5) {
    return intoObject(world - originOfObject() * point);
  }
  return to > 1.5 ? (viewFromWorld * vec4(world, point)).xyz : world;
}
