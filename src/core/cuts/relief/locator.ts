import type { CutterForm } from '../../cutters/form';
import type { HeightField } from '../../relief/field';
import { locatorData, type LocatorData } from './locatorData';
import { locatorKernel } from './locatorKernel';
import { partsOf } from './locatorParts';
import { locatorScript } from './locatorScript';

/**
 * Cutter location over a surface at any place: how low a cutter may stand there without cutting into the surface,
 *
 *     z(p) = max { surface(q) - outline(|q - p|) : q within the cutter's radius of p }
 *
 * over the bilinear surface between its nodes, not over the nodes alone. A round touches the surface between nodes that lie h apart
 * no more than h^2 / (4 R) higher than at one of them (half the diagonal of a square is the furthest from its corners), so nodes are
 * put in until that is little. Where the surface is steep its nodes lie far apart for all that: there the straight line from one to the
 * next is asked for its own highest place. An edge (the rim of a flat tip, the end of the cutter) touches at any place of its circle: it
 * is asked all round. Empty places (NaN) and what lies beyond the surface are nothing. Errors are meant across the surface: on a wall
 * that is a small way sideways, and a larger one up and down.
 */
export interface Locator {
  /** Height of the cutter's lowest point, mm; -Infinity where there is nothing under the cutter. */
  at(x: number, y: number): number;
  /** Forgets where the cutter was met last: what it says from here on depends on nothing that it was asked before. */
  restart(): void;
  /** Places along a path so far apart (mm) that between two of them the height bends by no more than the tolerance. */
  readonly step: number;
  /** Most by which the cutter can cut into the surface, mm: more than the tolerance where there is no room for as many nodes. */
  readonly error: number;
}

/** Locators of several cutters over one surface. */
export const locatorsOver =
  (surface: HeightField) =>
  (form: CutterForm, tolerance: number): Locator =>
    locatorBy(locatorData(surface, form, tolerance));

/** A locator by its data: compiled where this machine can, else in TypeScript. */
export function locatorBy(data: LocatorData): Locator {
  const parts = partsOf(data);
  const { step, error } = data;
  return { ...(locatorKernel(data, parts) ?? locatorScript(data, parts)), step, error };
}
