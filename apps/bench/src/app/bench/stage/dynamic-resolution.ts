/** Milliseconds a picture may take while something moves. */
const WANTED_MS = 40;
const STEPS = [1, 0.7, 0.5, 0.35, 0.25] as const;

/** Chooses how small to draw while something moves, from how long pictures took. */
export class DynamicResolution {
  private scale = 0.5;
  /** Milliseconds a full-size picture seems to take. */
  private full = 0;

  get current(): number {
    return this.scale;
  }

  /** Learns from a picture drawn at `scale`; time grows with its pixels. */
  learn(scale: number, milliseconds: number): void {
    const estimate = milliseconds / (scale * scale);
    this.full = this.full === 0 ? estimate : this.full * 0.7 + estimate * 0.3;
    const affordable = Math.sqrt(WANTED_MS / Math.max(this.full, 1));
    this.scale = STEPS.find((step) => step <= affordable) ?? STEPS[STEPS.length - 1] ?? 0.25;
  }
}
