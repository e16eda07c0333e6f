import { PdfRef, nameText, type PdfDict, type PdfFile, type PdfValue } from './objects/index';

/** A field of an interactive form that is an object of its own, and its type, which it may inherit (ISO 32000-1, 12.7.3.1). */
export interface FormField {
  readonly ref: PdfRef;
  readonly dict: PdfDict;
  readonly type: string | undefined;
}

/** All fields of a file, those above others as well. */
export function fieldsOf(file: PdfFile): FormField[] {
  const fields: FormField[] = [];
  const seen = new Set<number>();
  const stack: { value: PdfValue; inherited: string | undefined }[] = [];
  const push = (values: readonly PdfValue[], inherited: string | undefined): void => {
    for (const value of values.toReversed()) stack.push({ value, inherited });
  };
  push(file.array(file.dict(file.catalog.get('AcroForm'))?.get('Fields') ?? null), undefined);
  while (stack.length > 0) {
    const { value, inherited } = stack.pop()!;
    const dict = file.dict(value);
    if (!(value instanceof PdfRef) || !dict || seen.has(value.object)) continue;
    seen.add(value.object);
    const type = nameText(file.resolve(dict.get('FT'))) ?? inherited;
    fields.push({ ref: value, dict, type });
    push(file.array(dict.get('Kids')), type);
  }
  return fields;
}
