/** The tab's memory, also where a browser forbids it or has no more room. */
import { afterEach, describe, expect, it, vi } from 'vitest';
import { forget, recall, remember } from './tabMemory';

const stored = (): Storage => {
  const map = new Map<string, string>();
  return {
    getItem: (k: string) => map.get(k) ?? null,
    setItem: (k: string, v: string) => void map.set(k, v),
    removeItem: (k: string) => void map.delete(k),
  } as unknown as Storage;
};

afterEach(() => vi.unstubAllGlobals());

describe('a tab', () => {
  it('remembers, and forgets', () => {
    vi.stubGlobal('sessionStorage', stored());
    remember('a', '1');
    expect(recall('a')).toBe('1');
    forget('a');
    expect(recall('a')).toBeNull();
  });

  it('goes on without a memory that is forbidden', () => {
    const kept = Object.getOwnPropertyDescriptor(globalThis, 'sessionStorage');
    Object.defineProperty(globalThis, 'sessionStorage', {
      configurable: true,
      get: () => {
        throw new DOMException('denied', 'SecurityError');
      },
    });
    remember('a', '1');
    forget('a');
    expect(recall('a')).toBeNull();
    if (kept) Object.defineProperty(globalThis, 'sessionStorage', kept);
    else Reflect.deleteProperty(globalThis, 'sessionStorage');
  });

  it('goes on when it is full', () => {
    const full = stored();
    full.setItem = () => {
      throw new DOMException('full', 'QuotaExceededError');
    };
    vi.stubGlobal('sessionStorage', full);
    remember('a', '1');
    expect(recall('a')).toBeNull();
  });
});
