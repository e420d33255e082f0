/** Why a write came to nothing, and what a person can do about it. */
export interface NotKept {
  readonly reason: string;
  readonly remedy: string;
}

/** Said where a system that is being worked on has been removed elsewhere. */
export class SystemGone extends Error {
  override readonly name = 'SystemGone';
}
/** Said where a value does not fit the model: the store takes nothing that could not be opened from a file. */
export class DoesNotFit extends Error {
  override readonly name = 'DoesNotFit';
}

const REASONS: Readonly<Record<string, NotKept>> = {
  QuotaExceededError: {
    reason: 'the browser’s storage is full',
    remedy: 'Free some space on this device, or save everything to a file; what you typed stays here until it is kept.',
  },
  NewerDatabase: {
    reason: 'a newer Yes Clear has been at work in this browser',
    remedy: 'Reload this page to get it; nothing was overwritten.',
  },
  DatabaseClosedError: {
    reason: 'a newer Yes Clear has taken over in another tab, or the browser closed the store',
    remedy: 'Save what you see to a file if it matters, then reload this page.',
  },
  MissingAPIError: {
    reason: 'this browser offers no storage (private windows often do not)',
    remedy: 'Open Yes Clear in an ordinary window, or save everything to a file before closing this one.',
  },
  SystemGone: {
    reason: 'this system was removed in another tab',
    remedy: 'Bring it back, or leave it; nothing else was touched.',
  },
};

const innerOf = (error: unknown): unknown => (typeof error === 'object' && error !== null && 'inner' in error ? error.inner : null);
const nameOf = (error: unknown): string => (typeof error === 'object' && error !== null && 'name' in error ? String(error.name) : '');

/** An error as it can leave a worker, where what lies within it is left behind: under the name it is known by. */
export function asKnown(error: unknown): Error {
  for (let at: unknown = error; at; at = innerOf(at))
    if (REASONS[nameOf(at)] || nameOf(at) === 'DoesNotFit')
      return Object.assign(new Error(at instanceof Error ? at.message : ''), { name: nameOf(at) });
  return error instanceof Error ? error : new Error(String(error));
}

/** Puts an error of the store into words. */
export function whyNotKept(error: unknown): NotKept {
  for (let at: unknown = error; at; at = innerOf(at)) {
    const known = REASONS[nameOf(at)];
    if (known) return known;
    if (nameOf(at) === 'DoesNotFit')
      return { reason: (at as Error).message, remedy: 'Mend it where it stands; the last good value is kept.' };
    // Some browsers bury the full disk in the text alone.
    if (/quota|disk is full|no space/i.test(at instanceof Error ? at.message : '')) return REASONS['QuotaExceededError']!;
  }
  const said = error instanceof Error && error.message !== '' ? error.message.split('\n')[0]! : nameOf(error) || 'no reason given';
  return { reason: `the browser’s store refused it (${said})`, remedy: 'Try again; if it stays, save everything to a file and reload.' };
}
