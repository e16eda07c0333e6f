// Lays the fonts that typed text is set in, and HarfBuzz, into a folder, under the names that core/src/typed/families.ts has.
import { copyFile, mkdir } from 'node:fs/promises';
import { createRequire } from 'node:module';
import { join } from 'node:path';

/** What there is of each family of the registry: weights and slants. */
const FAMILIES = {
  'source-serif-4': ['SourceSerif4', 'bold', 'italic', 'bold-italic'],
  'eb-garamond': ['EBGaramond', 'bold', 'italic', 'bold-italic'],
  'noto-sans': ['NotoSans', 'bold', 'italic', 'bold-italic'],
  inter: ['Inter', 'bold', 'italic', 'bold-italic'],
  'noto-sans-mono': ['NotoSansMono', 'bold'],
  'playpen-sans': ['PlaypenSans', 'bold'],
  caveat: ['Caveat', 'bold'],
  'noto-sans-hebrew': ['NotoSansHebrew', 'bold'],
  'noto-naskh-arabic': ['NotoNaskhArabic', 'bold'],
  'noto-sans-math': ['NotoSansMath'],
  'noto-sans-symbols-2': ['NotoSansSymbols2'],
  'noto-emoji': ['NotoEmoji', 'bold'],
};
const STYLES = {
  '': '400Regular',
  bold: '700Bold',
  italic: '400Regular_Italic',
  'bold-italic': '700Bold_Italic',
};
/** Of Debian's packages, unpacked below the second folder. */
const DEBIAN = {
  'droid-sans-fallback':
    'fonts-droid-fallback/usr/share/fonts/truetype/droid/DroidSansFallbackFull.ttf',
  unifont: 'fonts-unifont/usr/share/fonts/opentype/unifont/unifont.otf',
};

const [to, debian] = process.argv.slice(2);
const { resolve } = createRequire(new URL('../core/package.json', import.meta.url));
await mkdir(to, { recursive: true });
for (const [family, [file, ...styles]] of Object.entries(FAMILIES))
  for (const style of ['', ...styles]) {
    const from = `@expo-google-fonts/${family}/${STYLES[style]}/${file}_${STYLES[style]}.ttf`;
    await copyFile(resolve(from), join(to, `${[family, style].filter(Boolean).join('-')}.ttf`));
  }
for (const [family, path] of Object.entries(DEBIAN))
  await copyFile(join(debian, path), join(to, `${family}.ttf`));
for (const [from, name] of [
  ['hb.wasm', 'shaper.wasm'],
  ['hb-subset.wasm', 'subsetter.wasm'],
])
  await copyFile(resolve(`harfbuzzjs/${from}`), join(to, name));
