/** What whole programs, with `void main()`, may declare by name to be given it, and the library's expression for it. */
export interface SystemName {
  readonly type: string;
  /** An attribute or varying of the library, or a call of one of its functions. */
  readonly stands: string;
  readonly help: string;
}

/** `uniform`: in both stages. */
export const SYSTEM_UNIFORMS: Readonly<Record<string, SystemName>> = {
  worldFromObject: { type: 'mat4', stands: 'worldFromObject()', help: 'Takes points of the mesh to where its copy stands.' },
  viewFromWorld: { type: 'mat4', stands: 'viewFromWorld', help: 'Takes world space to the eye, which looks along −z.' },
  viewFromObject: { type: 'mat4', stands: 'viewFromObject()', help: 'Takes points of the mesh to the eye.' },
  clipFromWorld: { type: 'mat4', stands: 'clipFromWorld', help: 'Takes world space to clip space, z 0…1.' },
  clipFromObject: { type: 'mat4', stands: 'clipFromObject()', help: 'Takes points of the mesh to clip space.' },
  worldNormalFromObject: {
    type: 'mat3',
    stands: 'worldNormalFromObject()',
    help: 'Takes normals of the mesh to world space, not of unit length.',
  },
  viewNormalFromObject: {
    type: 'mat3',
    stands: 'viewNormalFromObject()',
    help: 'Takes normals of the mesh to the eye, not of unit length.',
  },
  eye: { type: 'vec3', stands: 'eyeInWorld()', help: 'Where the eye is, world space, metres.' },
  time: { type: 'float', stands: 'stageTime()', help: 'Seconds on the Stage’s clock.' },
  pictureSize: { type: 'vec2', stands: 'pictureSize()', help: 'Width and height of the picture, CSS pixels.' },
  sunDirection: { type: 'vec3', stands: 'towardsSun()', help: 'Unit vector towards the rig’s sun, world space.' },
  sunColour: { type: 'vec3', stands: 'lightOfSun()', help: 'The sun’s colour times its intensity, scene-linear.' },
  ambientColour: { type: 'vec3', stands: 'lightFromAround()', help: 'Light from all sides, scene-linear.' },
};

/** `in` of the vertex stage: what the mesh has for each vertex, object space. */
export const SYSTEM_ATTRIBUTES: Readonly<Record<string, SystemName>> = {
  position: { type: 'vec3', stands: 'meshPosition', help: 'Where the vertex is, metres.' },
  normal: { type: 'vec3', stands: 'meshNormal', help: 'Unit length.' },
  tangent: { type: 'vec4', stands: 'meshTangent', help: 'The way u grows; w is the handedness, 1 or −1.' },
  uv: { type: 'vec2', stands: 'meshUv0', help: 'The first UV set; 0, 0 is an image’s top left corner.' },
  uv2: { type: 'vec2', stands: 'meshUv1', help: 'The second UV set, without overlaps.' },
  colour: { type: 'vec4', stands: 'meshColour', help: 'The vertex’s own colour, scene-linear.' },
  copy: { type: 'float', stands: 'copyIndex', help: 'Number of the mesh’s copy, from 0.' },
};

/** `in` of the pixel stage where there is no vertex stage of one's own. */
export const SYSTEM_VARYINGS: Readonly<Record<string, SystemName>> = {
  position: { type: 'vec3', stands: 'surfacePosition()', help: 'World space, metres.' },
  normal: { type: 'vec3', stands: 'surfaceNormal()', help: 'Unit length, world space, on the side that is seen.' },
  tangent: { type: 'vec3', stands: 'surfaceTangent()', help: 'Unit length, world space.' },
  uv: { type: 'vec2', stands: 'surfaceUv()', help: 'The first UV set.' },
  uv2: { type: 'vec2', stands: 'surfaceSecondUv()', help: 'The second UV set.' },
  colour: { type: 'vec4', stands: 'vertexTint', help: 'The vertices’ own colour, scene-linear.' },
};
