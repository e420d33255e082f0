/** Lists whose members are told apart by their ids. */

export const byId = <T extends { readonly id: string }>(list: readonly T[]): Map<string, T> => new Map(list.map((one) => [one.id, one]));

/** Members of both lists; of one id the first list's. */
export const union = <T extends { readonly id: string }>(first: readonly T[], then: readonly T[]): T[] => {
  const known = byId(first);
  return [...first, ...then.filter((one) => !known.has(one.id))];
};

/** Members only the first list has. */
export const onlyIn = <T extends { readonly id: string }>(list: readonly T[], other: readonly T[]): T[] => {
  const known = byId(other);
  return list.filter(({ id }) => !known.has(id));
};
