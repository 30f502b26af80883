/** News that are drawn in turn: as they are at once, what changes so many frames later, and only the last of several. */
import { signal, type Signal, type WritableSignal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { framesLater } from './framesLater';

describe('framesLater', () => {
  const asked = new Map<number, FrameRequestCallback>();
  let handles = 0;

  /** One frame goes by. */
  function frame(): void {
    const now = [...asked.values()];
    asked.clear();
    for (const draw of now) draw(0);
  }

  beforeEach(() => {
    asked.clear();
    vi.stubGlobal('requestAnimationFrame', (draw: FrameRequestCallback) => {
      asked.set(++handles, draw);
      return handles;
    });
    vi.stubGlobal('cancelAnimationFrame', (handle: number) => asked.delete(handle));
  });
  afterEach(() => vi.unstubAllGlobals());

  function following(frames: number): { news: WritableSignal<string>; shown: Signal<string> } {
    const news = signal('none');
    return { news, shown: TestBed.runInInjectionContext(() => framesLater(news, frames)) };
  }

  it('shows what there is at once, and a change two frames later', () => {
    const { news, shown } = following(2);
    TestBed.tick();
    expect(shown()).toBe('none');
    news.set('a plan');
    TestBed.tick();
    frame();
    expect(shown()).toBe('none');
    frame();
    expect(shown()).toBe('a plan');
  });

  it('forgets what was overtaken before its turn', () => {
    const { news, shown } = following(1);
    TestBed.tick();
    frame();
    news.set('first');
    TestBed.tick();
    news.set('second');
    TestBed.tick();
    expect(asked.size).toBe(1);
    frame();
    expect(shown()).toBe('second');
  });
});
