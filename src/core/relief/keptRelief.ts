import { z } from 'zod';
import { fromBase64 } from '../units/base64';
import type { SmallPicture } from './small';

/** A relief of the maker's own, kept by its heights: whatever it was made of is not asked for any more. */
export const keptReliefSchema = z.object({
  id: z.string().min(1),
  name: z.string().min(1).max(200),
  /** Size, and from its lowest to its highest place; mm. */
  width: z.number().positive().max(5000),
  height: z.number().positive().max(5000),
  rise: z.number().min(0).max(300),
  /** Its heights as a PNG of sixteen bits, as text by RFC 4648. */
  png: z.base64().max(16_000_000),
  look: z.object({ cols: z.number().int(), rows: z.number().int(), light: z.base64().max(100_000) }),
});
export type KeptRelief = z.infer<typeof keptReliefSchema>;

export const lookOfKept = ({ look }: KeptRelief): SmallPicture => ({ ...look, light: fromBase64(look.light) });
