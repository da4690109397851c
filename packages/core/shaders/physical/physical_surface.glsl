/**
 * Physical surface: metals, plastics, lacquer, cloth and glass: glTF’s metal-rough model, its extensions as features to be switched on.
 * @kind physicalSurface 1
 * @family Light
 * @words pbr, metallic, roughness, brdf, cook torrance, metallic roughness, metal, rough, standard, realistic, glass, clear coat, gltf
 * @source glTF 2.0 specification, appendix B; KHR_materials_ior, specular, clearcoat, sheen, anisotropy, iridescence, transmission, volume, dispersion, emissive_strength; many bounces: Fdez-Agüera 2019, JCGT 8(1)
 * @inlet baseColour colour "Colour" = 0.8 0.8 0.8: what a matte surface scatters, or a metal mirrors head on.
 * @inlet metallic fraction "Metallic" = 0 in 0..1: 1 is bare metal; in between only where both meet in one pixel.
 * @inlet roughness fraction "Roughness" = 0.5 in 0..1: 0 mirrors sharply. Its square is the width alpha of the lobe.
 * @inlet normal normal "Normal" = surface normal
 * @inlet occlusion fraction "Occlusion" = 1 in 0..1: how much light from all around gets here.
 * @inlet ior ior "Index of refraction" = 1.5 in 1..2.5: 1.33 water, 1.5 glass and plastic, 2.4 diamond.
 * @inlet specular fraction "Specular" = 1 in 0..1: how strongly what is no metal mirrors.
 * @inlet specularColour colour "Specular colour" = 1 1 1: tints what is no metal where it is seen head on.
 * @inlet anisotropy fraction "Anisotropy" = 0.7 in 0..1: how much farther it mirrors across the grooves.
 * @inlet grooves number "Anisotropy rotation" = 0 in -1.5708..1.5708 unit rad: from the tangent, counter-clockwise.
 * @inlet iridescence fraction "Iridescence" = 1 in 0..1
 * @inlet filmIor number "Iridescence IOR" = 1.3 in 1..2.5
 * @inlet filmThickness number "Iridescence thickness" = 400 in 0..1200 unit nm
 * @inlet transmission fraction "Transmission" = 1 in 0..1: how much light passes instead of being scattered.
 * @inlet thickness number "Thickness" = 0.1 in 0..1 unit m: of the body behind the surface.
 * @inlet absorbed colour "Attenuation colour" = 1 1 1: what white light is after the distance.
 * @inlet absorbedAt number "Attenuation distance" = 0.2 in 0..2 unit m: 0 absorbs nothing.
 * @inlet dispersion number "Dispersion" = 0.3 in 0..4: 20 divided by the Abbe number.
 * @inlet sheenColour colour "Sheen colour" = 0.5 0.5 0.5
 * @inlet sheenRoughness fraction "Sheen roughness" = 0.4 in 0..1
 * @inlet emission colour "Emission" = 1 1 1
 * @inlet emissionStrength number "Emission strength" = 1 in 0..20
 * @inlet coat fraction "Clearcoat" = 1 in 0..1
 * @inlet coatRoughness fraction "Clearcoat roughness" = 0.05 in 0..1
 * @inlet coatNormal normal "Clearcoat normal" = surface normal
 * @factors baseColour, metallic, roughness, specular, specularColour, anisotropy, iridescence, transmission, thickness, sheenColour, sheenRoughness, emission, coat, coatRoughness
 * @feature hasSpecular "specular": strength, colour and index of refraction of what is no metal.
 * @feature hasCoat "clearcoat": a clear coat on top, with a roughness and a normal of its own.
 * @feature hasSheen "sheen": a soft glow of fibres at the edge.
 * @feature hasAnisotropy "anisotropy": highlights stretched across grooves.
 * @feature hasIridescence "iridescence": colours of a film as thin as light’s waves.
 * @feature hasTransmission "transmission": light passes; what is behind is seen through it.
 * @feature hasVolume "volume": glass with a thickness that bends and absorbs light; without it is a thin pane.
 * @feature hasDispersion "dispersion": colours bend differently in a body of glass.
 * @feature hasEmission "emission": light of its own.
 * @outlet result light "Light"
 */
Lit physicalSurface(
  vec3 baseColour, float metallic, float roughness, vec3 normal, float occlusion,
  float ior, float specular, vec3 specularColour, float anisotropy, float grooves,
  float iridescence, float filmIor, float filmThickness,
  float transmission, float thickness, vec3 absorbed, float absorbedAt, float dispersion,
  vec3 sheenColour, float sheenRoughness, vec3 emission, float emissionStrength,
  float coat, float coatRoughness, vec3 coatNormal,
  bool hasSpecular, bool hasCoat, bool hasSheen, bool hasAnisotropy, bool hasIridescence,
  bool hasTransmission, bool hasVolume, bool hasDispersion, bool hasEmission
) {
  vec3 base = seenBase(clamp(baseColour, 0.0, 1.0));
  float metal = clamp(metallic, 0.0, 1.0);
  float rough = clamp(roughness, 0.03, 1.0);
  float alpha2 = squaredAlpha(rough);
  vec3 toEye = surfaceToEye();
  float nDotV = clamp(dot(normal, toEye), 1e-3, 1.0);

  // What it mirrors head on and at a glancing angle: as a clear substance, and as a metal.
  vec3 f0 = vec3(0.04);
  vec3 f90 = vec3(1.0);
  if (hasVolume) {
    f0 = vec3(reflectivityFromIor(ior));
  }
  if (hasSpecular) {
    f90 = vec3(clamp(specular, 0.0, 1.0));
    f0 = min(reflectivityFromIor(ior) * max(specularColour, vec3(0.0)), vec3(1.0)) * f90;
  }
  vec3 metalF0 = base;
  if (hasIridescence) {
    float film = clamp(iridescence, 0.0, 1.0);
    f0 = mix(f0, headOnOf(filmReflectance(f0, filmIor, filmThickness, nDotV), nDotV), film);
    metalF0 = mix(base, headOnOf(filmReflectance(base, filmIor, filmThickness, nDotV), nDotV), film);
  }
  vec3 albedos = albedosAt(nDotV, rough);
  vec3 many = manyBounces(f0, f90, albedos);
  vec3 metalMany = manyBounces(metalF0, vec3(1.0), albedos);
  float both = albedos.x + albedos.y;
  // What of the lobe does not change with the angle, and what grows by Schlick's curve.
  vec3 steady = mix(f0 * many, metalF0 * metalMany, metal);
  vec3 growing = mix((f90 - f0) * many, (1.0 - metalF0) * metalMany, metal);
  vec3 mirrored = steady * both + growing * albedos.y;
  float below = (1.0 - metal) * (1.0 - largestOf(f0 * many * both + (f90 - f0) * many * albedos.y));
  float matteShare = below;
  float through = 0.0;
  if (hasTransmission) {
    through = clamp(transmission, 0.0, 1.0);
    matteShare = below * (1.0 - through);
  }

  vec3 mirrorNormal = normal;
  vec3 along = vec3(1.0, 0.0, 0.0);
  vec3 across = vec3(0.0, 1.0, 0.0);
  vec2 alphas = vec2(rough * rough);
  if (hasAnisotropy) {
    float strength = clamp(anisotropy, 0.0, 1.0);
    along = groovesAlong(normal, grooves);
    across = cross(normal, along);
    alphas.x = mix(alphas.x, 1.0, strength * strength);
    mirrorNormal = brushedNormal(normal, across, toEye, strength, rough);
  }

  vec3 around = ambientHere(normal);
  vec3 matte = vec3(0.0);
  vec3 shine = vec3(0.0);
  vec3 passing = vec3(0.0);
  int count = lightsInUse();
  for (int i = 0; i < count; i++) {
    LightHere light = lightHere(i);
    around += light.ambient;
    float nDotL = dot(normal, light.toLight);
    if (nDotL > 0.0) {
      vec3 halfway = safeNormalize(light.toLight + toEye);
      float nDotH = clamp(dot(normal, halfway), 0.0, 1.0);
      float lobe = 0.0;
      if (hasAnisotropy) {
        lobe = brushedLobe(alphas, along, across, halfway, light.toLight, toEye, nDotH, nDotL, nDotV);
      } else {
        lobe = ggxDensity(alpha2, nDotH) * smithVisibility(alpha2, nDotL, nDotV);
      }
      float glancing = fifthPower(1.0 - clamp(dot(toEye, halfway), 0.0, 1.0));
      float arriving = light.shadow * nDotL;
      matte += light.diffuse * arriving;
      shine += (steady + growing * glancing) * light.specular * (arriving * lobe);
    }
    if (hasTransmission) {
      // From behind: the mirror image of the lobe.
      if (nDotL < 0.0) {
        vec3 halfway = safeNormalize(light.toLight - normal * (2.0 * nDotL) + toEye);
        float lobe = ggxDensity(alpha2, clamp(dot(normal, halfway), 0.0, 1.0)) * smithVisibility(alpha2, -nDotL, nDotV);
        passing += light.specular * (light.shadow * -nDotL * lobe);
      }
    }
  }

  float open = clamp(occlusion, 0.0, 1.0);
  Lit lit = darkness();
  lit.ambient = base * around * (matteShare * open);
  lit.diffuse = base * matte * matteShare;
  lit.specular = shine;
  lit.reflection = mirrored * mirroredHere(reflect(-toEye, mirrorNormal), clamp(roughness, 0.0, 1.0)) * mirrorOcclusion(nDotV, open, rough);
  if (hasTransmission) {
    vec3 left = base;
    vec3 behind = vec3(0.0);
    if (hasVolume) {
      left = base * absorption(absorbed, absorbedAt, bodyThickness(thickness));
      if (hasDispersion) {
        behind = seenThrough(ior, thickness, roughness, dispersion, normal);
      } else {
        behind = seenThrough(ior, thickness, roughness, 0.0, normal);
      }
    } else {
      behind = seenThrough(1.5, 0.0, roughness, 0.0, normal);
    }
    lit.transmission = left * (behind + passing) * (below * through);
  }
  if (hasSheen) {
    lit = sheenLayer(lit, sheenColour, sheenRoughness, normal);
  }
  if (hasEmission) {
    lit.emission += max(emission, vec3(0.0)) * max(emissionStrength, 0.0);
  }
  if (hasCoat) {
    lit = clearCoat(lit, coat, coatRoughness, coatNormal);
  }
  return lit;
}
