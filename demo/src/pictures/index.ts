import sharp from 'sharp';

/** A staff that shows the height of the water, at low tide, with dunes behind: made up, as all of it. */
const GAUGE = `<svg xmlns="http://www.w3.org/2000/svg" width="1600" height="1200" viewBox="0 0 1600 1200">
<defs>
<linearGradient id="sky" x2="0" y2="1"><stop offset="0" stop-color="#8fb8d8"/><stop offset="1" stop-color="#e9eef0"/></linearGradient>
<linearGradient id="sea" x2="0" y2="1"><stop offset="0" stop-color="#3f7f8c"/><stop offset="1" stop-color="#7fb0ac"/></linearGradient>
</defs>
<rect width="1600" height="1200" fill="url(#sky)"/>
<rect y="520" width="1600" height="300" fill="url(#sea)"/>
<path d="M0 760C300 700 600 830 900 780S1400 730 1600 770V1200H0Z" fill="#d8c49a"/>
<path d="M900 840C1100 600 1300 560 1600 640V1200H800Z" fill="#c9ae78"/>
<path d="M1180 640q20-80 50-110M1210 635q0-90-20-130M1300 600q30-70 60-100M1330 600q-4-80-30-120" stroke="#5c7a3c" stroke-width="7" fill="none"/>
<rect x="420" y="420" width="36" height="480" fill="#f4f1e8" stroke="#22304a" stroke-width="4"/>
${[460, 520, 580, 640, 700, 760].map((y) => `<rect x="420" y="${y}" width="18" height="20" fill="#22304a"/>`).join('\n')}
</svg>`;

/** A photograph of the tide gauge, as a camera writes it: JPEG. */
export const gaugePhoto = (): Promise<Buffer> =>
  sharp(Buffer.from(GAUGE)).jpeg({ quality: 88 }).toBuffer();

/** A beach profile of two surveys, drawn by lines. */
export const beachProfile = (): Buffer =>
  Buffer.from(`<svg xmlns="http://www.w3.org/2000/svg" width="480" height="200" viewBox="0 0 480 200">
<path d="M20 180H470M20 180V20" stroke="#22304a" stroke-width="2" fill="none"/>
<path d="M20 60C90 60 120 70 170 110S320 150 460 160" stroke="#1f6f66" stroke-width="4" fill="none"/>
<path d="M20 60C70 62 100 96 160 124S330 146 460 158" stroke="#b3324b" stroke-width="4" fill="none" stroke-dasharray="10 7"/>
<path d="M20 140H470" stroke="#2f4fb5" stroke-width="1.5"/>
</svg>`);
