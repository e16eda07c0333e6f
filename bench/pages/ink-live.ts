// Runs in the browser: live ink as the desk draws it, and bare lines through the same samples.
import { Stroke, quantise, type Sample } from '@stylet/core/ink';
import { LiveCanvas } from '../../web/src/app/desk/platform/paper/live-canvas';

const WIDTH = 860;
const HEIGHT = 1100;
const STROKES = 5000;
/** 240 Hz of samples at 60 frames a second. */
const SAMPLES_A_FRAME = 4;

function canvas(): HTMLCanvasElement {
  const element = document.createElement('canvas');
  element.width = WIDTH;
  element.height = HEIGHT;
  element.style.cssText = 'position:absolute;left:0;top:0';
  document.body.append(element);
  return element;
}

/** Waits for the drawing itself, not only for its commands. */
const drawn = (context: CanvasRenderingContext2D): void => void context.getImageData(0, 0, 1, 1);

const page = canvas();
const pageContext = page.getContext('2d', { willReadFrequently: true })!;

/** A page that is full already. */
function fillPage(): void {
  for (let i = 0; i < STROKES; i++) {
    pageContext.beginPath();
    const x = (i * 37) % WIDTH;
    const y = (i * 53) % HEIGHT;
    pageContext.moveTo(x, y);
    for (let k = 1; k < 12; k++) pageContext.lineTo(x + k * 2, y + 4 * Math.sin(k));
    pageContext.stroke();
  }
  drawn(pageContext);
}

const samples: Sample[] = Array.from({ length: 1200 }, (_, i) => ({
  x: 60 + ((i * 0.6) % 700),
  y: 200 + 60 * Math.sin(i / 22) + 90 * Math.floor((i * 0.6) / 700),
  pressure: 0.5 + 0.3 * Math.sin(i / 60),
  tiltX: 0,
  tiltY: 0,
  time: Math.round(i * (1000 / 240)),
}));

const bare = canvas();
bare.getContext('2d', { desynchronized: true });
const box = document.body.appendChild(document.createElement('div'));

function allDrawn(): void {
  for (const element of Array.from(box.querySelectorAll('canvas')))
    drawn(element.getContext('2d')!);
}

function ours(): number {
  const live = new LiveCanvas(box);
  live.resize(WIDTH, HEIGHT, [1, 0, 0, 1, 0, 0]);
  const stroke = new Stroke({ instrument: 'fineliner', width: 1.5, smoothing: 0.3 });
  // A page's canvases get their memory with the first stroke on it, not with each.
  const speck = [{ polygon: Float64Array.of(1, 1, 2, 1, 2, 2), grain: 0 }];
  const ink = { color: '#22304a' };
  live.settle(speck, ink);
  live.showTail(speck, ink);
  live.clear();
  allDrawn();
  const start = performance.now();
  for (let i = 0; i < samples.length; i += SAMPLES_A_FRAME) {
    const before = stroke.settledPieces().length;
    for (const sample of samples.slice(i, i + SAMPLES_A_FRAME)) stroke.add(quantise(sample));
    live.settle(stroke.settledPieces().slice(before), ink);
    live.showTail(stroke.tail(), ink);
  }
  allDrawn();
  const time = performance.now() - start;
  live.release();
  return time;
}

function lines(): number {
  bare.width = WIDTH;
  const context = bare.getContext('2d')!;
  drawn(context);
  context.lineWidth = 1.5;
  context.lineCap = context.lineJoin = 'round';
  context.strokeStyle = '#22304a';
  const start = performance.now();
  let last = samples[0];
  for (let i = 0; i < samples.length; i += SAMPLES_A_FRAME) {
    // As the events come, each sample is joined to the one before it.
    for (const sample of samples.slice(i, i + SAMPLES_A_FRAME)) {
      context.beginPath();
      context.moveTo(last.x, last.y);
      context.lineTo(sample.x, sample.y);
      context.stroke();
      last = sample;
    }
  }
  drawn(context);
  return performance.now() - start;
}

fillPage();
Object.assign(globalThis, { ours, lines });
