import { inject } from '@angular/core';
import { MatDialog } from '@angular/material/dialog';
import devices from '@material-symbols/svg-400/outlined/devices.svg';
import { Store } from '@ngrx/store';
import { documentFeature } from '../../platform/document/document.reducer';
import type { DeskFeature } from '../../platform/feature/desk-feature';
import { ViewState } from '../../platform/view/view-state';

/** Opens the document where it is on another device, without typing. */
export const anotherDevice: DeskFeature = {
  id: 'another-device',
  icons: { devices },
  commands: [
    {
      id: 'another-device',
      menu: { in: 'more', name: 'Open on another device', icon: 'devices', order: 300 },
      command: () => {
        const [dialog, view] = [inject(MatDialog), inject(ViewState)];
        const id = inject(Store).selectSignal(documentFeature.selectId);
        const open = async (): Promise<void> => {
          const { DeviceDialog } = await import('./device-dialog');
          const page = view.pages()[view.currentPage()]?.id;
          dialog.open(DeviceDialog, {
            data: { path: `/documents/${id()}${page ? `?page=${page}` : ''}` },
            width: '520px',
          });
        };
        return { run: () => void open() };
      },
    },
  ],
};
