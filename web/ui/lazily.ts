import { lazy, type ComponentType, type LazyExoticComponent } from 'react';

/** A part whose code is fetched when it is first shown, or before. */
export function lazily<Props extends object>(
  load: () => Promise<{ default: ComponentType<Props> }>,
): LazyExoticComponent<ComponentType<Props>> & { fetchCode(): Promise<unknown> } {
  type Code = { default: ComponentType<Props> };
  let code: Code | undefined;
  const fetchCode = async (): Promise<Code> => (code = await load());
  // What is there is handed over at once: React holds back for a third of a second what it has to wait for.
  const there = { then: (show: (code: Code) => void) => show(code!) } as unknown as Promise<Code>;
  return Object.assign(
    lazy(() => (code ? there : fetchCode())),
    { fetchCode },
  );
}
