/** The net store as the code of a field. */
export const NET_STORE_CODE = `const int BOARDS = 1; // region Boards
const int STONE = 2; // region Arches
const int RACKS = 3; // region Racks
const int FLOATS = 4; // region Floats
const int ROOF = 5; // region Roof

float field(vec3 p, out int region) {
  // A hall of arches: one, repeated along z and seen in a mirror.
  vec3 bay = repeatedSpace(p, vec3(0.0, 0.0, 2.0), vec3(0.0, 0.0, 5.0)).position;
  vec3 side = mirroredSpace(bay, 0.0, 0.0);
  float arch = archField(bay - vec3(0.0, 1.6, 0.0), 1.9, 1.6, 0.32, 0.4);
  float plinth = boxField(side - vec3(1.9, 0.15, 0.0), vec3(0.6, 0.3, 0.7), 0.02);
  float stone = unionStairs(arch, plinth, 0.12, 3.0);
  float boards = boxField(p + vec3(0.0, 0.1, 0.0), vec3(6.0, 0.2, 11.0), 0.0);
  float ground = unionChamfered(boards, stone, 0.1);
  // Racks between the arches, with floats on them.
  vec3 between = repeatedSpace(p - vec3(0.0, 0.0, 1.0), vec3(0.0, 0.0, 2.0), vec3(0.0, 0.0, 4.0)).position;
  vec3 rack = mirroredSpace(between, 0.0, 0.0) - vec3(1.9, 0.7, 0.0);
  float racks = boxFrameField(rack, vec3(0.6, 1.4, 1.2), 0.06);
  racks = min(racks, boxField(rack, vec3(0.6, 0.05, 1.2), 0.0));
  vec3 shelf = repeatedSpace(rack - vec3(0.0, 0.165, 0.0), vec3(0.0, 0.0, 0.34), vec3(0.0, 0.0, 3.0)).position;
  float floats = sphereField(shelf, 0.14);
  floats = unionRound(floats, torusField(shelf.xzy, 0.13, 0.03), 0.03);
  // The one in the middle wobbles.
  vec3 q = p - vec3(0.0, 0.9, 0.0);
  float wobble = 0.06 * sin(7.0 * q.x) * sin(7.0 * q.y) * sin(7.0 * q.z);
  floats = min(floats, displaced(ellipsoidField(q, vec3(0.5, 0.6, 0.5)), wobble, 0.5));
  // A roof of laths.
  vec3 lath = repeatedSpace(p - vec3(0.0, 3.75, 0.0), vec3(0.0, 0.0, 0.5), vec3(0.0, 0.0, 20.0)).position;
  float roof = boxField(lath, vec3(4.6, 0.08, 0.12), 0.0);
  lath = repeatedSpace(p - vec3(0.0, 3.83, 0.0), vec3(0.7, 0.0, 0.0), vec3(7.0, 0.0, 0.0)).position;
  roof = min(roof, boxField(lath, vec3(0.1, 0.08, 10.2), 0.0));
  float nearest = min(min(ground, racks), min(floats, roof));
  region = nearest == roof ? ROOF : nearest == floats ? FLOATS : nearest == racks ? RACKS : stone < boards + 0.05 ? STONE : BOARDS;
  return nearest;
}
`;
