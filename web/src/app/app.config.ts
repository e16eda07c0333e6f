import { provideHttpClient } from '@angular/common/http';
import type { ApplicationConfig } from '@angular/core';
import {
  isDevMode,
  provideBrowserGlobalErrorListeners,
  provideZonelessChangeDetection,
} from '@angular/core';
import { provideServiceWorker } from '@angular/service-worker';
import {
  PreloadAllModules,
  RouteReuseStrategy,
  provideRouter,
  withComponentInputBinding,
  withPreloading,
  type Routes,
} from '@angular/router';
import { missingParts } from './loading/not-loaded';
import { KitTogether } from './panes/kit-together';
import { RoutePerDocument } from './route-per-document';
import { CatchingUp } from './desk/platform/document/catching-up';
import { LiveDocument } from './desk/platform/live/live-document';
import { ContestedElsewhere } from './desk/platform/live/contested-elsewhere';
import { RemovedElsewhere } from './desk/platform/live/removed-elsewhere';
import { ReadingPages } from './desk/platform/document/reading-pages';
import { OtherWindows } from './desk/platform/document/other-windows';
import { provideEffects } from '@ngrx/effects';
import { provideStore } from '@ngrx/store';
import { OverlayContainer } from '@angular/cdk/overlay';
import { OverlayLandmark } from './overlay-landmark';
import { documentFeature } from './desk/platform/document/document.reducer';
import { DocumentEffects } from './desk/platform/document/document.effects';
import { KitEffects } from './desk/platform/kit/kit.effects';
import { kitFeature } from './desk/platform/kit/kit.reducer';
import { SyncEffects } from './desk/platform/sync/sync.effects';
import { syncFeature } from './desk/platform/sync/sync.reducer';
import { FindEffects } from './find/find.effects';
import { findFeature } from './find/find.reducer';
import { BegunEffects } from './begun/begun.effects';
import { KeepingEffects } from './kept/keeping.effects';
import { LibraryEffects } from './library/library.effects';
import { libraryFeature } from './library/library.reducer';

const routes: Routes = [
  { path: '', loadComponent: () => import('./library/library').then((m) => m.Library) },
  {
    path: 'documents/:id',
    loadComponent: () => import('./desk/desk-screen').then((m) => m.DeskScreen),
  },
  { path: 'panes', loadComponent: () => import('./panes/panes').then((m) => m.Panes) },
  { path: 'keywords', loadComponent: () => import('./library/keywords').then((m) => m.Keywords) },
  {
    path: 'kept',
    loadComponent: () => import('./kept/on-this-device').then((m) => m.OnThisDevice),
  },
  { path: 'trash', loadComponent: () => import('./library/trash').then((m) => m.Trash) },
  { path: 'find', loadComponent: () => import('./find/find-page').then((m) => m.FindPage) },
  { path: '**', redirectTo: '' },
];

export const appConfig: ApplicationConfig = {
  providers: [
    provideZonelessChangeDetection(),
    provideBrowserGlobalErrorListeners(),
    missingParts,
    // The desk is there by the time a cover has been chosen.
    provideRouter(routes, withComponentInputBinding(), withPreloading(PreloadAllModules)),
    { provide: RouteReuseStrategy, useClass: RoutePerDocument },
    provideHttpClient(),
    // What is to be looked at comes first.
    provideServiceWorker('ngsw-worker.js', {
      enabled: !isDevMode(),
      registrationStrategy: 'registerWhenStable:15000',
    }),
    { provide: OverlayContainer, useClass: OverlayLandmark },
    provideStore({
      [findFeature.name]: findFeature.reducer,
      [libraryFeature.name]: libraryFeature.reducer,
      [documentFeature.name]: documentFeature.reducer,
      [kitFeature.name]: kitFeature.reducer,
      [syncFeature.name]: syncFeature.reducer,
    }),
    provideEffects(
      FindEffects,
      LibraryEffects,
      DocumentEffects,
      OtherWindows,
      CatchingUp,
      ReadingPages,
      BegunEffects,
      KeepingEffects,
      LiveDocument,
      RemovedElsewhere,
      ContestedElsewhere,
      KitEffects,
      KitTogether,
      SyncEffects,
    ),
  ],
};
