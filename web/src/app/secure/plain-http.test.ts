import { TestBed } from '@angular/core/testing';
import { MatSnackBar } from '@angular/material/snack-bar';
import { NEVER } from 'rxjs';
import { IS_SECURE, PlainHttp } from './plain-http';

const open = jest.fn(() => ({ onAction: () => NEVER }));
function tell(isSecure: boolean): void {
  TestBed.resetTestingModule();
  TestBed.configureTestingModule({
    providers: [
      { provide: IS_SECURE, useValue: isSecure },
      { provide: MatSnackBar, useValue: { open } },
    ],
  });
  TestBed.inject(PlainHttp).tell();
}
beforeEach(() => {
  sessionStorage.clear();
  open.mockClear();
});

test('over http it is said once in a window that some things do not work', () => {
  tell(false);
  tell(false);
  expect(open).toHaveBeenCalledTimes(1);
});

test('over https nothing is said', () => {
  tell(true);
  expect(open).not.toHaveBeenCalled();
});
