in vec3 meshPosition;
in vec3 meshNormal;
in vec4 meshTangent;
in vec2 meshUv0;
in vec2 meshUv1;
in vec4 copyRowX;
in vec4 copyRowY;
in vec4 copyRowZ;
in float copyIndex;

uniform Caster {
  mat4 casterClip;   // clip space of the light, from world space
};

void main() {
  gl_Position = casterClip * vec4(placedPoint(meshPosition, copyRowX, copyRowY, copyRowZ), 1.0);
}
