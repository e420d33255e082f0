/** A number from 0 up to 1 that belongs to a name and a place in time: the same whenever it is asked for. */
export function chanceAt(name: string, tick: number): number {
  let hash = 2_166_136_261;
  for (const text of [name, String(tick)]) for (let i = 0; i < text.length; i++) hash = Math.imul(hash ^ text.charCodeAt(i), 16_777_619);
  hash = Math.imul(hash ^ (hash >>> 15), 0x2c1b3c6d);
  hash = Math.imul(hash ^ (hash >>> 12), 0x297a2d39);
  return ((hash ^ (hash >>> 15)) >>> 0) / 4_294_967_296;
}

/** A normal scatter about 0, standard deviation 1, of a name at a place in time (Box and Muller 1958, recalled). */
export const scatterAt = (name: string, tick: number): number =>
  Math.sqrt(-2 * Math.log(1 - chanceAt(name, tick))) * Math.cos(2 * Math.PI * chanceAt(`${name}'`, tick));

/** A scatter that changes slowly: from one place of a coarse grid to the next in a line. */
export function slowScatter(name: string, ms: number, gridMs: number): number {
  const at = ms / gridMs;
  const before = Math.floor(at);
  const share = at - before;
  return (1 - share) * scatterAt(name, before) + share * scatterAt(name, before + 1);
}
