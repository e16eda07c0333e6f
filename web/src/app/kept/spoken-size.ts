/** A size as people say it, in the units of ten that disks are sold by. */
export function spokenSize(bytes: number): string {
  if (bytes >= 1e9) return `${round(bytes / 1e9)} GB`;
  if (bytes >= 1e6) return `${round(bytes / 1e6)} MB`;
  return `${Math.ceil(bytes / 1e3)} kB`;
}

const round = (value: number): number =>
  value >= 10 ? Math.round(value) : Math.round(10 * value) / 10;
