/**
 * Offset along normal: moves the surface outwards or inwards.
 * @kind offsetAlongNormal 1
 * @family Shape
 * @words displacement, inflate, displace, push, height, vertex
 * @source Blinn 1978, "Simulation of wrinkled surfaces", SIGGRAPH: position + amount × normal
 * @inlet amount number "Amount" = 0.1 in -1..1 unit m: outwards; below 0 inwards.
 * @inlet normal normal "Normal" = surface normal
 * @outlet result vector "Offset": world space, metres.
 */
vec3 offsetAlongNormal(float amount, vec3 normal) {
  return normal * clamp(amount, -1.0e4, 1.0e4);
}

/**
 * Offset by vector: moves the surface by any vector.
 * @kind offsetByVector 1
 * @family Shape
 * @words displace, displacement, move, translate, push, vertex
 * @source Vector arithmetic: amount × way
 * @inlet way vector "Vector" = 0 1 0: world space, metres.
 * @inlet amount number "Amount" = 0.1 in -2..2: how much of it.
 * @outlet result vector "Offset": world space, metres.
 */
vec3 offsetByVector(vec3 way, float amount) {
  return clamp(way * clamp(amount, -1.0e4, 1.0e4), -1.0e4, 1.0e4);
}

/**
 * Wave: a swell that runs over the surface.
 * @kind waveOffset 1
 * @family Shape
 * @words sine, ripple, water, sway, undulate, displace
 * @source Travelling plane wave: height × sin(2π (along · position / length − speed × seconds / length))
 * @inlet position position "Position" = surface position
 * @inlet along vector "Runs along" = 1 0 0: the direction in which it travels.
 * @inlet way vector "Moves along" = 0 1 0: the direction in which points go to and fro.
 * @inlet height number "Height" = 0.1 in 0..1 unit m
 * @inlet wavelength number "Length" = 1 in 0.05..10 unit m: from crest to crest.
 * @inlet speed number "Speed" = 0.5 in -5..5: metres a second.
 * @inlet seconds seconds "Time" = surface time
 * @outlet result vector "Offset": world space, metres.
 */
vec3 waveOffset(vec3 position, vec3 along, vec3 way, float height, float wavelength, float speed, float seconds) {
  float turn = (dot(position, safeNormalize(along)) - speed * seconds) / max(abs(wavelength), 1e-4);
  return safeNormalize(way) * (clamp(height, -1.0e4, 1.0e4) * sin(6.283185307 * (turn - floor(turn))));
}

/**
 * Wobble: an uneven swelling to and fro, like jelly.
 * @kind wobbleOffset 1
 * @family Shape
 * @words jelly, jiggle, breathe, organic, displace, lumps
 * @source Product of three sines along the axes, each at a pace of its own
 * @inlet position position "Position" = surface position
 * @inlet normal normal "Normal" = surface normal
 * @inlet amount number "Amount" = 0.1 in 0..1 unit m
 * @inlet lumps number "Frequency" = 1 in 0.1..10: along one metre.
 * @inlet speed number "Speed" = 0.4 in 0..4: swellings a second.
 * @inlet seconds seconds "Time" = surface time
 * @outlet result vector "Offset": along the normal, metres.
 */
vec3 wobbleOffset(vec3 position, vec3 normal, float amount, float lumps, float speed, float seconds) {
  vec3 turn = position * clamp(lumps, -1.0e4, 1.0e4) + vec3(1.0, 1.31, 0.77) * (speed * seconds) + vec3(0.25, 0.0, 0.4);
  vec3 swell = sin(6.283185307 * (turn - floor(turn)));
  return normal * (clamp(amount, -1.0e4, 1.0e4) * swell.x * swell.y * swell.z);
}

/**
 * Twist: turns the surface about an axis, the farther along it the more.
 * @kind twistOffset 1
 * @family Shape
 * @words spiral, screw, wring, rotate, deform
 * @source Barr 1984, "Global and local deformations of solid primitives", SIGGRAPH: twisting
 * @inlet position position "Position" = surface position
 * @inlet axis vector "Axis" = 0 1 0
 * @inlet centre position "Centre" = 0 0 0: a point on the axis that stays as it is.
 * @inlet angle number "Twist" = 0.8 in -6..6: radians over one metre.
 * @outlet result vector "Offset": world space, metres.
 */
vec3 twistOffset(vec3 position, vec3 axis, vec3 centre, float angle) {
  vec3 about = safeNormalize(axis);
  vec3 away = position - centre;
  return rotatedAbout(away, about, dot(away, about) * clamp(angle, -1.0e3, 1.0e3)) - away;
}

/**
 * Bend: bends the surface round, like a bar over a knee.
 * @kind bendOffset 1
 * @family Shape
 * @words curve, arc, roll, deform, arch
 * @source Barr 1984, "Global and local deformations of solid primitives", SIGGRAPH: bending
 * @inlet position position "Position" = surface position
 * @inlet along vector "Along" = 0 1 0: the direction of the bar.
 * @inlet towards vector "Towards" = 1 0 0: the direction in which it is bent.
 * @inlet centre position "Centre" = 0 0 0: the point that stays as it is.
 * @inlet angle number "Bend" = 0.8 in -6..6: radians over one metre.
 * @outlet result vector "Offset": world space, metres.
 */
vec3 bendOffset(vec3 position, vec3 along, vec3 towards, vec3 centre, float angle) {
  vec3 bar = safeNormalize(along);
  vec3 side = safeNormalize(towards - bar * dot(towards, bar));
  float curve = clamp(angle, -1.0e3, 1.0e3);
  vec3 away = position - centre;
  float far = dot(away, bar);
  float aside = dot(away, side);
  if (abs(curve) < 1e-5) {
    return vec3(0.0);
  }
  float radius = 1.0 / curve;
  float turn = far * curve;
  float bentFar = (radius - aside) * sin(turn);
  float bentAside = radius - (radius - aside) * cos(turn);
  return bar * (bentFar - far) + side * (bentAside - aside);
}

/**
 * Circle path: sends points round in circles, as far as a mask lets them.
 * @kind circlePath 1
 * @family Shape
 * @words orbit, swing, sway, round, pennant, free end
 * @source Uniform motion on a circle: radius × (cos 2πt, sin 2πt) in the plane square to the axis
 * @inlet mask fraction "Mask" = 1 in 0..1: 0 stays, 1 goes all the way round.
 * @inlet radius number "Radius" = 0.1 in 0..2 unit m
 * @inlet axis vector "Axis" = 0 1 0: what the circle lies round.
 * @inlet speed number "Speed" = 0.5 in -5..5: rounds a second.
 * @inlet phase fraction "Phase" = 0 in 0..1: where it starts, in rounds.
 * @inlet seconds seconds "Time" = surface time
 * @outlet result vector "Offset": world space, metres.
 */
vec3 circlePath(float mask, float radius, vec3 axis, float speed, float phase, float seconds) {
  vec3 about = safeNormalize(axis);
  vec3 other = abs(about.y) < 0.9 ? vec3(0.0, 1.0, 0.0) : vec3(1.0, 0.0, 0.0);
  vec3 first = safeNormalize(cross(other, about));
  float turn = speed * seconds + phase;
  float angle = 6.283185307 * (turn - floor(turn));
  float far = clamp(mask, 0.0, 1.0) * clamp(radius, -1.0e4, 1.0e4);
  return (first * cos(angle) + cross(about, first) * sin(angle)) * far;
}

struct TravellingPulse {
  vec3 offset;
  float pulse;
};

/**
 * Travelling pulse: a swelling that runs over the surface, again and again.
 * @kind travellingPulse 1
 * @family Shape
 * @words bump, bulge, swallow, ring, sweep, scan, wave
 * @source Gaussian bell exp(−(distance / width)²) round a front that runs along a direction and repeats
 * @inlet position position "Position" = surface position
 * @inlet normal normal "Normal" = surface normal
 * @inlet along vector "Runs along" = 0 1 0
 * @inlet height number "Height" = 0.1 in -1..1 unit m
 * @inlet width number "Width" = 0.2 in 0.01..2 unit m
 * @inlet every number "Every" = 2 in 0.1..10 unit m: from one pulse to the next.
 * @inlet speed number "Speed" = 0.8 in -5..5: metres a second.
 * @inlet seconds seconds "Time" = surface time
 * @outlet offset vector "Offset": along the normal, metres.
 * @outlet pulse fraction "Pulse": 1 on the crest; carry it to pixels to colour them.
 */
TravellingPulse travellingPulse(vec3 position, vec3 normal, vec3 along, float height, float width, float every, float speed, float seconds) {
  float period = max(abs(every), 1e-3);
  float turn = (dot(position, safeNormalize(along)) - speed * seconds) / period + 0.5;
  float away = (turn - floor(turn) - 0.5) * period / max(abs(width), 1e-3);
  float pulse = exp(-min(away * away, 80.0));
  return TravellingPulse(normal * (clamp(height, -1.0e4, 1.0e4) * pulse), pulse);
}

/**
 * Wind: lets cloth and leaves flutter in gusts.
 * @kind windOffset 1
 * @family Shape
 * @words flutter, breeze, flag, cloth, leaves, sway, gust
 * @source A steady push and two octaves of gradient noise (Perlin 2002, "Improving noise", SIGGRAPH) that travel with the wind
 * @inlet position position "Position" = surface position
 * @inlet free fraction "Mask" = 1 in 0..1: 0 where it is held, 1 at its free end.
 * @inlet towards vector "Blows towards" = 1 0 0.3
 * @inlet strength number "Strength" = 0.25 in 0..2 unit m
 * @inlet gusts number "Gusts" = 1 in 0.05..8: along one metre.
 * @inlet speed number "Speed" = 1.2 in 0..8: metres a second.
 * @inlet seconds seconds "Time" = surface time
 * @outlet result vector "Offset": world space, metres.
 */
vec3 windOffset(vec3 position, float free, vec3 towards, float strength, float gusts, float speed, float seconds) {
  vec3 way = safeNormalize(towards);
  vec3 place = (position - way * (speed * seconds)) * clamp(gusts, 0.0, 1.0e3);
  float gust = gradientNoiseAt(place) + 0.5 * gradientNoiseAt(place * 2.0 + vec3(7.3, 1.9, 4.1));
  float aside = gradientNoiseAt(place + vec3(31.7, 17.1, 5.3));
  vec3 across = safeNormalize(cross(vec3(0.0, 1.0, 0.0), way));
  float held = clamp(free, 0.0, 1.0);
  vec3 moved = way * (0.35 + gust) + across * (0.7 * aside) - vec3(0.0, 0.15 * held, 0.0);
  return moved * (held * held * clamp(strength, 0.0, 1.0e4));
}

/**
 * Carry to pixels: computes a value per vertex and interpolates it over the pixels.
 * @kind carry 1
 * @family Shape
 * @words varying, interpolate, vertex, pass on, per vertex
 * @source GLSL ES 3.00 specification, section 4.3.6 (smooth outputs): perspective-correct interpolation
 * @inlet value number "Value" = 0
 * @outlet result number "Carried"
 */
float carried(float value) {
  return value;
}
vec2 carried(vec2 value) {
  return value;
}
vec3 carried(vec3 value) {
  return value;
}
vec4 carried(vec4 value) {
  return value;
}
