struct VertexColour {
  vec3 colour;
  float alpha;
};

/**
 * Vertex colour: the colour that the mesh itself carries. Generated meshes carry their place in it.
 * @kind vertexColour 1
 * @family Where
 * @words painted, vertex paint, mask, baked
 * @source glTF 2.0 specification, section 3.7.2.1 (COLOR_0, linear)
 * @outlet colour colour "Colour"
 * @outlet alpha fraction "Alpha"
 */
VertexColour surfaceVertexColour() {
  return VertexColour(vertexTint.rgb, vertexTint.a);
}

/**
 * Screen position: where this point is in the picture.
 * @kind screenPosition 1
 * @family Where
 * @words screen uv, window, viewport, pixel, overlay, camera
 * @source Perspective division of clip space (GLSL ES 3.00 specification, section 7.1), the top left corner 0, 0
 * @outlet result uv "Screen": 0…1 across and down the picture.
 */
vec2 surfaceScreenPosition() {
  vec4 clip = clipFromWorld * vec4(worldPosition, 1.0);
  vec2 seen = clip.xy / max(clip.w, 1e-6);
  return clamp(vec2(seen.x, -seen.y) * 0.5 + 0.5, -1.0e4, 1.0e4);
}

/**
 * Distance to camera: how far this point is from the eye.
 * @kind distanceToCamera 1
 * @family Where
 * @words depth, fade, near, far, eye
 * @source Length of eye − position
 * @outlet result number "Distance": metres; without perspective from the plane of the eye.
 */
float surfaceDistanceToCamera() {
  return distanceToEye();
}

/**
 * Part index: the number of this part in its mesh, from 0.
 * @kind partIndex 1
 * @family Where
 * @words piece, submesh, number, variation, id
 * @source Parts are counted in the order of the mesh
 * @outlet result number "Index"
 */
float surfacePartIndex() {
  return partDepth.z;
}

/**
 * Random per instance: a number of its own for each copy of the mesh.
 * @kind randomByCopy 1
 * @family Where
 * @words instance, variation, each copy, phase, hash, random by copy
 * @source pcg hash of the copy's number (Jarzynski, Olano 2020, JCGT 9(3))
 * @inlet seed number "Seed" = 0: another seed, other numbers.
 * @outlet result fraction "Random": 0…1.
 */
float randomByCopy(float seed) {
  return unitFrom(cellHash(vec3(surfaceCopyIndex(), floor(clamp(seed, -1.0e6, 1.0e6)), 7.0)));
}
