import { readPpm, tool, type Rendering } from './server';

/** Draws a page, counted from 1, at so many pixels a point. */
export type Viewer = (file: string, page: number, scale: number) => Rendering;

export const poppler: Viewer = (file, page, scale) => {
  const range = ['-f', `${page}`, '-l', `${page}`, '-singlefile', '-cropbox'];
  tool('pdftoppm', '-r', String(72 * scale), ...range, file, `${file}.poppler`);
  return readPpm(`${file}.poppler.ppm`);
};

export const mutool: Viewer = (file, page, scale) => {
  const target = `${file}.mupdf.ppm`;
  tool('mutool', 'draw', '-q', '-r', String(72 * scale), '-o', target, file, `${page}`);
  return readPpm(target);
};

/** Viewers that share no code with Stylet or each other. */
export const viewers = { poppler, mutool };
