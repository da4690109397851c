// Light from all around: an environment, blurred beforehand by how rough what mirrors it is.

// Level by level rougher; which level stands for which roughness is said by `levelOfRoughness`.
uniform samplerCube environmentCube;

// A direction of the world in the environment's own frame.
vec3 turnedIntoEnvironment(vec3 direction) {
  vec2 turn = environmentTurn.xy;
  return vec3(turn.x * direction.x - turn.y * direction.z, direction.y, turn.y * direction.x + turn.x * direction.z);
}

// The nine harmonics of degree 0 to 2, as image/environment/harmonics.ts orders them (Ramamoorthi, Hanrahan 2001,
// "An efficient representation for irradiance environment maps", SIGGRAPH).
vec3 harmonicLight(vec3 d) {
  vec3 light = environmentLight[0].rgb * 0.282095
    + (environmentLight[1].rgb * d.y + environmentLight[2].rgb * d.z + environmentLight[3].rgb * d.x) * 0.488603
    + (environmentLight[4].rgb * (d.x * d.y) + environmentLight[5].rgb * (d.y * d.z) + environmentLight[7].rgb * (d.x * d.z)) * 1.092548
    + environmentLight[6].rgb * (0.315392 * (3.0 * d.z * d.z - 1.0)) + environmentLight[8].rgb * (0.546274 * (d.x * d.x - d.y * d.y));
  return max(light, vec3(0.0));
}

/**
 * Environment, diffuse: the environment’s light on a white surface that faces this way.
 * @kind environmentAround 1
 * @family Light
 * @words ibl, hdri, image based lighting, irradiance, sky, ambient, diffuse, spherical harmonics, image based, environment, all around
 * @source Ramamoorthi, Hanrahan 2001, "An efficient representation for irradiance environment maps", SIGGRAPH
 * @inlet normal normal "Normal" = surface normal
 * @outlet result colour "Colour": black without an environment that lights.
 */
vec3 environmentAround(vec3 normal) {
  return environmentTurn.z > 0.0 ? harmonicLight(turnedIntoEnvironment(normal)) : vec3(0.0);
}

// Levels lie closer where roughness changes a mirrored picture most.
float levelOfRoughness(float roughness) {
  return environmentTurn.w * roughness * (1.5 - 0.5 * roughness);
}

/**
 * Environment, reflection: the environment in a direction, blurred as a surface of this roughness reflects it.
 * @kind environmentMirrored 1
 * @family Light
 * @words ibl, hdri, environment map, reflection, sky, cube map, specular, image based, environment, mirrored
 * @source Karis 2013, in the SIGGRAPH course "Physically based shading in theory and practice": the first of the two sums
 * @inlet direction vector "Direction" = 0 1 0: world space; of a mirror the view direction, reflected.
 * @inlet roughness fraction "Roughness" = 0 in 0..1
 * @outlet result colour "Colour": black without an environment that lights.
 */
vec3 environmentMirrored(vec3 direction, float roughness) {
  if (environmentTurn.z <= 0.0) {
    return vec3(0.0);
  }
  vec3 way = turnedIntoEnvironment(safeNormalize(direction));
  return textureLod(environmentCube, way, levelOfRoughness(clamp(roughness, 0.0, 1.0))).rgb * environmentTurn.z;
}

// What a mirror at this point sees in a direction, lights with a place left out.
vec3 mirroredFrom(vec3 direction, float roughness) {
  return skyFrom(direction) + environmentMirrored(direction, roughness);
}

// In its place other programs have one of their own.
vec3 mirroredHere(vec3 direction, float roughness) {
  return mirroredFrom(direction, roughness);
}
