export { MINIATURE, ON_TRAY, TRAY_SIDE, miniatureBox, trayOf } from './tray';
