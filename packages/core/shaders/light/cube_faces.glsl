// Direction of a place on a face of a cube, 0…1 from the left and the top: OpenGL ES 3.0 specification, section 3.8.10.
vec3 faceDirection(int face, vec2 place) {
  vec2 a = place * 2.0 - 1.0;
  vec3 way = face == 0 ? vec3(1.0, -a.y, -a.x) : face == 1 ? vec3(-1.0, -a.y, a.x) : face == 2 ? vec3(a.x, 1.0, a.y)
    : face == 3 ? vec3(a.x, -1.0, -a.y) : face == 4 ? vec3(a.x, -a.y, 1.0) : vec3(-a.x, -a.y, -1.0);
  return normalize(way);
}

// A frame whose third axis is a normal: Duff et al. 2017, "Building an orthonormal basis, revisited", JCGT 6(1).
mat3 frameRound(vec3 n) {
  float side = n.z < 0.0 ? -1.0 : 1.0;
  float a = -1.0 / (side + n.z);
  float b = n.x * n.y * a;
  return mat3(vec3(1.0 + side * n.x * n.x * a, side * b, -side * n.x), vec3(b, side + n.y * n.y * a, -n.y), n);
}
