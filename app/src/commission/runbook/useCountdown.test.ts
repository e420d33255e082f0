import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { effectScope, type EffectScope } from 'vue';
import { useCountdown } from './useCountdown';

let scope: EffectScope;
beforeEach(() => {
  vi.useFakeTimers({ now: 0 });
  vi.stubGlobal('navigator', { vibrate: vi.fn() });
  scope = effectScope();
});
afterEach(() => {
  scope.stop();
  vi.useRealTimers();
});
const countdown = (seconds: number): ReturnType<typeof useCountdown> => scope.run(() => useCountdown(() => seconds))!;

describe('the countdown', () => {
  it('counts by the clock and says when both jugs must go', () => {
    const timer = countdown(60);
    timer.start();
    expect([timer.running.value, timer.left.value]).toEqual([true, 60]);
    vi.advanceTimersByTime(20_400);
    expect(timer.left.value).toBe(40);
    vi.advanceTimersByTime(40_000);
    expect([timer.running.value, timer.left.value, timer.finished.value]).toEqual([false, 0, true]);
    expect(navigator.vibrate).toHaveBeenCalled();
  });
  it('is right even when the tab slept', () => {
    const timer = countdown(60);
    timer.start();
    vi.setSystemTime(55_000);
    vi.advanceTimersByTime(200);
    expect(timer.left.value).toBe(5);
  });
  it('stops when asked, and starts anew', () => {
    const timer = countdown(30);
    timer.toggle();
    timer.toggle();
    expect([timer.running.value, timer.finished.value]).toEqual([false, false]);
    timer.toggle();
    expect(timer.left.value).toBe(30);
  });
});
