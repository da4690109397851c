// What one light of the rig does at this point of the surface.
struct LightHere {
  vec3 toLight;    // unit length, world space
  vec3 colour;     // what arrives: colour times intensity, falloff and cone
  vec3 weights;    // ambient, diffuse and specular part
  float shadow;    // how much of its way here is free, 0…1
  vec3 ambient;    // what arrives from all sides: its colour tinted, times the ambient part
  vec3 diffuse;    // what arrives to be scattered
  vec3 specular;   // what arrives to be mirrored
};

// KHR_lights_punctual, section "Range property": inverse square, brought smoothly to 0 at the range.
float windowedFalloff(float squaredDistance, float range) {
  float part = squaredDistance / max(range * range, 1e-6);
  return clamp(1.0 - part * part, 0.0, 1.0) / max(squaredDistance, 1e-4);
}

// What is left of a light's strength, by the square of the distance in metres; at 1 metre an unwindowed light is as strong as typed.
float falloffAt(vec4 falloff, float squaredDistance) {
  float faded = falloff.x < 1.5 ? 1.0 / max(squaredDistance, 1e-4) : windowedFalloff(squaredDistance, falloff.y);
  return falloff.x < 0.5 ? 1.0 : faded;
}

// KHR_lights_punctual, section "Inner and outer cone angles".
float coneAt(float cosine, float scale, float offset) {
  float across = clamp(cosine * scale + offset, 0.0, 1.0);
  return across * across;
}

// How many lights lighting sums over.
int lightsInUse() {
  return int(lightCount.x);
}

// What is left of a light past all that stands in its way. Programs for pictures without shadows have `unshaded` instead.
float shadowOf(int i, vec3 toLight) {
  int square = int(lightFalloff[i].w);
  if (square < 1 || partDepth.y < 0.5) {
    return 1.0;
  }
  vec3 normal = surfaceNormal();
  return dot(normal, toLight) > 0.0 ? seenShadow(shadowHere(square - 1, normal, toLight)) : 1.0;
}

float unshaded(int i, vec3 toLight) {
  return 1.0;
}

LightHere lightHere(int i) {
  vec4 place = lightPlace[i];
  // A sun has its direction in place of a place, and no falloff.
  vec3 way = place.xyz - worldPosition * place.w;
  float squared = max(dot(way, way), 1e-20);
  vec3 toLight = way * inversesqrt(squared);
  vec4 axis = lightAxis[i];
  vec4 falloff = lightFalloff[i];
  float cone = axis.w > 0.0 ? coneAt(dot(toLight, axis.xyz), axis.w, falloff.z) : 1.0;
  float strength = cone * falloffAt(falloff, squared);
  vec3 arriving = lightColour[i].rgb * strength;
  vec4 ambient = lightParts[3 * i];
  vec4 diffuse = lightParts[3 * i + 1];
  vec4 specular = lightParts[3 * i + 2];
  vec3 weights = vec3(ambient.w, diffuse.w, specular.w);
  float shadow = shadowOf(i, toLight);
  return LightHere(toLight, arriving, weights, shadow, ambient.rgb * strength, diffuse.rgb * strength, specular.rgb * strength);
}

vec3 skyFrom(vec3 normal) {
  return max(ambientColour.rgb + ambientSlope.rgb * normal.y, vec3(0.0));
}

// Ambient light, hemispheres and the environment.
vec3 ambientFrom(vec3 normal) {
  return skyFrom(normal) + environmentAround(normal);
}

// Light from all around that reaches a surface which faces this way.
vec3 ambientHere(vec3 normal) {
  return ambientFrom(normal);
}

// The same for drawn looks, which near surfaces do not darken unless that is asked for.
vec3 ambientOfDrawing(vec3 normal) {
  return ambientFrom(normal);
}

// The colour of a surface as lighting sees it: a view of the light alone puts white in its place.
vec3 seenBase(vec3 base) {
  return base;
}

struct SunLight {
  vec3 direction;
  vec3 colour;
};

/**
 * Sun: the direction and colour of the sun, to build lighting by hand.
 * @kind sun 1
 * @family Light
 * @words directional, light direction, light colour, lamp
 * @source The light rig: its sun
 * @outlet direction directionToLight "Light direction": unit length, world space, from the surface to the sun.
 * @outlet colour colour "Colour": colour times intensity; black while the sun is switched off.
 */
SunLight sunLight() {
  return SunLight(sunDirection.xyz, sunColour.rgb);
}

// Metres from the surface to a light; 0 for a sun.
float distanceToLight(int i) {
  return length(lightPlace[i].xyz - worldPosition) * lightPlace[i].w;
}

float falloffOver(int i, float distance) {
  return lightPlace[i].w < 0.5 ? 1.0 : falloffAt(lightFalloff[i], distance * distance);
}

struct OneLight {
  vec3 direction;
  vec3 colour;
  float distance;
  float falloff;
  float shadow;
};

/**
 * One light: any light of the rig by its number, to build lighting by hand.
 * @kind oneLight 1
 * @family Light
 * @words lamp, point light, spot light, light direction, light colour, light distance, single
 * @source KHR_lights_punctual (falloff and cone); the light rig
 * @inlet number count "Light" = 1 in 1..8: the rig's lights in their order, from 1; ambient light and hemispheres have no number.
 * @outlet direction directionToLight "Light direction": unit length, world space, from the surface to the light.
 * @outlet colour colour "Colour": what arrives here, falloff and cone included.
 * @outlet distance number "Distance": metres; 0 for a sun, which is nowhere.
 * @outlet falloff number "Falloff": what is left of its strength over the distance.
 * @outlet shadow fraction "Shadow": 1 where the light gets through, 0 where something stands in its way.
 */
OneLight oneLight(float number) {
  int i = int(clamp(floor(number + 0.5), 1.0, 8.0)) - 1;
  if (i >= lightsInUse()) {
    return OneLight(vec3(0.0, 1.0, 0.0), vec3(0.0), 0.0, 0.0, 1.0);
  }
  LightHere light = lightHere(i);
  float distance = distanceToLight(i);
  return OneLight(light.toLight, light.colour, distance, falloffOver(i, distance), light.shadow);
}

struct EachLight {
  vec3 direction;
  vec3 colour;
  float distance;
  float falloff;
  float shadow;
  float ambientPart;
  float diffusePart;
  float specularPart;
  vec3 ambient;
  vec3 diffuse;
  vec3 specular;
};

/**
 * This light: in a group that runs once for each light, the light whose turn it is.
 * @kind thisLight 1
 * @family Light
 * @words for each light, light attenuation, attenuation, loop, current light, light direction, light colour, falloff, shadow, own lighting
 * @source KHR_lights_punctual (falloff and cone); the light rig
 * @given light
 * @outlet direction directionToLight "Light direction": unit length, world space, from the surface to the light.
 * @outlet colour colour "Colour": what arrives here, falloff and cone included.
 * @outlet distance number "Distance": metres; 0 for a sun, which is nowhere.
 * @outlet falloff number "Falloff": what is left of its strength over the distance.
 * @outlet shadow fraction "Shadow": 1 where the light gets through, 0 where something stands in its way.
 * @outlet ambientPart number "Ambient": the rig's weight for what this light gives from all sides.
 * @outlet diffusePart number "Diffuse": the rig's weight for what is scattered.
 * @outlet specularPart number "Specular": the rig's weight for what is mirrored.
 * @outlet ambient colour "Ambient colour": what arrives of it from all sides, in the colour of that part, its weight included.
 * @outlet diffuse colour "Diffuse colour": what arrives of it to be scattered, its weight included.
 * @outlet specular colour "Specular colour": what arrives of it to be mirrored, its weight included.
 */
EachLight thisLight(int light) {
  LightHere here = lightHere(light);
  float distance = distanceToLight(light);
  vec3 parts = here.weights;
  return EachLight(
    here.toLight, here.colour, distance, falloffOver(light, distance), here.shadow, parts.x, parts.y, parts.z,
    here.ambient, here.diffuse, here.specular
  );
}
