import type { Choice } from '../../shared/controls/choices';

/** What is shown of an image. */
export const CHANNELS = ['all', 'red', 'green', 'blue', 'alpha'] as const;
export type Channel = (typeof CHANNELS)[number];

export const CHANNEL_CHOICES: readonly Choice<Channel>[] = [
  { value: 'all', words: 'whole', help: 'Red, green and blue together' },
  { value: 'red' },
  { value: 'green' },
  { value: 'blue' },
  { value: 'alpha' },
];

/** Eight-bit RGBA of one channel as grey, or of all, opaque. */
export function shownPixels(data: Uint8Array, channel: Channel): Uint8ClampedArray<ArrayBuffer> {
  const shown = new Uint8ClampedArray(data.length);
  const only = CHANNELS.indexOf(channel) - 1;
  for (let at = 0; at < data.length; at += 4) {
    for (let each = 0; each < 3; each++) shown[at + each] = data[at + (only < 0 ? each : only)] ?? 0;
    shown[at + 3] = 255;
  }
  return shown;
}
