import { loadFonts, onFonts } from './fonts';
import { computeSeat, type ComputeSeat } from './seat';

let helper: ComputeSeat | null = null;
/** A worker of the window for what a maker asks for by name (reading, tracing, shapes): begun when first needed. */
export const artworkHelper = (): ComputeSeat =>
  (helper ??= computeSeat(async (api) => {
    await loadFonts();
    onFonts((files) => void api.putFonts(files));
  }));
