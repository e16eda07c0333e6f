export { numerals } from './numerals';
