uniform SplitSum {
  vec4 tableSize;   // x: side of the table in pixels; y: number of samples
};

out vec4 pixel;

// Albedos of the lobes from a direction: Karis 2013, in the SIGGRAPH course "Physically based shading in theory and practice",
// the second sum. Of GGX by samples of the tiny mirrors that the eye sees (Heitz 2018, "Sampling the GGX distribution of
// visible normals", JCGT 7(4)), of the sheen by samples all over the hemisphere.
void main() {
  float root = (gl_FragCoord.x - 0.5) / (tableSize.x - 1.0);
  float nDotV = max(root * root, 1e-3);
  float roughness = (gl_FragCoord.y - 0.5) / (tableSize.x - 1.0);
  float alpha2 = squaredAlpha(roughness);
  float alpha = sqrt(alpha2);
  float fibres = fibreAlpha(roughness);
  vec3 toEye = vec3(sqrt(1.0 - nDotV * nDotV), 0.0, nDotV);
  vec3 stretched = normalize(vec3(alpha * toEye.x, 0.0, toEye.z));
  float eyeMasking = 2.0 * nDotV / (nDotV + sqrt(alpha2 + (1.0 - alpha2) * nDotV * nDotV));
  vec3 sum = vec3(0.0);
  int count = int(tableSize.y);
  for (int i = 0; i < count; i++) {
    float u = (float(i) + 0.5) / tableSize.y;
    float turn = 6.28318531 * fract(float(i) * 0.61803399);
    float side = sqrt(u) * cos(turn);
    float upper = 0.5 * (1.0 + stretched.z);
    float ahead = (1.0 - upper) * sqrt(max(1.0 - side * side, 0.0)) + upper * sqrt(u) * sin(turn);
    float rest = sqrt(max(1.0 - side * side - ahead * ahead, 0.0));
    vec3 mirror = vec3(rest * stretched.x - ahead * stretched.z, side, rest * stretched.z + ahead * stretched.x);
    vec3 halfway = normalize(vec3(alpha * mirror.x, alpha * mirror.y, max(mirror.z, 1e-5)));
    float vDotH = dot(toEye, halfway);
    float nDotL = 2.0 * vDotH * halfway.z - nDotV;
    if (nDotL > 0.0) {
      float share = smithVisibility(alpha2, nDotL, nDotV) * 4.0 * nDotL * nDotV / eyeMasking;
      float glancing = fifthPower(1.0 - clamp(vDotH, 0.0, 1.0));
      sum.x += share * (1.0 - glancing);
      sum.y += share * glancing;
    }
    vec3 toLight = vec3(sqrt(max(1.0 - u * u, 0.0)) * cos(turn), sqrt(max(1.0 - u * u, 0.0)) * sin(turn), u);
    float nDotH = safeNormalize(toLight + toEye).z;
    sum.z += 2.0 * u * fibreLobe(fibres, clamp(nDotH, 0.0, 1.0), max(u, 1e-3), nDotV);
  }
  pixel = vec4(min(sum / tableSize.y, vec3(1.0)), 1.0);
}
