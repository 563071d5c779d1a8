const RANGE = /^(.+?)(?:\s+to\s+|\s*(?:…|\.\.)\s*)(.+)$/;

/** The two figures of a range as it is typed, `200 Hz to 3 kHz` or `200…3000`; null of a single figure. */
export function typedRange(text: string): readonly [low: string, high: string] | null {
  const both = RANGE.exec(text.trim());
  return both && [both[1] ?? '', both[2] ?? ''];
}
