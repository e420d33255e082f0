import { readSenml, type Heard } from '@yes-clear/core/recording';
import type { Request, Response } from 'express';
import { connect, type MqttClient } from 'mqtt';
import type { BrokerAddress } from './brokerAddress';
import { BEAT, BEAT_MS, beginEvents, gapEvent, lastHeard, packEvent, written } from './stream';

/**
 * Meters that speak by a broker (MQTT): packs of SenML published under topics, remembered for two days and streamed like
 * those of a gateway. See docs/meters.md.
 */

/** What is remembered: as long, and as many packs at most. */
const MEMORY_MS = 48 * 3_600_000;
const MOST_PACKS = 200_000;
/** A message longer than this is no pack of a meter, bytes. */
const LONGEST = 256 * 1024;
const MOST_SENSORS = 500;

interface Kept {
  /** Instant it came, ms, later than any before: what a browser goes on from. */
  readonly id: number;
  readonly records: readonly object[];
}

/** A pack as it came, its names those of its topic where it says none. */
function namedBy(topic: string, data: unknown): unknown {
  if (!Array.isArray(data)) return data;
  const isNamed = data.some((one) => typeof one === 'object' && one !== null && ('n' in one || 'bn' in one));
  const [first, ...rest] = data as unknown[];
  return isNamed || typeof first !== 'object' || first === null ? data : [{ ...first, bn: topic }, ...rest];
}

/** Figures with all said of each: whoever reads them later counts no time from then. */
const resolved = (heard: readonly Heard[]): object[] =>
  heard.map(({ name, unit, atMs, value, sum }) => ({
    n: name,
    t: atMs / 1000,
    ...(unit === null ? {} : { u: unit }),
    ...(value === null ? {} : { v: value }),
    ...(sum === null ? {} : { s: sum }),
  }));

/** What a broker's meters said, and who listens. */
export class BrokerMeters {
  private readonly packs: Kept[] = [];
  private readonly startedMs = Date.now();
  private readonly units = new Map<string, string>();
  /** Who waits for the next pack. */
  private readonly listening = new Set<() => void>();
  private readonly client: MqttClient;
  /** The last message that could not be taken, and why. */
  refused = '';
  connected = false;

  constructor(private readonly address: BrokerAddress) {
    this.client = connect(address.url, { reconnectPeriod: 3000, connectTimeout: 10_000, clean: true });
    this.client.on('connect', () => {
      this.connected = true;
      this.client.subscribe(address.topics, { qos: 1 });
    });
    this.client.on('close', () => (this.connected = false));
    // Told by the state it leads to; the client goes on trying.
    this.client.on('error', () => undefined);
    this.client.on('message', (topic, payload, { retain }) => this.hear(topic, payload, retain));
  }

  private hear(topic: string, payload: Buffer, isRetained: boolean): void {
    if (payload.length > LONGEST) {
      this.refused = `${topic}: ${payload.length} bytes; accepted are up to ${LONGEST}`;
      return;
    }
    let data: unknown;
    try {
      data = JSON.parse(payload.toString('utf8'));
    } catch {
      this.refused = `${topic}: no JSON`;
      return;
    }
    const now = Date.now();
    const read = readSenml(namedBy(topic, data), now);
    if (!read.ok) {
      this.refused = `${topic}: ${read.error.message}`;
      return;
    }
    const [mistimed] = read.value.mistimed;
    if (mistimed) this.refused = `${topic}: ${mistimed.says}`;
    // What a broker kept from before and bears no time of its own was read nobody knows when.
    const heard = isRetained ? read.value.heard.filter(({ atMs }) => atMs !== now) : read.value.heard;
    if (heard.length === 0) return;
    for (const { name, unit } of heard) if (this.units.size < MOST_SENSORS || this.units.has(name)) this.units.set(name, unit ?? '');
    const pack = { id: Math.max(now, (this.packs.at(-1)?.id ?? 0) + 1), records: resolved(heard) };
    this.packs.push(pack);
    // The newest is never too old: what is goes from the front, without looking through the rest.
    const kept = this.packs.findIndex(({ id }) => id >= now - MEMORY_MS);
    this.packs.splice(0, Math.max(kept, this.packs.length - MOST_PACKS));
    for (const wake of this.listening) wake();
  }

  /** Who is heard: by name, with the unit each sends in. */
  get sensors(): { readonly name: string; readonly title: string; readonly unit: string }[] {
    return [...this.units].map(([name, unit]) => ({ name, title: name, unit })).sort((a, b) => a.name.localeCompare(b.name));
  }
  get name(): string {
    const { host } = new URL(this.address.url.replace(/^mqtt/, 'http'));
    return `${host}/${this.address.topics}`.slice(0, 120);
  }

  /** Packs after an id: they lie at the end. */
  private after(id: number): Kept[] {
    let from = this.packs.length;
    while (from > 0 && this.packs[from - 1]!.id > id) from -= 1;
    return this.packs.slice(from);
  }

  /** Streams what came after an id, and then each pack as it comes, as fast as it is taken. */
  async stream(request: Request, response: Response): Promise<void> {
    let open = true;
    let wake = (): void => undefined;
    const told = (): void => wake();
    this.listening.add(told);
    const beat = setInterval(() => response.write(BEAT), BEAT_MS);
    response.once('close', () => {
      open = false;
      clearInterval(beat);
      this.listening.delete(told);
      wake();
    });
    beginEvents(response);
    response.write('retry: 2000\n\n');
    const asked = lastHeard(request);
    // Nothing is remembered from before the first pack kept, or before this server was started.
    const from = this.packs.length < MOST_PACKS ? Math.max(this.startedMs, Date.now() - MEMORY_MS) : this.packs[0]!.id;
    if (asked !== null && asked < from) response.write(gapEvent(asked, from));
    let last = asked ?? this.packs.at(-1)?.id ?? 0;
    while (open) {
      const due = this.after(last);
      for (const pack of due) {
        if (!open) break;
        last = pack.id;
        await written(response, packEvent(pack.id, pack.records));
      }
      if (due.length === 0) await new Promise<void>((done) => (wake = done));
    }
  }
  end(): Promise<void> {
    return this.client.endAsync(true);
  }
}
