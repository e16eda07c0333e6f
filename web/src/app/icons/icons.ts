import { Injectable, inject } from '@angular/core';
import { MatIconRegistry } from '@angular/material/icon';
import { DomSanitizer } from '@angular/platform-browser';
import add from '@material-symbols/svg-400/outlined/add.svg';
import arrangement from '@material-symbols/svg-400/outlined/view_column_2.svg';
import arrowBack from '@material-symbols/svg-400/outlined/arrow_back.svg';
import arrowForward from '@material-symbols/svg-400/outlined/arrow_forward.svg';
import check from '@material-symbols/svg-400/outlined/check.svg';
import chevron from '@material-symbols/svg-400/outlined/chevron_right.svg';
import close from '@material-symbols/svg-400/outlined/close.svg';
import keptHere from '@material-symbols/svg-400/outlined/offline_pin.svg';
import cloudDone from '@material-symbols/svg-400/outlined/cloud_done.svg';
import cloudOff from '@material-symbols/svg-400/outlined/cloud_off.svg';
import addEntry from '@material-symbols/svg-400/outlined/playlist_add.svg';
import bookmark from '@material-symbols/svg-400/outlined/bookmark-fill.svg';
import bookmarkAdd from '@material-symbols/svg-400/outlined/bookmark_add.svg';
import camera from '@material-symbols/svg-400/outlined/photo_camera.svg';
import crop from '@material-symbols/svg-400/outlined/crop.svg';
import dictionary from '@material-symbols/svg-400/outlined/dictionary.svg';
import readAloud from '@material-symbols/svg-400/outlined/text_to_speech.svg';
import pause from '@material-symbols/svg-400/outlined/pause.svg';
import play from '@material-symbols/svg-400/outlined/play_arrow.svg';
import sentenceBefore from '@material-symbols/svg-400/outlined/skip_previous.svg';
import sentenceNext from '@material-symbols/svg-400/outlined/skip_next.svg';
import drag from '@material-symbols/svg-400/outlined/drag_indicator.svg';
import highlights from '@material-symbols/svg-400/outlined/ink_highlighter.svg';
import keyword from '@material-symbols/svg-400/outlined/sell.svg';
import others from '@material-symbols/svg-400/outlined/comment.svg';
import links from '@material-symbols/svg-400/outlined/link.svg';
import pictures from '@material-symbols/svg-400/outlined/image.svg';
import shapes from '@material-symbols/svg-400/outlined/category.svg';
import dropper from '@material-symbols/svg-400/outlined/colorize.svg';
import cut from '@material-symbols/svg-400/outlined/content_cut.svg';
import duplicate from '@material-symbols/svg-400/outlined/library_add.svg';
import paste from '@material-symbols/svg-400/outlined/content_paste.svg';
import pageBoard from '@material-symbols/svg-400/outlined/grid_view.svg';
import turnLeft from '@material-symbols/svg-400/outlined/rotate_90_degrees_ccw.svg';
import turnRight from '@material-symbols/svg-400/outlined/rotate_90_degrees_cw.svg';
import copy from '@material-symbols/svg-400/outlined/content_copy.svg';
import download from '@material-symbols/svg-400/outlined/download.svg';
import eraser from '@material-symbols/svg-400/outlined/ink_eraser.svg';
import error from '@material-symbols/svg-400/outlined/error.svg';
import exportIcon from '@material-symbols/svg-400/outlined/ios_share.svg';
import fill from '@material-symbols/svg-400/outlined/format_color_fill.svg';
import filter from '@material-symbols/svg-400/outlined/filter_list.svg';
import fitPage from '@material-symbols/svg-400/outlined/fit_screen.svg';
import fitWidth from '@material-symbols/svg-400/outlined/fit_width.svg';
import ink from '@material-symbols/svg-400/outlined/gesture.svg';
import gap from '@material-symbols/svg-400/outlined/expand.svg';
import index from '@material-symbols/svg-400/outlined/toc.svg';
import lasso from '@material-symbols/svg-400/outlined/lasso_select.svg';
import closeUp from '@material-symbols/svg-400/outlined/frame_inspect.svg';
import move from '@material-symbols/svg-400/outlined/open_with.svg';
import newLine from '@material-symbols/svg-400/outlined/keyboard_return.svg';
import ruler from '@material-symbols/svg-400/outlined/straighten.svg';
import setSquare from '@material-symbols/svg-400/outlined/square_foot.svg';
import shorthand from '@material-symbols/svg-400/outlined/stylus_note.svg';
import library from '@material-symbols/svg-400/outlined/auto_stories.svg';
import redo from '@material-symbols/svg-400/outlined/redo.svg';
import remove from '@material-symbols/svg-400/outlined/remove.svg';
import search from '@material-symbols/svg-400/outlined/search.svg';
import opacity from '@material-symbols/svg-400/outlined/opacity.svg';
import putInPages from '@material-symbols/svg-400/outlined/note_add.svg';
import companion from '@material-symbols/svg-400/outlined/two_pager.svg';
import paneFloat from '@material-symbols/svg-400/outlined/picture_in_picture.svg';
import paneBelow from '@material-symbols/svg-400/outlined/splitscreen_bottom.svg';
import paneBeside from '@material-symbols/svg-400/outlined/splitscreen_right.svg';
import attachment from '@material-symbols/svg-400/outlined/attach_file.svg';
import origin from '@material-symbols/svg-400/outlined/arrow_outward.svg';
import picture from '@material-symbols/svg-400/outlined/add_photo_alternate.svg';
import snip from '@material-symbols/svg-400/outlined/screenshot_region.svg';
import person from '@material-symbols/svg-400/outlined/person.svg';
import hands from '@material-symbols/svg-400/outlined/back_hand.svg';
import help from '@material-symbols/svg-400/outlined/help.svg';
import folder from '@material-symbols/svg-400/outlined/folder.svg';
import more from '@material-symbols/svg-400/outlined/more_vert.svg';
import strikeout from '@material-symbols/svg-400/outlined/format_strikethrough.svg';
import sync from '@material-symbols/svg-400/outlined/sync.svg';
import trash from '@material-symbols/svg-400/outlined/delete.svg';
import underline from '@material-symbols/svg-400/outlined/format_underlined.svg';
import undo from '@material-symbols/svg-400/outlined/undo.svg';
import upload from '@material-symbols/svg-400/outlined/upload.svg';

const drawings = {
  add,
  addEntry,
  bookmark,
  bookmarkAdd,
  drag,
  highlights,
  keyword,
  others,
  pictures,
  links,
  shapes,
  arrangement,
  arrowBack,
  arrowForward,
  camera,
  check,
  chevron,
  close,
  closeUp,
  keptHere,
  cloudDone,
  cloudOff,
  companion,
  copy,
  crop,
  cut,
  dictionary,
  pause,
  play,
  readAloud,
  sentenceBefore,
  sentenceNext,
  download,
  dropper,
  duplicate,
  eraser,
  error,
  export: exportIcon,
  fill,
  filter,
  fitPage,
  fitWidth,
  gap,
  hands,
  help,
  index,
  ink,
  lasso,
  library,
  folder,
  more,
  move,
  newLine,
  opacity,
  attachment,
  origin,
  pageBoard,
  paneBelow,
  paneFloat,
  paneBeside,
  paste,
  person,
  picture,
  putInPages,
  redo,
  remove,
  ruler,
  search,
  setSquare,
  shorthand,
  snip,
  strikeout,
  sync,
  trash,
  turnLeft,
  turnRight,
  underline,
  undo,
  upload,
};

/** Makes the icons that are used known to `mat-icon` by their names here. */
@Injectable({ providedIn: 'root' })
export class Icons {
  private readonly registry = inject(MatIconRegistry);
  private readonly sanitizer = inject(DomSanitizer);

  register(): void {
    for (const [name, svg] of Object.entries(drawings))
      this.registry.addSvgIconLiteral(name, this.sanitizer.bypassSecurityTrustHtml(svg));
  }
}
