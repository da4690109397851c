// Uniform blocks shared by every program. Only types on which std140 and WGSL agree (see ir/layout.ts).

// Per picture. World space: right-handed, Y up, metres.
uniform Frame {
  mat4 clipFromWorld;
  mat4 viewFromWorld;    // the eye looks along −z
  vec4 eyePosition;      // xyz: world position of the eye (perspective) or direction towards it (orthographic); w: 1 or 0
  vec4 targetSize;       // xy: width and height of the whole picture in CSS pixels; zw: 1 / those of the whole picture, in the pixels it is drawn with now
  vec4 pictureCorner;    // xy: what is added to a place in the target to get the one in the whole picture, pixels; zw: how many times as wide and high the whole picture is as the part of it that is drawn
  vec4 fogColour;        // rgb: what distance fades to; w: part lost over one metre, as a rate
  float frameTime;       // seconds
};

// Per mesh part, object space.
uniform Object {
  vec4 placeOrigin;      // xyz: smallest corner of the mesh's bounds
  vec4 placeScale;       // xyz: 1 / extent, 0 where the mesh is flat
  vec4 partDepth;        // x: metres nearer to the eye that the part counts as, in depth only; y: 1 where it receives shadows; z: the part's number in its mesh, from 0
  vec4 partField;        // of a field: x: most steps along a line of sight; y: pixels from its surface that count as on it; z: 1 / its steepest slope; w: its number, from 0
  vec4 partOutline;      // width in x: metres, y: CSS pixels; z: metres that its outline counts as farther; w: number, negative without lines
};

// Scene-linear Rec. 709. A light colour of 1 makes a white surface that faces the light read 1.
uniform Lights {
  vec4 ambientColour;      // rgb: light from all sides alike, hemispheres at their horizon included
  vec4 ambientSlope;       // rgb: how much more of it comes from straight above than from the horizon
  vec4 sunDirection;       // xyz: unit vector towards the rig's own sun, on or off
  vec4 sunColour;          // rgb: colour times intensity; black when off
  vec4 environmentTurn;    // x, y: cosine and sine of its turn about the vertical; z: strength of its light, 0 without; w: number of the roughest level
  vec4 environmentLight[9]; // rgb: what a white surface sends on of it, by spherical harmonics of its own frame; its strength is in them
  vec4 lightCount;         // x: number of lights in use, at most 8
  vec4 lightPlace[8];      // w 0: xyz is the unit vector towards a sun; w 1: xyz is the place of a light, metres
  vec4 lightColour[8];     // rgb: colour times intensity
  vec4 lightAxis[8];       // of a spot: xyz: unit vector from what it shines on towards it; w: cone scale, 0 without a cone
  vec4 lightFalloff[8];    // x: 0 none, 1 inverse square, 2 windowed; y: range, metres; z: cone offset; w: shadow square from 1, 0 without
  vec4 lightParts[24];     // three a light: rgb: colour times intensity of its ambient, diffuse and specular part, tint and weight included; w: the part's weight alone
  mat4 shadowFromWorld[4]; // clip space of the lights that cast shadows
  vec4 shadowInfo[4];      // x: size of a texel on what is lit, metres; y: texels that half an edge widens over a metre; of a spot z, w: metres to its nearest and farthest plane; of a sun z: metres between them, w: 0
};

// The surface taken apart: its terms by weight, or one of its properties as a picture.
uniform Inspect {
  vec4 termWeights;   // ambient, diffuse, specular, reflection
  vec4 moreWeights;   // transmission, emission, shadow, near occlusion
  vec4 inspectView;   // x: which view; y: 0 whole, 1 colour without light, 2 light without colour; z: number of a light from 0
  vec4 inspectRange;  // x, y: nearest and farthest distance from the eye, metres; z: so many steps of a field are at the end of the scale
};
