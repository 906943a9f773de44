import { cleanup } from '@testing-library/react';
import { afterEach, vi } from 'vitest';

// What the component library asks of a browser, and a page without layout does not have.
vi.stubGlobal(
  'ResizeObserver',
  class {
    observe(): void {}
    unobserve(): void {}
    disconnect(): void {}
  },
);
afterEach(cleanup);
