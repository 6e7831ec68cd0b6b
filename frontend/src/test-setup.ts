import 'fake-indexeddb/auto';
import '@testing-library/jest-dom/vitest';
import { cleanup } from '@testing-library/react';
import { afterEach } from 'vitest';

afterEach(cleanup);

// jsdom lays nothing out, and has nothing to bring into sight.
Element.prototype.scrollIntoView = () => undefined;

// Nor does anything in it change its size.
window.ResizeObserver = class {
  observe = () => undefined;
  unobserve = () => undefined;
  disconnect = () => undefined;
};

// Nor has it a width: what asks for one is shown as on a panel.
window.matchMedia = (media: string) =>
  Object.assign(new EventTarget(), { media, matches: false }) as MediaQueryList;
