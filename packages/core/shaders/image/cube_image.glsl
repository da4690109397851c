/**
 * Cube image: six images of a cube, looked up by a direction.
 * @kind cubeImage 1
 * @family Images
 * @words cube map, cubemap, skybox, environment map, sky, reflection, six sides, panorama, direction
 * @source OpenGL ES 3.0.6 specification, section 3.8.10 (cube map texture selection)
 * @inlet image cubeImage "Cube image"
 * @inlet direction vector "Direction" = surface fromMiddle: from the middle of the cube, world space; open, from the middle of the mesh. What Reflect gives makes a mirror.
 * @outlet colour colour "Colour": scene-linear for a colour image, as stored for data.
 * @outlet alpha fraction "Alpha"
 * @outlet red number "Red"
 * @outlet green number "Green"
 * @outlet blue number "Blue"
 */
ImageSample sampleCubeImage(samplerCube image, vec3 direction) {
  vec4 texel = texture(image, dot(direction, direction) < 1e-12 ? vec3(0.0, 1.0, 0.0) : direction);
  return ImageSample(texel.rgb, texel.a, texel.r, texel.g, texel.b);
}
