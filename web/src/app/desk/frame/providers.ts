import type { Provider } from '@angular/core';
import { ScrollTogether } from '../../panes/scroll-together';
import { OpenDocuments } from '../platform/document/open-documents';
import { Registered } from '../platform/feature/registered';
import { FingerDrawing } from '../platform/input/finger-drawing';
import { PenPresence } from '../platform/input/pen-presence';
import { ShorthandNotice } from '../platform/input/shorthand-notice';
import { LandmarkActions } from '../platform/landmarks/landmark-actions';
import { AnnotationPainting } from '../platform/paper/annotation-painting';
import { LiveViews } from '../platform/paper/live-views';
import { PAGE_VIEW } from '../platform/paper/page-face';
import { PageSource } from '../platform/paper/page-source';
import { PuttingIn } from '../platform/pictures/putting-in';
import { AnnotationSelection } from '../platform/selection/annotation-selection';
import { Clipboard } from '../platform/selection/clipboard';
import { Incoming } from '../platform/selection/incoming';
import { Marking } from '../platform/selection/marking';
import { SelectionActions } from '../platform/selection/selection-actions';
import { TextSelection } from '../platform/selection/text-selection';
import { Following } from '../platform/view/following';
import { PagesOnScreen } from '../platform/view/pages-on-screen';
import { Places } from '../platform/view/places';
import { ReadingLog } from '../platform/view/reading-log';
import { ViewState } from '../platform/view/view-state';
import { OpenCards } from '../platform/kit/open-card';
import { Shortcuts } from './keys/shortcuts';
import { PageMenu } from './page-menu/page-menu';
import { PageGestures } from './pages/page-gestures';
import { PageView } from './pages/page-view';

/** What a desk has of its own, whatever its features. */
export const deskProviders: readonly Provider[] = [
  AnnotationPainting,
  AnnotationSelection,
  Clipboard,
  FingerDrawing,
  Following,
  Incoming,
  LandmarkActions,
  LiveViews,
  Marking,
  OpenCards,
  OpenDocuments,
  PageGestures,
  PageMenu,
  PageSource,
  PagesOnScreen,
  PenPresence,
  Places,
  PuttingIn,
  ReadingLog,
  Registered,
  ScrollTogether,
  SelectionActions,
  ShorthandNotice,
  Shortcuts,
  TextSelection,
  ViewState,
  { provide: PAGE_VIEW, useValue: PageView },
];
