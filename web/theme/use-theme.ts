import { useSyncExternalStore } from 'react';

export type Theme = 'day' | 'night';
const KEY = 'avrelle.theme';
const listeners = new Set<() => void>();

function current(): Theme {
  const chosen = localStorage.getItem(KEY);
  if (chosen === 'day' || chosen === 'night') return chosen;
  return matchMedia('(prefers-color-scheme: dark)').matches ? 'night' : 'day';
}

export function applyTheme(theme: Theme = current()): void {
  document.documentElement.dataset.theme = theme;
}

export function setTheme(theme: Theme): void {
  localStorage.setItem(KEY, theme);
  applyTheme(theme);
  for (const listener of listeners) listener();
}

/** The theme in force: the person's choice on this device, else what the device prefers. */
export function useTheme(): Theme {
  return useSyncExternalStore((listener) => {
    listeners.add(listener);
    return () => listeners.delete(listener);
  }, current);
}
