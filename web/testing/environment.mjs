// A window for component tests: jsdom, and what it lacks of what browsers have.
import { TestEnvironment } from 'jest-environment-jsdom';

export default class extends TestEnvironment {
  async setup() {
    await super.setup();
    const { global } = this;
    Object.assign(global, { fetch, Request, Response, Headers, structuredClone, TextEncoder, TextDecoder });
    Object.assign(global, { IS_REACT_ACT_ENVIRONMENT: true });
    global.ResizeObserver ??= class {
      observe() {}
      unobserve() {}
      disconnect() {}
    };
    global.matchMedia ??= (media) =>
      Object.assign(new global.EventTarget(), { media, matches: false, addListener() {}, removeListener() {} });
    const { Element, Range } = global;
    Element.prototype.scrollIntoView ??= () => {};
    Element.prototype.hasPointerCapture ??= () => false;
    Element.prototype.setPointerCapture ??= () => {};
    Element.prototype.releasePointerCapture ??= () => {};
    Range.prototype.getClientRects ??= () => [];
    Range.prototype.getBoundingClientRect ??= () => new global.DOMRect();
  }
}
