import { minutesText } from '@yes-clear/core/quantity';
import { createGlobalState, useIntervalFn, useLocalStorage } from '@vueuse/core';
import { computed, ref } from 'vue';
import { useNotice } from './useNotice';

/** A wait that was begun: it ends by the clock, whatever becomes of the page. */
export interface Timer {
  readonly id: string;
  readonly systemId: string;
  /** What it is about, and where: "Flush the membrane", "Reef make-up". */
  readonly title: string;
  readonly place: string;
  /** Milliseconds of the clock. */
  readonly startedAt: number;
  readonly endsAt: number;
  /** Whether its end was told. */
  readonly told: boolean;
}

/** Timers long over are cleared away, ms. */
const KEEP_MS = 12 * 3_600_000;

/**
 * Several waits at once, kept in the browser and run by the clock: across steps, pages, reloads, a locked screen and a
 * closed tab. What ended meanwhile is told when the page is seen again.
 */
export const useTimers = createGlobalState(() => {
  const timers = useLocalStorage<Timer[]>('yes-clear-timers', []);
  const now = ref(Date.now());
  const notice = useNotice();
  function tick(): void {
    now.value = Date.now();
    const ended = timers.value.filter(({ endsAt, told }) => !told && endsAt <= now.value);
    if (ended.length > 0) {
      timers.value = timers.value.map((one) => (ended.includes(one) ? { ...one, told: true } : one));
      for (const one of ended) tell(one, now.value - one.endsAt);
    }
    if (timers.value.some(({ endsAt }) => endsAt < now.value - KEEP_MS))
      timers.value = timers.value.filter(({ endsAt }) => endsAt >= now.value - KEEP_MS);
  }
  function tell({ title, place }: Timer, lateMs: number): void {
    const late = lateMs > 60_000 ? `, ${spanText(lateMs / 1000)} ago` : '';
    notice.say(`Time is up${late}: ${title}, ${place}.`);
    navigator.vibrate?.([300, 150, 300, 150, 300]);
    beep();
    if ('Notification' in window && Notification.permission === 'granted')
      new Notification(`Time is up: ${title}`, { body: place, tag: title });
  }
  useIntervalFn(tick, 500, { immediateCallback: true });

  function start(timer: Pick<Timer, 'id' | 'systemId' | 'title' | 'place'>, seconds: number): void {
    // Sound and notification may only be asked for by a hand on the screen: this is one.
    readySound();
    if ('Notification' in window && Notification.permission === 'default') void Notification.requestPermission().catch(() => undefined);
    const startedAt = Date.now();
    now.value = startedAt;
    timers.value = [
      ...timers.value.filter(({ id }) => id !== timer.id),
      { ...timer, startedAt, endsAt: startedAt + 1000 * seconds, told: false },
    ];
  }
  const stop = (id: string): void => void (timers.value = timers.value.filter((one) => one.id !== id));
  return { timers: computed(() => timers.value), now, start, stop };
});

/** A stretch of time as a kitchen clock shows it: 44:59, 1:02:00. */
export function clockText(seconds: number): string {
  const whole = Math.max(0, Math.ceil(seconds));
  const [h, m, s] = [Math.floor(whole / 3600), Math.floor((whole % 3600) / 60), whole % 60];
  const two = (value: number): string => String(value).padStart(2, '0');
  return h > 0 ? `${h}:${two(m)}:${two(s)}` : `${m}:${two(s)}`;
}

/** A stretch of time in words. */
export const spanText = (seconds: number): string => minutesText(Math.round(seconds / 60));

let sound: AudioContext | null = null;
function readySound(): void {
  try {
    sound ??= new AudioContext();
    void sound.resume();
  } catch {
    sound = null;
  }
}
/** Three short tones, if this page may sound. */
function beep(): void {
  const context = sound;
  if (context?.state !== 'running') return;
  for (const at of [0, 0.35, 0.7]) {
    const [tone, loudness] = [context.createOscillator(), context.createGain()];
    tone.frequency.value = 880;
    loudness.gain.value = 0.25;
    tone.connect(loudness).connect(context.destination);
    tone.start(context.currentTime + at);
    tone.stop(context.currentTime + at + 0.18);
  }
}
