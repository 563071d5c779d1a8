/** What a file of rendered sound may be. */
export const RENDER = {
  bits: ['16', '24', '32f'],
  rates: [44_100, 48_000, 88_200, 96_000, 176_400, 192_000],
  /** Seconds. */
  longest: 1800,
} as const;

export type RenderBits = (typeof RENDER.bits)[number];
