import type { DeskFeature } from './platform/feature/desk-feature';
import { anotherDevice } from './features/another-device/feature';
import { board } from './features/board/feature';
import { closeUp } from './features/close-up/feature';
import { companion } from './features/companion/feature';
import { coverage } from './features/coverage/feature';
import { crop } from './features/crop/feature';
import { datingFeature } from './features/dating/feature';
import { dictionary } from './features/dictionary/feature';
import { eraser } from './features/eraser/feature';
import { exporting } from './features/export/feature';
import { filesInside } from './features/files-inside/feature';
import { find } from './features/find/feature';
import { foreignMarks } from './features/foreign-marks/feature';
import { gap } from './features/gap/feature';
import { guides } from './features/guides/feature';
import { hands } from './features/hands/feature';
import { landmarks } from './features/landmarks/feature';
import { lasso } from './features/lasso/feature';
import { links } from './features/links/feature';
import { map } from './features/map/feature';
import { notes } from './features/notes/feature';
import { pictures } from './features/pictures/feature';
import { presence } from './features/presence/feature';
import { presenting } from './features/presenting/feature';
import { readAloud } from './features/read-aloud/feature';
import { readingLine } from './features/reading-line/feature';
import { shorthand } from './features/shorthand/feature';
import { stamps } from './features/stamps/feature';
import { snip } from './features/snip/feature';
import { typedPages } from './features/typed-pages/feature';
import { typing } from './features/typing/feature';
import { writing } from './features/writing/feature';

/** The features of the desk. Tools and aids stand in the rail in this order. */
export const features: readonly DeskFeature[] = [
  writing,
  eraser,
  lasso,
  snip,
  pictures,
  stamps,
  gap,
  typing,
  notes,
  typedPages,
  datingFeature,
  guides,
  map,
  companion,
  closeUp,
  find,
  links,
  landmarks,
  crop,
  shorthand,
  hands,
  readAloud,
  readingLine,
  presenting,
  presence,
  board,
  dictionary,
  coverage,
  filesInside,
  foreignMarks,
  anotherDevice,
  exporting,
];
