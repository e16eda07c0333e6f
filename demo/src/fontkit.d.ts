/** Only handed on to pdf-lib, which knows what it is. */
declare module 'fontkit';
