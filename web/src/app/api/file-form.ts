/** A file as the server takes it; fields of the form have to come before it. */
export function fileForm(
  file: Blob,
  name: string,
  fields: Readonly<Record<string, string | undefined>> = {},
): FormData {
  const form = new FormData();
  for (const [key, value] of Object.entries(fields))
    if (value !== undefined) form.append(key, value);
  form.append('file', file, name);
  return form;
}
