/**
 * Normal from map: bends the normal by a normal map.
 * @kind normalFromMap 1
 * @family Normals
 * @words normal map, bump, tangent space, detail, normal texture, y convention, flip green, handedness
 * @source glTF 2.0 specification, section 3.9.3: 2 x − 1 in the frame of tangent, bitangent and normal, +Y up
 * @inlet map vector "Map" = 0.5 0.5 1: colours of the map as they are stored, read as data.
 * @inlet strengthX number "Strength along u" = 1 in -2..2
 * @inlet strengthY number "Strength along v" = 1 in -2..2
 * @inlet turn number "Rotation" = 0 unit radians: of the map on the surface, counter-clockwise, as its image or UV transform has it.
 * @feature greenDown "flip green": for maps whose green is bright where a bump falls off downwards; without, where it rises.
 * @feature twoChannels "two channels": the map's blue is not read; the normal's length tells what is missing.
 * @feature turned "rotated": for maps that lie rotated on the surface: their bumps are turned with them.
 * @outlet result normal "Normal": unit length, world space.
 */
vec3 normalFromMap(vec3 map, float strengthX, float strengthY, float turn, bool greenDown, bool twoChannels, bool turned) {
  vec3 normal = surfaceNormal();
  vec3 along = surfaceTangent();
  vec3 tangent = safeNormalize(along - normal * dot(normal, along));
  vec3 bitangent = cross(normal, tangent) * (worldTangent.w < 0.0 ? -1.0 : 1.0);
  vec3 stored = clamp(map * 2.0 - 1.0, -1.0, 1.0);
  if (twoChannels) {
    stored.z = sqrt(max(1.0 - dot(stored.xy, stored.xy), 0.0));
  }
  if (greenDown) {
    stored.y = -stored.y;
  }
  if (turned) {
    float c = cos(turn);
    float s = sin(turn);
    stored.xy = vec2(stored.x * c - stored.y * s, stored.x * s + stored.y * c);
  }
  vec3 bent = stored * vec3(clamp(strengthX, -16.0, 16.0), clamp(strengthY, -16.0, 16.0), 1.0);
  vec3 result = tangent * bent.x + bitangent * bent.y + normal * max(bent.z, 0.0);
  return dot(result, result) < 1e-12 ? normal : safeNormalize(result);
}
vec3 normalFromMap(vec3 map, float strengthX, float strengthY, bool greenDown, bool twoChannels) {
  return normalFromMap(map, strengthX, strengthY, 0.0, greenDown, twoChannels, false);
}

/**
 * Blend normal maps: lays the detail of one normal map over another, bent by it.
 * @kind blendNormalMaps 1
 * @family Normals
 * @words detail, combine, reoriented, overlay
 * @source Barré-Brisebois, Hill 2012, "Blending in detail" (reoriented normal mapping)
 * @inlet base vector "Base" = 0.5 0.5 1: colours of a map as they are stored.
 * @inlet detail vector "Detail" = 0.5 0.5 1
 * @outlet result vector "Blended": as a map stores it.
 */
vec3 blendNormalMaps(vec3 base, vec3 detail) {
  vec3 t = clamp(base, 0.0, 1.0) * vec3(2.0, 2.0, 2.0) + vec3(-1.0, -1.0, 0.0);
  vec3 u = clamp(detail, 0.0, 1.0) * vec3(-2.0, -2.0, 2.0) + vec3(1.0, 1.0, -1.0);
  vec3 bent = t * (dot(t, u) / max(t.z, 1e-4)) - u;
  return safeNormalize(bent) * 0.5 + 0.5;
}

/**
 * Normal from height: bends the normal by the slope of a height.
 * @kind normalFromHeight 1
 * @family Normals
 * @words bump, bump map, height to normal, relief, height map, displacement
 * @source Mikkelsen 2010, "Bump mapping unparametrized surfaces on the GPU", JGT 15(1)
 * @inlet height number "Height" = 0: metres above the surface.
 * @inlet strength number "Strength" = 1 in 0..4
 * @outlet result normal "Normal": unit length, world space.
 */
vec3 normalFromHeight(float height, float strength) {
  vec3 normal = surfaceNormal();
  vec3 acrossX = dFdx(worldPosition);
  vec3 acrossY = dFdy(worldPosition);
  vec3 along = cross(acrossY, normal);
  vec3 up = cross(normal, acrossX);
  float area = dot(acrossX, along);
  vec3 slope = (along * dFdx(height) + up * dFdy(height)) * (area < 0.0 ? -1.0 : 1.0) * clamp(strength, 0.0, 16.0);
  vec3 result = normal * abs(area) - slope;
  return dot(result, result) < 1e-24 ? normal : normalize(result);
}

/**
 * Normal, flat: the direction of the facet, as if the mesh were not smoothed.
 * @kind normalFlat 1
 * @family Normals
 * @words flat shading, facet, faceted, low poly, hard, polygon
 * @source Cross product of the derivatives of position in the picture (GLSL ES 3.00 specification, section 8.10)
 * @outlet result normal "Normal": unit length, world space. At the corners of the mesh, the smooth one.
 */
vec3 normalFlat() {
  vec3 smoothed = surfaceNormal();
  vec3 facet = cross(dFdx(worldPosition), dFdy(worldPosition));
  if (dot(facet, facet) < 1e-30) {
    return smoothed;
  }
  vec3 unit = facet * inversesqrt(dot(facet, facet));
  return dot(unit, smoothed) < 0.0 ? -unit : unit;
}

/**
 * Bend normal: leans the normal towards a direction.
 * @kind bendNormal 1
 * @family Normals
 * @words tilt, fluff, sphere, soften, towards
 * @source Normalised linear interpolation of two directions
 * @inlet normal normal "Normal" = surface normal
 * @inlet towards vector "Towards" = 0 1 0
 * @inlet amount fraction "Amount" = 0.5 in 0..1
 * @outlet result normal "Normal": unit length, world space.
 */
vec3 bendNormal(vec3 normal, vec3 towards, float amount) {
  vec3 leaned = mix(normal, safeNormalize(towards), clamp(amount, 0.0, 1.0));
  return dot(leaned, leaned) < 1e-8 ? normal : safeNormalize(leaned);
}

/**
 * Detail normal: adds the fine relief of one normal to another, both in world space.
 * @kind detailNormal 1
 * @family Normals
 * @words combine, layer, micro, reoriented, add
 * @source Barré-Brisebois, Hill 2012, "Blending in detail" (reoriented normal mapping), in the frame of the surface
 * @inlet base normal "Base" = surface normal
 * @inlet detail normal "Detail" = surface normal: what a map or a height gives.
 * @inlet strength number "Strength" = 1 in 0..2
 * @outlet result normal "Normal": unit length, world space.
 */
vec3 detailNormal(vec3 base, vec3 detail, float strength) {
  vec3 smoothed = surfaceNormal();
  vec3 leaned = mix(smoothed, detail, clamp(strength, 0.0, 4.0));
  vec3 middle = safeNormalize(smoothed + base);
  // The turn that takes the smooth normal to the base, by two reflections.
  vec3 once = leaned - smoothed * (2.0 * dot(leaned, smoothed));
  vec3 twice = once - middle * (2.0 * dot(once, middle));
  return dot(twice, twice) < 1e-12 ? base : safeNormalize(twice);
}
