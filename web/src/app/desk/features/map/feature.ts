import type { DeskFeature } from '../../platform/feature/desk-feature';

/** The document at a glance, beside the pages. */
export const map: DeskFeature = {
  id: 'map',
  overlays: [
    {
      id: 'map',
      in: 'pages',
      keepsPlace: 21,
      load: () => import('./document-map').then((m) => m.DocumentMap),
      shows: () => () => true,
    },
  ],
};
