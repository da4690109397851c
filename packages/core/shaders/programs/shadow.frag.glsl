// Only depth is kept.
void main() {
}
