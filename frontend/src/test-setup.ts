import 'fake-indexeddb/auto';
import '@testing-library/jest-dom/vitest';
import { cleanup } from '@testing-library/react';
import { afterEach } from 'vitest';

afterEach(cleanup);

// jsdom lays nothing out, and has nothing to bring into sight.
Element.prototype.scrollIntoView = () => undefined;
