import { lineOf, type Benchmark } from './benchmark';
import { closeupLive } from './closeup-live';
import { erasing } from './erase';
import { exportBenchmarks } from './export';
import { deskDownload } from './desk-download';
import { dragFrames } from './drag-frames';
import { indexScroll, outlineDrag } from './index-panel';
import { inkBytes } from './ink-bytes';
import { inkLatency } from './ink-latency';
import { inkLive } from './ink-live';
import { inkOutlines } from './ink-outline';
import { jump1000 } from './jump';
import { libraryView } from './library-view';
import { lassoHit } from './lasso-hit';
import { logBenchmarks } from './live/log';
import { live50 } from './live/windows';
import { marking } from './marking';
import { mutation } from './mutation';
import { openAgain, openFirstHeavy } from './open-heavy';
import { openFirstPage } from './open-first-page';
import { pagingBenchmarks } from './paging';
import { boardFirst } from './board';
import { findLibrary, findLibraryGrep } from './find';
import { flingFrames } from './fling';
import { indexingBenchmarks } from './indexing';
import { pagesExport } from './pages-export';
import { removePrepared } from './prepared';
import { picturePlace } from './picture-place';
import { redrawZoom } from './redraw-zoom';
import { stampPlace } from './stamp-place';
import { shapeRecognise } from './shape-recognise';
import { exportText } from './export-text';
import { typeLatency } from './type-latency';
import { textLayout, textLetter } from './text-layout';
import { writingFrames } from './writing-frames';
import { zoomSharp } from './zoom';

const all: readonly Benchmark[] = [
  inkLive,
  inkLatency,
  ...inkOutlines,
  ...erasing,
  inkBytes,
  redrawZoom,
  shapeRecognise,
  textLayout,
  textLetter,
  exportText,
  typeLatency,
  closeupLive,
  lassoHit,
  dragFrames,
  picturePlace,
  stampPlace,
  marking,
  writingFrames,
  openFirstPage,
  openFirstHeavy,
  openAgain,
  deskDownload,
  indexScroll,
  outlineDrag,
  jump1000,
  boardFirst,
  flingFrames,
  zoomSharp,
  pagesExport,
  ...exportBenchmarks,
  libraryView,
  findLibrary,
  findLibraryGrep,
  ...indexingBenchmarks,
  ...pagingBenchmarks,
  live50,
  ...logBenchmarks,
  mutation,
];

const [wanted] = process.argv.slice(2);
if (wanted === '--list') {
  for (const { name, about } of all) console.log(`${name.padEnd(22)} ${about}`);
  process.exit(0);
}
const chosen = wanted ? all.filter(({ name }) => name === wanted) : all;
if (chosen.length === 0) {
  console.error(`There is no benchmark “${wanted}”; --list names them.`);
  process.exit(2);
}
let failed = 0;
for (const { name, run } of chosen)
  try {
    console.log(lineOf(name, await run()));
  } catch (error) {
    // The others are not held up.
    failed++;
    console.error(`${name}: FAILED`, error);
  }
await removePrepared();
process.exit(failed === 0 ? 0 : 1);
