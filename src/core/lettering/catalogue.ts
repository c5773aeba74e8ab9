/** The outline fonts that ship with Mirvak: all SIL OFL 1.1, from the font packages of the registry. */
export interface FontEntry {
  readonly id: string;
  readonly name: string;
  readonly character: string;
  /** Package and file it comes from; the set-up script copies it to public/fonts/<id>.woff. */
  readonly source: string;
}

const entry = (id: string, name: string, character: string, pack: string, weight = 400): FontEntry => ({
  id,
  name,
  character,
  source: `@fontsource/${pack}/files/${pack}-latin-${weight}-normal.woff`,
});

export const fontCatalogue: readonly FontEntry[] = [
  entry('cinzel', 'Cinzel', 'Roman capitals', 'cinzel'),
  entry('cinzel-bold', 'Cinzel Bold', 'Roman capitals', 'cinzel', 700),
  entry('libre-baskerville', 'Libre Baskerville', 'Book serif', 'libre-baskerville'),
  entry('zilla-slab', 'Zilla Slab', 'Slab serif', 'zilla-slab', 500),
  entry('rokkitt', 'Rokkitt', 'Slab serif', 'rokkitt', 500),
  entry('alfa-slab-one', 'Alfa Slab One', 'Heavy slab', 'alfa-slab-one'),
  entry('allura', 'Allura', 'Formal script', 'allura'),
  entry('dancing-script', 'Dancing Script', 'Lively script', 'dancing-script'),
  entry('unifrakturmaguntia', 'UnifrakturMaguntia', 'Blackletter', 'unifrakturmaguntia'),
  entry('barlow-condensed', 'Barlow Condensed', 'Condensed', 'barlow-condensed', 500),
  entry('league-gothic', 'League Gothic', 'Narrow poster', 'league-gothic'),
  entry('bebas-neue', 'Bebas Neue', 'Poster capitals', 'bebas-neue'),
  entry('saira-stencil-one', 'Saira Stencil One', 'Stencil', 'saira-stencil-one'),
  entry('archivo', 'Archivo', 'Grotesque', 'archivo', 600),
  entry('varela-round', 'Varela Round', 'Rounded', 'varela-round'),
];

/** Mirvak's own single-line alphabets: their strokes are followed by the cutter, not filled. */
export const strokeFonts: readonly { readonly id: string; readonly name: string; readonly slant: number }[] = [
  { id: 'line-upright', name: 'Single line', slant: 0 },
  { id: 'line-leaning', name: 'Single line, leaning', slant: 14 },
];
