/**
 * Light direction: the way from the surface to the sun.
 * @kind lightDirection 1
 * @family Light
 * @words direction of the light, directional light, sun direction, to the light, light vector, l
 * @source The light rig: its sun
 * @outlet result directionToLight "Light direction": unit length, world space, from the surface to the sun.
 */
vec3 directionToSun() {
  return sunDirection.xyz;
}

struct CosineOfTwo {
  float facing;
  float whole;
};

CosineOfTwo cosineOfTwo(vec3 a, vec3 b) {
  float cosine = dot(a, b);
  return CosineOfTwo(max(cosine, 0.0), cosine);
}

/**
 * N·L: the cosine between normal and light direction; 1 where the surface faces the light.
 * @kind nDotL 1
 * @family Light
 * @words ndotl, n dot l, n.l, nl, lambert term, cosine law, diffuse term, light amount, dot light
 * @source Lambert 1760, "Photometria"; cosine law: dot(normal, to the light)
 * @inlet normal normal "Normal" = surface normal
 * @inlet toLight directionToLight "Light direction" = surface lightDirection
 * @outlet facing fraction "N·L, 0 to 1": 0 wherever the surface faces away.
 * @outlet whole number "N·L, −1 to 1": below 0 where the surface faces away.
 */
CosineOfTwo nDotL(vec3 normal, vec3 toLight) {
  return cosineOfTwo(normal, toLight);
}

/**
 * Half vector: midway between light direction and view direction.
 * @kind halfVector 1
 * @family Light
 * @words halfway, half angle, h, blinn, bisector, light plus view
 * @source Blinn 1977, "Models of light reflection for computer synthesized pictures", SIGGRAPH, section 2: normalize(L + V)
 * @inlet toLight directionToLight "Light direction" = surface lightDirection
 * @inlet toEye directionToEye "View direction" = surface viewDirection
 * @outlet result vector "Half vector": unit length, world space.
 */
vec3 halfVector(vec3 toLight, vec3 toEye) {
  return safeNormalize(toLight + toEye);
}

/**
 * N·H: the cosine between normal and half vector; 1 where light is reflected into the eye.
 * @kind nDotH 1
 * @family Light
 * @words ndoth, n dot h, n.h, nh, highlight term, specular term, blinn, half vector
 * @source Blinn 1977, "Models of light reflection for computer synthesized pictures", SIGGRAPH, section 2: dot(normal, half vector)
 * @inlet normal normal "Normal" = surface normal
 * @inlet toLight directionToLight "Light direction" = surface lightDirection
 * @inlet toEye directionToEye "View direction" = surface viewDirection
 * @outlet result fraction "N·H": 0…1; raised to an exponent it is a highlight.
 */
float nDotH(vec3 normal, vec3 toLight, vec3 toEye) {
  return max(dot(normal, halfVector(toLight, toEye)), 0.0);
}
