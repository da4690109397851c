// Supplied by a whole program: its own `main`, which puts a place in clip space into gl_Position.
void codeVertices();

void main() {
  placeVertex();
  codeVertices();
}
