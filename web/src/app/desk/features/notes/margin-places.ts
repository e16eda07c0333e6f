/** Something that is to stand in the margin, as high as it is, beside a place. */
export interface InMargin {
  readonly key: string;
  /** Where its top should be, and how high it is: CSS pixels from the top of the margin. */
  readonly wanted: number;
  readonly height: number;
}

/**
 * Where things stand in the margin: in the order of their places, none over another, each as near to its place as the
 * others leave it, none above `from`. What is `first` among them stands just there, if there is room above it.
 */
export function placesInMargin(
  items: readonly InMargin[],
  gap: number,
  first?: string,
  from = 0,
): ReadonlyMap<string, number> {
  const sorted = [...items].sort(
    (a, b) => a.wanted - b.wanted || (a.key < b.key ? -1 : a.key > b.key ? 1 : 0),
  );
  const tops = sorted.map(({ wanted }) => wanted);
  const at = sorted.findIndex(({ key }) => key === first);
  if (at >= 0)
    for (let i = at - 1; i >= 0; i--)
      tops[i] = Math.min(tops[i], tops[i + 1] - gap - sorted[i].height);
  let free = from;
  sorted.forEach(({ height }, i) => {
    tops[i] = Math.max(tops[i], free);
    free = tops[i] + height + gap;
  });
  return new Map(sorted.map(({ key }, i) => [key, tops[i]]));
}
