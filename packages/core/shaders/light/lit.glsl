// Light leaving a surface, its terms held apart so that a picture can be taken to pieces.
struct Lit {
  vec3 ambient;
  vec3 diffuse;
  vec3 specular;
  vec3 reflection;
  vec3 transmission;
  vec3 emission;
};

Lit darkness() {
  return Lit(vec3(0.0), vec3(0.0), vec3(0.0), vec3(0.0), vec3(0.0), vec3(0.0));
}

// A colour that is not light from anywhere counts as the surface's own.
Lit emitted(vec3 colour) {
  return Lit(vec3(0.0), vec3(0.0), vec3(0.0), vec3(0.0), vec3(0.0), colour);
}

/**
 * Light from terms: lighting built by hand, its terms held apart so that the mixer can weigh each.
 * @kind lightFromTerms 1
 * @family Light
 * @words emission, emissive, combine light, ambient, diffuse, specular, own lighting, build
 * @source The terms of light add up: superposition
 * @inlet ambient colour "Ambient" = 0 0 0: light from all sides, already in the colour of the surface.
 * @inlet diffuse colour "Diffuse" = 0 0 0: light that the surface scatters.
 * @inlet specular colour "Specular" = 0 0 0: light that it mirrors.
 * @inlet emission colour "Emission" = 0 0 0: light of its own.
 * @outlet result light "Light"
 */
Lit lightFromTerms(vec3 ambient, vec3 diffuse, vec3 specular, vec3 emission) {
  return Lit(ambient, diffuse, specular, vec3(0.0), vec3(0.0), emission);
}

vec3 totalLight(Lit lit) {
  return lit.ambient + lit.diffuse + lit.specular + lit.reflection + lit.transmission + lit.emission;
}

// What a surface gives off. Each program has one that adds only the terms its material has.
vec3 surfaceLight(Lit lit) {
  return totalLight(lit);
}

Lit addValues(Lit a, Lit b) {
  return Lit(
    a.ambient + b.ambient, a.diffuse + b.diffuse, a.specular + b.specular,
    a.reflection + b.reflection, a.transmission + b.transmission, a.emission + b.emission
  );
}

Lit multiplyValues(Lit a, vec3 b) {
  return Lit(a.ambient * b, a.diffuse * b, a.specular * b, a.reflection * b, a.transmission * b, a.emission * b);
}

Lit multiplyValues(vec3 a, Lit b) {
  return multiplyValues(b, a);
}

Lit multiplyValues(Lit a, float b) {
  return multiplyValues(a, vec3(b));
}

Lit multiplyValues(float a, Lit b) {
  return multiplyValues(b, vec3(a));
}

Lit mixValues(Lit a, Lit b, float amount) {
  return addValues(multiplyValues(a, vec3(1.0 - amount)), multiplyValues(b, vec3(amount)));
}

Lit chosenOf(float condition, Lit a, Lit b) {
  return condition > 0.5 ? b : a;
}
