import { signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { linesOf, type Line, type Word } from '@stylet/core/text';
import { PageSource } from '../../platform/paper/page-source';
import { ViewState } from '../../platform/view/view-state';
import { TextSelection } from '../../platform/selection/text-selection';
import { ReadAloud } from './read-aloud';
import type { Utterance } from './utterance';
import { Voices } from './voices';

// It starts workers, which there are none of here.
jest.mock('../../platform/paper/page-source', () => ({ PageSource: class {} }));

function line(text: string, y: number): Word[] {
  let at = 0;
  return text.split(' ').map((part) => {
    const box = { x0: at, y0: y, x1: at + part.length * 5, y1: y + 10 };
    at = box.x1 + 3;
    return { text: part, box, angle: 0, size: 10, bold: false };
  });
}
const lines: readonly (readonly Line[])[] = [
  linesOf([...line('It ebbs. It rests.', 100), ...line('Then it turns.', 160)]),
  [],
  linesOf(line('Now it floods.', 100)),
];
const pages = lines.map((_, i) => ({
  id: `page-${i}`,
  label: String(i + 1),
  sourceIndex: i,
  rotation: 0,
  width: 200,
  height: 300,
}));

/** A voice that speaks when it is told to. */
class Speaking implements Utterance {
  private end: () => void = () => undefined;
  private fail: (error: Error) => void = () => undefined;
  readonly done = new Promise<void>(
    (resolve, reject) => ([this.end, this.fail] = [resolve, reject]),
  );
  readonly pause = jest.fn();
  readonly resume = jest.fn();
  readonly setRate = jest.fn();
  readonly stop = jest.fn(() => this.end());

  constructor(
    readonly text: string,
    readonly rate: number,
    readonly reached: (place: number) => void,
  ) {}

  async finish(): Promise<void> {
    this.end();
    await settled();
  }

  async breakDown(message: string): Promise<void> {
    this.fail(new Error(message));
    await settled();
  }
}

const settled = (): Promise<void> => new Promise((done) => setTimeout(done));
let spoken: Speaking[];
const voices = {
  load: () => Promise.resolve(),
  chosen: () => ({ id: 'voice' }),
  choose: jest.fn(),
  prepare: jest.fn(),
  speak: (text: string, rate: number, reached: (place: number) => void) => {
    const speaking = new Speaking(text, rate, reached);
    spoken.push(speaking);
    return speaking;
  },
};
const view = {
  pages: () => pages,
  currentPage: () => 0,
  layout: () => ({ pages: pages.map((_, i) => ({ top: 300 * i, height: 300 })) }),
  part: () => ({ top: 0 }),
  reveal: jest.fn(),
};

function reading(): ReadAloud {
  localStorage.clear();
  spoken = [];
  TestBed.configureTestingModule({
    providers: [
      ReadAloud,
      { provide: Voices, useValue: voices },
      { provide: ViewState, useValue: view },
      { provide: TextSelection, useValue: { parts: signal([]), clear: () => undefined } },
      {
        provide: PageSource,
        useValue: { linesOf: ({ sourceIndex }: { sourceIndex: number }) => lines[sourceIndex] },
      },
    ],
  });
  return TestBed.inject(ReadAloud);
}
const now = (): Speaking => spoken.at(-1)!;

test('it reads sentence by sentence, over pages without text, to the end', async () => {
  const aloud = reading();
  void aloud.start();
  await settled();
  const heard = [now().text];
  for (let i = 0; i < 3; i++) {
    await now().finish();
    heard.push(now().text);
  }
  expect(heard).toEqual(['It ebbs.', 'It rests.', 'Then it turns.', 'Now it floods.']);
  expect(aloud.at()?.pageId).toBe('page-2');
  expect(aloud.label()).toBe('3');
  await now().finish();
  expect(aloud.isOn()).toBe(false);
  expect(aloud.at()).toBeUndefined();
});

test('the word that is spoken is marked', async () => {
  const aloud = reading();
  void aloud.start();
  await settled();
  const [x] = aloud.at()!.word[0];
  now().reached('It ebbs.'.indexOf('ebbs'));
  expect(aloud.at()!.word[0][0]).toBeGreaterThan(x);
  expect(aloud.at()!.sentence[0][0]).toBe(x);
});

test('it begins at a word, goes on and back by a sentence, and back over a page', async () => {
  const aloud = reading();
  void aloud.start(2, 1);
  await settled();
  expect(now().text).toBe('Now it floods.');
  void aloud.step(-1);
  await settled();
  expect(now().text).toBe('Then it turns.');
  void aloud.step(-1);
  await settled();
  expect(now().text).toBe('It rests.');
  void aloud.step(1);
  await settled();
  expect(now().text).toBe('Then it turns.');
  // What was under way before speaks no more.
  expect(spoken.slice(0, -1).every(({ stop }) => stop.mock.calls.length === 1)).toBe(true);
});

test('it pauses and goes on, faster within what there is, also from one sentence to the next', async () => {
  const aloud = reading();
  void aloud.start();
  await settled();
  aloud.pauseOrGoOn();
  expect(now().pause).toHaveBeenCalledTimes(1);
  aloud.pauseOrGoOn();
  expect(now().resume).toHaveBeenCalledTimes(1);
  aloud.setRate(9);
  expect(aloud.rate()).toBe(2);
  expect(now().setRate).toHaveBeenCalledWith(2);
  aloud.setRate(0.1);
  expect(aloud.rate()).toBe(0.5);
  await now().finish();
  expect(now().rate).toBe(0.5);
});

test('a voice that breaks down is said, and the place kept', async () => {
  const aloud = reading();
  void aloud.start();
  await settled();
  await now().breakDown('This voice does not speak (gone). Choose another one.');
  expect(aloud.trouble()).toBe('This voice does not speak (gone). Choose another one.');
  expect(aloud.isPaused()).toBe(true);
  void aloud.chooseVoice('other');
  await settled();
  expect(aloud.trouble()).toBe('');
  expect(now().text).toBe('It ebbs.');
});

test('stopped while it begins, it says nothing', async () => {
  const aloud = reading();
  void aloud.start();
  aloud.stop();
  await settled();
  expect(spoken).toEqual([]);
  expect(aloud.isOn()).toBe(false);
});
