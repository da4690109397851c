out vec4 pixel;

// What is left of a floor towards its border, where it fades into what is behind: whole in the middle, nothing at the edge.
void main() {
  float away = length(meshPlace.xy - 0.5) * 2.0;
  pixel = vec4(0.0, 0.0, 0.0, 1.0 - smoothStepBetween(0.3, 1.0, away));
}
