/** Where listeners run in a frame without scripting (all engines but WebKit), it stays without. */
const WITHOUT_SCRIPTING = 'allow-same-origin';
/** WebKit calls no listener in such a frame, not even ours; by `script-src 'none'` the page still runs nothing of its own. */
const WITH_LISTENERS = 'allow-same-origin allow-scripts';

let found: string | undefined;

/**
 * The `sandbox` of a frame for a captured page, as tight as this browser lets us listen in it. Found out by trying, once:
 * whether a listener of ours is called in an empty frame without scripting. Needs a document with a body.
 */
export function frameSandbox(): string {
  found ??= isHeardWithoutScripting() ? WITHOUT_SCRIPTING : WITH_LISTENERS;
  return found;
}

function isHeardWithoutScripting(): boolean {
  const frame = document.createElement('iframe');
  frame.setAttribute('sandbox', WITHOUT_SCRIPTING);
  frame.hidden = true;
  document.body.append(frame);
  try {
    const inner = frame.contentDocument;
    if (!inner) return true;
    let isHeard = false;
    inner.addEventListener('try', () => {
      isHeard = true;
    });
    inner.dispatchEvent(new Event('try'));
    return isHeard;
  } finally {
    frame.remove();
  }
}
