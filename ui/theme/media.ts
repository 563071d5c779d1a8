import { cssVariables } from './tokens';
import type { Tokens } from './tokens';

/** On paper: black on white, whatever the screen is. */
const printed: Tokens = {
  paper: '#FFFFFF',
  raised: '#FFFFFF',
  line: '#B5B5B5',
  ink: '#000000',
  softInk: '#333333',
  bound: '#E6E6E6',
  seen: '#BDBDBD',
  trace: '#000000',
  wanted: '#000000',
  error: '#000000',
  warning: '#000000',
  good: '#000000',
  clear: 'transparent',
};

/** Where people choose the colours themselves: theirs, and mixtures of the two of text. */
const forced: Tokens = {
  paper: 'Canvas',
  raised: 'Canvas',
  line: 'color-mix(in srgb, CanvasText 35%, Canvas)',
  ink: 'CanvasText',
  softInk: 'CanvasText',
  bound: 'color-mix(in srgb, CanvasText 15%, Canvas)',
  seen: 'color-mix(in srgb, CanvasText 40%, Canvas)',
  trace: 'CanvasText',
  wanted: 'Highlight',
  error: 'CanvasText',
  warning: 'CanvasText',
  good: 'CanvasText',
  // A transparent border is drawn as any other there.
  clear: 'Canvas',
};

/** What is chosen, on, or filled stands out by its ground alone, which forced colours take away. */
const CHOSEN = [
  '.MuiToggleButton-root.Mui-selected',
  '.MuiButton-root[aria-pressed=true]',
  '.MuiChip-root[aria-pressed=true]',
  '.MuiButton-contained',
];
const FILLED = ['.MuiTabs-indicator', '.MuiSlider-track', '.MuiSlider-thumb', '.MuiLinearProgress-bar'];

/**
 * All that moves by itself. Not everything there is: an element of which a transition is said, be it none, takes a
 * browser several times as long to style.
 */
const MOVING = [
  '.MuiAccordion-root',
  '.MuiAccordion-root::before',
  '.MuiAccordionSummary-content',
  '.MuiAccordionSummary-expandIconWrapper',
  '.MuiBackdrop-root',
  '.MuiButtonBase-root',
  '.MuiChip-root',
  '.MuiCollapse-root',
  '.MuiDialog-container',
  '.MuiFormLabel-root',
  '.MuiInputBase-input',
  '.MuiInputBase-root',
  '.MuiLinearProgress-root *',
  '.MuiOutlinedInput-notchedOutline',
  '.MuiOutlinedInput-notchedOutline *',
  '.MuiPaper-root',
  '.MuiPopper-root *',
  '.MuiSkeleton-root',
  '.MuiSkeleton-root::after',
  '.MuiSlider-root',
  '.MuiSlider-root *',
  '.MuiSnackbar-root',
  '.MuiSvgIcon-root',
  '.MuiSwitch-root *',
  '.MuiTableSortLabel-root *',
  '.MuiTabs-root *',
];

const declared = (rules: Readonly<Record<string, string>>): string =>
  Object.entries(rules)
    .map(([name, value]) => `${name}:${value}`)
    .join(';');

/** The tokens of either scheme, before those of the theme. */
const tokens = (of: Tokens, more = ''): string => `html:root,html:root.dark{${declared(cssVariables(of))}${more}}`;

const media = (query: string, ...rules: readonly string[]): string => `@media ${query}{${rules.join('')}}`;

/**
 * How pages differ on paper, in colours that people force upon all pages, and where nothing may move. It comes with the
 * page, not with its scripts.
 */
export const mediaStyles = [
  media(
    'print',
    tokens(printed, ';color-scheme:light'),
    'html,body{background:#FFFFFF!important;color:#000000!important}',
    '[data-no-print]{display:none!important}',
    '[data-sheet-of-paper]{height:auto!important;overflow:visible!important;display:block!important}',
  ),
  media(
    '(forced-colors:active)',
    tokens(forced),
    // Else text gets a ground of its own, and nothing is left of it.
    `${CHOSEN.join()}{forced-color-adjust:none;background-color:Highlight!important;color:HighlightText!important}`,
    `${FILLED.join()}{background-color:Highlight!important}`,
    '.MuiSlider-rail{background-color:CanvasText!important}',
  ),
  media('(prefers-reduced-motion:reduce)', `${MOVING.join()}{transition:none!important;animation:none!important}`),
].join('');
