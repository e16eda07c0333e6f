import { contrast, darkened, screened } from './index';

const WHITE = '#ffffff';
const BLACK = '#000000';
const inks = ['#22304a', '#1f6f66', '#b3324b', '#b77412', '#2f4fb5', '#4b4f58'];
const highlights = ['#ffe27a', '#bde8b2', '#f9c0cb', '#b9ddf7', '#d9c8f5'];

// WCAG 2.2, 1.4.6 (enhanced): 7:1 for text; 1.4.3: 4.5:1; 1.4.11: 3:1 for what is no text.
test('on dark pages text and every ink can be read', () => {
  expect(contrast(darkened(BLACK), darkened(WHITE))).toBeGreaterThanOrEqual(7);
  for (const ink of inks)
    expect(contrast(darkened(ink), darkened(WHITE))).toBeGreaterThanOrEqual(4.5);
});

test('on dark pages text can be read under every highlight, which shows on the paper', () => {
  for (const highlight of highlights) {
    const [text, paper] = [BLACK, WHITE].map((c) => screened(darkened(highlight), darkened(c)));
    expect(contrast(text, paper)).toBeGreaterThanOrEqual(4.5);
    expect(contrast(paper, darkened(WHITE))).toBeGreaterThan(1.8);
  }
});

// Filter Effects 1, 10.5: hueRotate(180°) keeps greys and gives red its complement at the same luminance.
test('greys stay greys, and colours keep their hue', () => {
  for (const grey of [WHITE, BLACK, '#808080']) expect(darkened(grey)).toMatch(/^#(..)\1\1$/);
  const [r, g, b] = [1, 3, 5].map((i) => parseInt(darkened('#2f4fb5').slice(i, i + 2), 16));
  expect(b).toBeGreaterThan(g);
  expect(g).toBeGreaterThan(r);
});
