/** The colours of paper and ink, once for each scheme. */
export interface Tokens {
  readonly paper: string;
  readonly raised: string;
  readonly line: string;
  readonly ink: string;
  readonly softInk: string;
  readonly bound: string;
  readonly seen: string;
  readonly trace: string;
  readonly wanted: string;
  readonly error: string;
  readonly warning: string;
  readonly good: string;
  /** No colour: the border of what could have one, and keeps its room. */
  readonly clear: string;
}

export const light: Tokens = {
  paper: '#F4F1EA',
  raised: '#FBF9F4',
  line: '#D8D2C4',
  ink: '#1C2B33',
  softInk: '#4F5E65',
  bound: '#D3DEDA',
  seen: '#8FB3AB',
  trace: '#123F4A',
  wanted: '#A84C17',
  error: '#A3262A',
  warning: '#7A5600',
  good: '#2F6B3A',
  clear: 'transparent',
};

export const dark: Tokens = {
  paper: '#10181C',
  raised: '#18232A',
  line: '#33424A',
  ink: '#ECE7DB',
  softInk: '#A9B6BA',
  bound: '#22373B',
  seen: '#3E6E6D',
  trace: '#BFE3DA',
  wanted: '#F0A265',
  error: '#FF8F87',
  warning: '#E6BE5A',
  good: '#8CCB95',
  clear: 'transparent',
};

const variable = (name: string): string => `--${name.replace(/[A-Z]/g, (c) => `-${c.toLowerCase()}`)}`;

export const cssVariables = (tokens: Tokens): Record<string, string> =>
  Object.fromEntries(Object.entries(tokens).map(([name, value]) => [variable(name), value]));

/** A token as a CSS value: `ink.softInk` is `var(--soft-ink)`. */
export const ink = Object.fromEntries(
  Object.keys(light).map((name) => [name, `var(${variable(name)})`]),
) as unknown as Tokens;

export const fonts = {
  text: '"Atkinson Hyperlegible Next Variable", sans-serif',
  numbers: '"Atkinson Hyperlegible Mono Variable", monospace',
} as const;

/** The look of the small headings over parts of a screen. */
export const headingStyle = { fontSize: 12, fontWeight: 700, color: ink.softInk, m: 0 } as const;
