import harfbuzz from 'harfbuzzjs';
import { engineWith, fontFile } from './testing/typesetter';
import { covers } from './coverage';
import { faceIds, fallbacks, families, faceOf } from '../typed/index';

/** What HarfBuzz says by its own JavaScript interface, which this project's does not go through. */
async function reference(face: string, text: string, direction: string, script: string) {
  const hb = await harfbuzz;
  const font = hb.createFont(hb.createFace(hb.createBlob(fontFile(face)), 0));
  const buffer = hb.createBuffer();
  buffer.addText(text);
  buffer.setDirection(direction);
  buffer.setScript(script);
  hb.shape(font, buffer);
  return buffer.json();
}

test.each([
  ['source-serif-4', 'office AVAST Ta. fluffy', 'ltr', 'Latn'],
  ['eb-garamond', 'ὁ Ἥφαιστος ἀναβαίνει', 'ltr', 'Grek'],
  ['inter', 'Прилив на пристани', 'ltr', 'Cyrl'],
  ['noto-naskh-arabic', 'المد والجزر', 'rtl', 'Arab'],
  ['noto-sans', 'ज्वार भाटा', 'ltr', 'Deva'],
  ['droid-sans-fallback', '潮の満ち干', 'ltr', 'Hani'],
  ['unifont', 'ᚠᚢᚦ', 'ltr', 'Runr'],
])('glyphs of %s stand where HarfBuzz puts them', async (face, text, direction, script) => {
  const engine = await engineWith(face);
  const found = engine.shape(text, {
    face,
    from: 0,
    to: text.length,
    isRightToLeft: direction === 'rtl',
    script,
  });
  const unit = engine.unitsPerEm(face);
  const units = (values: Float64Array): number[] => Array.from(values, (v) => Math.round(v * unit));
  const expected = await reference(face, text, direction, script);
  expect(expected.every(({ g }) => g > 0)).toBe(true);
  expect([...found.glyphs]).toEqual(expected.map(({ g }) => g));
  expect([...found.clusters]).toEqual(expected.map(({ cl }) => cl));
  expect(units(found.advances)).toEqual(expected.map(({ ax }) => ax));
  expect(units(found.right)).toEqual(expected.map(({ dx }) => dx));
  expect(units(found.up)).toEqual(expected.map(({ dy }) => dy));
});

test('the table of what fonts have is what their files say', async () => {
  const hb = await harfbuzz;
  for (const family of [...families, ...fallbacks]) {
    const faces = [false, true].flatMap((bold) =>
      [false, true].map((italic) => faceOf(family, bold, italic).id),
    );
    const sets = [...new Set(faces)].map(
      (face) => new Set(hb.createFace(hb.createBlob(fontFile(face)), 0).collectUnicodes()),
    );
    for (let code = 0; code < 0x20000; code++) {
      const inAll = sets.every((set) => set.has(code));
      if (covers(family, code) !== inAll) throw new Error(`${family}: U+${code.toString(16)}`);
    }
  }
  expect(faceIds).toHaveLength(32);
}, 120_000);

test('outlines are in the units of the face, and close', async () => {
  const engine = await engineWith('inter');
  const { glyphs } = engine.shape('I', {
    face: 'inter',
    from: 0,
    to: 1,
    isRightToLeft: false,
    script: 'Latn',
  });
  const outline = engine.outline('inter', glyphs[0]);
  const xs = [...outline.matchAll(/[ML](-?\d+),(-?\d+)/g)].map(([, x, y]) => [
    Number(x),
    Number(y),
  ]);
  // A capital I of a sans is a rectangle from the baseline to the height of capitals (OpenType 1.9, OS/2, sCapHeight).
  const os2 = (await harfbuzz)
    .createFace((await harfbuzz).createBlob(fontFile('inter')), 0)
    .reference_table('OS/2')!;
  const capHeight = new DataView(os2.slice().buffer).getInt16(88);
  expect(Math.min(...xs.map(([, y]) => y))).toBe(0);
  expect(Math.max(...xs.map(([, y]) => y))).toBe(capHeight);
  expect(outline.endsWith('Z')).toBe(true);
});
