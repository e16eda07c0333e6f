/** Hands a value over as a JSON file, as a download. */
export function saveJson(name: string, value: unknown): void {
  const text = JSON.stringify(value, undefined, 2);
  const url = URL.createObjectURL(new Blob([text], { type: 'application/json' }));
  const link = document.createElement('a');
  link.href = url;
  link.download = `${name}.json`;
  link.click();
  // The download has taken hold of the address by then.
  setTimeout(() => URL.revokeObjectURL(url), 10_000);
}
