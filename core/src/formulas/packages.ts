import '@mathjax/src/mjs/input/tex/ams/AmsConfiguration.js';
import '@mathjax/src/mjs/input/tex/base/BaseConfiguration.js';
import '@mathjax/src/mjs/input/tex/boldsymbol/BoldsymbolConfiguration.js';
import '@mathjax/src/mjs/input/tex/cancel/CancelConfiguration.js';
import '@mathjax/src/mjs/input/tex/mhchem/MhchemConfiguration.js';
import '@mathjax/src/mjs/input/tex/textmacros/TextMacrosConfiguration.js';

/** What of TeX is understood: LaTeX’s own, amsmath, bold symbols, striking out, chemistry, and words. */
export const AllPackages = ['base', 'ams', 'boldsymbol', 'cancel', 'mhchem', 'textmacros'];
