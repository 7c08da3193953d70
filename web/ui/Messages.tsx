import { createContext, useCallback, useContext, useMemo, useRef, useState, type ReactNode } from 'react';
import { flushSync } from 'react-dom';
import { Toast } from 'radix-ui';

interface Message {
  readonly id: number;
  readonly text: string;
  readonly bad: boolean;
  readonly action?: { readonly label: string; readonly run: () => void };
}

export interface Messages {
  tell(text: string, action?: Message['action']): void;
  warn(text: string): void;
}

const Context = createContext<Messages>({ tell: () => undefined, warn: () => undefined });
export const useMessages = (): Messages => useContext(Context);

const LINGER = 7_000;

/** What hears of Escape by itself once the message is gone, but not before it has been drawn anew. */
const OPEN = '[role=dialog], [role=alertdialog], [data-radix-popper-content-wrapper]';

/**
 * A message lies above whatever else is open and hears of Escape first; pressed elsewhere, the key means that else. The
 * message goes, and the key is pressed again for the others: at once, before the next key, unless something is open below.
 */
function passOn(event: KeyboardEvent, drop: () => void): void {
  const { target } = event;
  if (!(target instanceof Element) || target.closest('[data-messages]')) return;
  event.preventDefault();
  event.stopPropagation();
  flushSync(drop);
  const again = new KeyboardEvent('keydown', { key: 'Escape', bubbles: true, cancelable: true });
  if (document.querySelector(OPEN)) setTimeout(() => target.dispatchEvent(again));
  else target.dispatchEvent(again);
}

/** Short messages at the foot of the window, with a way to take back what was done. */
export function MessagesProvider({ children }: { children: ReactNode }) {
  const [messages, setMessages] = useState<readonly Message[]>([]);
  const last = useRef(0);
  const add = useCallback((text: string, bad: boolean, action?: Message['action']) => {
    const message = { id: ++last.current, text, bad, ...(action ? { action } : {}) };
    // What is said once more stands there once; what can be taken back stays as often as it was done.
    setMessages((before) => [...before.filter((m) => m.action || m.text !== text).slice(-1), message]);
  }, []);
  const api = useMemo<Messages>(
    () => ({ tell: (text, action) => add(text, false, action), warn: (text) => add(text, true) }),
    [add],
  );
  const drop = (id: number) => setMessages((before) => before.filter((m) => m.id !== id));
  return (
    <Context.Provider value={api}>
      <Toast.Provider duration={LINGER} swipeDirection="down" label="Message">
        {children}
        {messages.map((m) => (
          <Toast.Root
            key={m.id}
            onOpenChange={(open) => !open && drop(m.id)}
            onEscapeKeyDown={(event) => passOn(event, () => drop(m.id))}
            duration={m.bad ? LINGER * 2 : LINGER}
            className={`over flex items-baseline gap-5 px-4 py-2.5 ${m.bad ? 'border-l-4 border-l-brick' : ''}`}
          >
            <Toast.Description className="max-w-[52ch]">{m.text}</Toast.Description>
            {m.action && (
              <Toast.Action altText={m.action.label} asChild>
                <button className="act" onClick={m.action.run}>
                  {m.action.label}
                </button>
              </Toast.Action>
            )}
            <Toast.Close aria-label="Close message" className="text-faint">
              ×
            </Toast.Close>
          </Toast.Root>
        ))}
        <Toast.Viewport
          data-messages
          className="fixed bottom-16 left-1/2 z-50 flex w-max max-w-[94vw] -translate-x-1/2 flex-col gap-2"
        />
      </Toast.Provider>
    </Context.Provider>
  );
}
