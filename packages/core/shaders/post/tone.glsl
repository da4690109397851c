// Tone curves: scene-linear light, after exposure, to display-linear light in 0…1.

// Reinhard, Stark, Shirley, Ferwerda 2002, "Photographic tone reproduction for digital images", equation 3, on luminance.
vec3 reinhardCurve(vec3 light) {
  return light / (1.0 + max(luminanceOf(light), 0.0));
}

// Narkowicz 2016, "ACES filmic tone mapping curve": a fit of the ACES reference and sRGB output transforms.
vec3 acesCurve(vec3 light) {
  return clamp(light * (2.51 * light + 0.03) / (light * (2.43 * light + 0.59) + 0.14), 0.0, 1.0);
}

// Khronos PBR Neutral tone mapper, specification 1.0.
vec3 neutralCurve(vec3 light) {
  float start = 0.8 - 0.04;
  float least = min(light.r, min(light.g, light.b));
  float offset = least < 0.08 ? least - 6.25 * least * least : 0.04;
  vec3 shifted = light - offset;
  float peak = max(shifted.r, max(shifted.g, shifted.b));
  if (peak < start) {
    return shifted;
  }
  float room = 1.0 - start;
  float pressed = 1.0 - room * room / (peak + room - start);
  vec3 scaled = shifted * (pressed / peak);
  float bleached = 1.0 - 1.0 / (0.15 * (peak - pressed) + 1.0);
  return mix(scaled, vec3(pressed), bleached);
}

// By number: 0 none, 1 Reinhard, 2 ACES fit, 3 Khronos PBR Neutral.
vec3 toneCurve(vec3 light, float curve) {
  vec3 positive = max(light, vec3(0.0));
  if (curve < 0.5) {
    return clamp(positive, 0.0, 1.0);
  }
  vec3 bent = curve < 1.5 ? reinhardCurve(positive) : curve < 2.5 ? acesCurve(positive) : neutralCurve(positive);
  return clamp(bent, 0.0, 1.0);
}
