import { useEffect, useMemo, useState } from 'react';
import { HELD, keepSettings, readSettings, type Held, type Settings } from './tools';

export interface ToolSettings {
  readonly tool: Held;
  readonly colour: string;
  /** Of this tool, in pixels. */
  readonly width: number;
  hold(tool: Held): void;
  setColour(colour: string): void;
  setWidth(width: number): void;
}

/** What the hand holds, its colour and its width; kept on this device. */
export function useToolSettings(): ToolSettings {
  const [settings, setSettings] = useState<Settings>(readSettings);
  useEffect(() => keepSettings(settings), [settings]);
  const { tool, colour, widths } = settings;
  return useMemo(
    () => ({
      tool,
      colour,
      width: widths[tool],
      hold: (to) => setSettings((s) => ({ ...s, tool: to })),
      setColour: (to) => setSettings((s) => ({ ...s, colour: to })),
      setWidth: (to) => setSettings((s) => ({ ...s, widths: { ...s.widths, [s.tool]: to } })),
    }),
    [tool, colour, widths],
  );
}

/** The tool of a digit: its place in the strip; undefined for a key that is none. */
export const toolOf = (digit: string): Held | undefined =>
  /^\d$/.test(digit) ? HELD[(Number(digit) + HELD.length - 1) % HELD.length] : undefined;
