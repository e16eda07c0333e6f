/** Hands a value over as a JSON file, as a download. */
export function saveJson(name: string, value: unknown): void {
  const text = JSON.stringify(value, undefined, 2);
  saveBlob(`${name}.json`, new Blob([text], { type: 'application/json' }));
}

/** Hands a file over as a download. */
export function saveBlob(name: string, file: Blob): void {
  const url = URL.createObjectURL(file);
  const link = document.createElement('a');
  link.href = url;
  link.download = name;
  link.click();
  // The download has taken hold of the address by then.
  setTimeout(() => URL.revokeObjectURL(url), 10_000);
}
