import { fail, ok, type Outcome } from '@yes-clear/core/quantity';
import { z } from 'zod';
import { getCurrentScope, onScopeDispose, shallowRef, type ShallowRef } from 'vue';
import type { Caught } from '../store/air';

/** Where the server tells what is on the air, and where it streams it; see docs/meters.md. */
export const METERS = '/api/meters';
export const METERS_STREAM = `${METERS}/stream`;
export const AIR_CHANNEL = 'yes-clear-air';

/** What the listening worker tells every page. */
export type AirNews =
  | { readonly kind: 'heard'; readonly figures: readonly Caught[] }
  | { readonly kind: 'state'; readonly state: 'listening' | 'lost' | 'garbled' | 'full'; readonly says: string }
  | { readonly kind: 'gap'; readonly from: number; readonly until: number };

/** A meter on the air, as the server tells of it. */
export interface OnAir {
  readonly name: string;
  readonly title: string;
  readonly unit: string;
}
export interface WhatIsOnAir {
  readonly name: string;
  readonly simulated: boolean;
  readonly sensors: readonly OnAir[];
  /** What was sent last and could not be taken, and why; empty where all is well. */
  readonly refused: string;
}

/** A server that takes longer is taken for one that hangs, ms. */
const ANSWERS_WITHIN_MS = 10_000;

/** Asks the server what is on the air; an error says why it is not known. */
export async function whatIsOnAir(): Promise<Outcome<WhatIsOnAir>> {
  const none = (why: string): Outcome<WhatIsOnAir> => fail('meters', null, 'a server that has meters', why);
  try {
    const response = await fetch(METERS, { headers: { Accept: 'application/json' }, signal: AbortSignal.timeout(ANSWERS_WITHIN_MS) });
    const data = (await response.json()) as unknown;
    if (!response.ok) return none((data as { message?: string }).message ?? 'The server has no meters.');
    const found = onAirSchema.safeParse(data);
    return found.success ? ok(found.data) : none('What the server says of its meters is not understood.');
  } catch {
    return none('The server that has the meters does not answer. Once it does, they are listed here.');
  }
}
const onAirSchema = z.object({
  name: z.string().max(120),
  simulated: z.boolean().default(false),
  refused: z.string().max(2000).default(''),
  sensors: z.array(z.object({ name: z.string().min(1).max(200), title: z.string().max(120), unit: z.string().max(40) })).max(500),
});

/** What a system's meters said last, and whether they are heard. */
export interface Air {
  readonly figures: ShallowRef<ReadonlyMap<string, Caught>>;
  readonly state: ShallowRef<Extract<AirNews, { kind: 'state' }> | null>;
  readonly gap: ShallowRef<Extract<AirNews, { kind: 'gap' }> | null>;
}

/** Follows the meters of one system for as long as the component lives. */
export function useAir(systemId: string): Air {
  const air: Air = { figures: shallowRef(new Map()), state: shallowRef(null), gap: shallowRef(null) };
  const news = new BroadcastChannel(AIR_CHANNEL);
  news.onmessage = ({ data }: MessageEvent<AirNews>) => {
    if (data.kind === 'state') air.state.value = data;
    else if (data.kind === 'gap') air.gap.value = data;
    else {
      const own = data.figures.filter((one) => one.systemId === systemId);
      if (own.length > 0) air.figures.value = new Map([...air.figures.value, ...own.map((one) => [one.channel, one] as const)]);
    }
  };
  if (getCurrentScope()) onScopeDispose(() => news.close());
  return air;
}
