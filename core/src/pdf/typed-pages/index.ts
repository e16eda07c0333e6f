export * from './typed-pdf';
export { readSource, type TextInFile } from './source';
export type { PictureInText, TypedPicture } from './drawn-pictures';
