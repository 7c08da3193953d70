import { PIGMENTS } from '@avrelle/core/legend';
import { isColour, TOOLS, type Tool } from '@avrelle/core/ink';

/** What the hand holds: something that draws, what takes it away, or nothing, to move what was drawn. */
export const HELD = ['move', ...TOOLS, 'eraser'] as const;
export type Held = (typeof HELD)[number];

export const HELD_WORDS: Readonly<Record<Held, string>> = {
  move: 'Move',
  pen: 'Pen',
  broad: 'Broad pen',
  line: 'Line',
  arrow: 'Arrow',
  box: 'Box',
  ellipse: 'Ellipse',
  text: 'Words',
  sign: 'Sign',
  eraser: 'Eraser',
};
export const HELD_HINTS: Readonly<Record<Held, string>> = {
  move: 'Choose what you drew and drag it, or move it with the arrow keys',
  pen: 'Draw by hand',
  broad: 'Draw broadly, with the words showing through',
  line: 'Drag a line',
  arrow: 'Drag an arrow to where it points',
  box: 'Drag a box',
  ellipse: 'Drag an ellipse',
  text: 'Click where the words should go',
  sign: 'Click where the sign should go',
  eraser: 'Rub out what you drew',
};

export const SWATCHES: readonly string[] = ['ink', ...PIGMENTS];
/** Widths in pixels as drawn: least, most; for words and signs the height of letters. */
export const WIDTHS: Readonly<Record<Held, readonly [number, number]>> = {
  move: [1, 40],
  pen: [1, 12],
  broad: [6, 48],
  line: [1, 16],
  arrow: [1, 16],
  box: [1, 16],
  ellipse: [1, 16],
  text: [12, 64],
  sign: [14, 72],
  eraser: [6, 60],
};

export interface Settings {
  readonly tool: Held;
  readonly colour: string;
  readonly widths: Readonly<Record<Held, number>>;
}

export const USUAL: Settings = {
  tool: 'pen',
  colour: 'ink',
  widths: { move: 2, pen: 3, broad: 18, line: 2, arrow: 2, box: 2, ellipse: 2, text: 20, sign: 26, eraser: 18 },
};

const STORED = 'avrelle.drawing';

/** As they were left; what is missing or out of bounds is as usual. */
export function readSettings(stored: string | null = localStorage.getItem(STORED)): Settings {
  try {
    const { tool, colour, widths } = JSON.parse(stored ?? '{}') as Partial<Settings>;
    const width = (held: Held): number => {
      const kept = widths?.[held];
      const [least, most] = WIDTHS[held];
      return typeof kept === 'number' && kept >= least && kept <= most ? kept : USUAL.widths[held];
    };
    return {
      tool: HELD.includes(tool as Held) ? tool! : USUAL.tool,
      colour: isColour(colour) ? colour : USUAL.colour,
      widths: Object.fromEntries(HELD.map((held) => [held, width(held)])) as Record<Held, number>,
    };
  } catch {
    return USUAL;
  }
}

export const keepSettings = (settings: Settings): void => localStorage.setItem(STORED, JSON.stringify(settings));

function fullColour(colour: string): string {
  if (colour.startsWith('#')) return colour;
  return colour === 'ink' ? 'var(--ink)' : `var(--${colour}-line)`;
}

/** As CSS: the role of a pigment, so that night has its own tone, or the very colour chosen. The broad pen is paler: words show through. */
export function cssColour(colour: string, tool?: Held): string {
  const full = fullColour(colour);
  if (tool !== 'broad') return full;
  return colour.startsWith('#') || colour === 'ink'
    ? `color-mix(in srgb, ${full} 34%, var(--sheet))`
    : `color-mix(in srgb, var(--${colour}) 84%, ${full})`;
}

/** Whether it draws something. */
export const isInk = (held: Held): held is Tool => held !== 'move' && held !== 'eraser';

export const isFreehand = (tool: Held): boolean => tool === 'pen' || tool === 'broad';
export const isPlaced = (tool: Held): boolean => tool === 'text' || tool === 'sign';
