out vec4 pixel;

// Supplied by the material.
Lit paintSurface();
vec3 paintEmission();
float paintOpacity();

// These take the place of seenBase, ambientHere, mirroredHere, lightsInUse and seenShadow.
vec3 inspectedBase(vec3 base) {
  return inspectView.y > 1.5 ? vec3(1.0) : base;
}

float inspectedOpen() {
  return mix(1.0, openHere(), clamp(moreWeights.w, 0.0, 1.0));
}

vec3 inspectedAmbient(vec3 normal) {
  return inspectView.y > 0.5 && inspectView.y < 1.5 ? vec3(1.0) : ambientFrom(normal) * inspectedOpen();
}

vec3 inspectedPlainAmbient(vec3 normal) {
  return inspectView.y > 0.5 && inspectView.y < 1.5 ? vec3(1.0) : ambientFrom(normal);
}

vec3 inspectedMirror(vec3 direction, float roughness) {
  return inspectView.y > 0.5 && inspectView.y < 1.5 ? vec3(1.0) : mirroredFrom(direction, roughness) * mirrorOpen(inspectedOpen(), direction, roughness);
}

int inspectedLights() {
  return inspectView.y > 0.5 && inspectView.y < 1.5 ? 0 : int(lightCount.x);
}

float inspectedShadow(float lit) {
  return mix(1.0, lit, clamp(moreWeights.z, 0.0, 1.0));
}

// All shadows together: what part of the lights that could shine here gets through.
vec3 shadowsHere() {
  float free = 0.0;
  float all = 0.0;
  int count = int(lightCount.x);
  for (int i = 0; i < count; i++) {
    LightHere light = lightHere(i);
    float strength = luminanceOf(light.colour);
    free += strength * light.shadow;
    all += strength;
  }
  return vec3(all > 0.0 ? free / all : 1.0);
}

// A value that is to be seen as it is: the view transform's encoding is taken back.
vec3 asSeen(vec3 value) {
  return linearFromSrgb(clamp(value, 0.0, 1.0));
}

// Lines at whole steps of a value, about two pixels wide.
float linesAt(float value) {
  float width = max(fwidth(value), 1e-6);
  float away = abs(fract(value - 0.5) - 0.5);
  return 1.0 - smoothStepBetween(width, width * 2.0, away);
}

vec3 ringsRound(vec3 place) {
  float distance = length(place - worldPosition);
  float shade = 0.75 * exp(-0.35 * distance) + 0.1;
  float quarter = 0.35 * linesAt(distance * 4.0);
  return vec3(mix(mix(shade, 0.0, quarter), 1.0, linesAt(distance)));
}

bool isBroken(vec3 light) {
  return isnan(light.r) || isnan(light.g) || isnan(light.b);
}

// The picture in grey, but blue where a channel is below 0, red where one is above 1, and a check where it is no number.
vec3 marksOn(vec3 light) {
  if (isBroken(light)) {
    float check = mod(floor(gl_FragCoord.x / 4.0) + floor(gl_FragCoord.y / 4.0), 2.0);
    return vec3(1.0, 1.0, 0.0) * check;
  }
  if (min(light.r, min(light.g, light.b)) < 0.0) {
    return vec3(0.1, 0.25, 1.0);
  }
  if (max(light.r, max(light.g, light.b)) > 1.0) {
    return vec3(1.0, 0.15, 0.1);
  }
  return vec3(luminanceOf(srgbFromLinear(light)) * 0.8);
}

vec3 viewOf(float view, vec3 light) {
  vec3 normal = surfaceNormal();
  if (view < 1.5) {
    return normal * 0.5 + 0.5;
  }
  if (view < 2.5) {
    return surfaceTangent() * 0.5 + 0.5;
  }
  if (view < 3.5) {
    return vec3(fract(meshUv), 0.0) * (1.0 - 0.5 * max(linesAt(meshUv.x * 10.0), linesAt(meshUv.y * 10.0)));
  }
  if (view < 4.5) {
    return vec3(fract(meshSecondUv), 0.0) * (1.0 - 0.5 * max(linesAt(meshSecondUv.x * 10.0), linesAt(meshSecondUv.y * 10.0)));
  }
  if (view < 5.5) {
    return fract(worldPosition);
  }
  if (view < 6.5) {
    return vec3(1.0 - (distanceToEye() - inspectRange.x) / max(inspectRange.y - inspectRange.x, 1e-6));
  }
  if (view < 7.5) {
    float shade = 0.25 + 0.75 * clamp(dot(normal, surfaceToEye()), 0.0, 1.0);
    float hatch = step(0.5, fract((gl_FragCoord.x + gl_FragCoord.y) / 8.0));
    return vec3(gl_FrontFacing ? shade : shade * (0.3 + 0.4 * hatch));
  }
  if (view < 8.5) {
    int number = int(inspectView.z);
    return lightPlace[number].w > 0.5 ? ringsRound(lightPlace[number].xyz) : vec3(0.35);
  }
  if (view < 9.5) {
    return marksOn(light);
  }
  if (view < 10.5) {
    return shadowsHere();
  }
  if (view < 11.5) {
    return vec3(openHere());
  }
  // Neighbouring numbers are far apart on the circle of hues: by the golden angle.
  return srgbFromLinear(clamp(colourFromLch(0.72, 0.12, 2.399963 * partDepth.z), 0.0, 1.0)) * (0.4 + 0.6 * clamp(dot(normal, surfaceToEye()), 0.0, 1.0));
}

vec4 inspected() {
  Lit lit = paintSurface();
  vec3 light = lit.ambient * termWeights.x + lit.diffuse * termWeights.y + lit.specular * termWeights.z
    + lit.reflection * termWeights.w + lit.transmission * moreWeights.x + (lit.emission + paintEmission()) * moreWeights.y;
  if (inspectView.x > 0.5) {
    return seenWhole(asSeen(viewOf(inspectView.x, light)), paintOpacity());
  }
  return seenWhole(throughFog(light), paintOpacity());
}

void main() {
  vec4 painted = inspected();
  pixel = brokenOff(painted);
}
