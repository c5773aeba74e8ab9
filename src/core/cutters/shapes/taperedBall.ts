import { z } from 'zod';
import { cutterShape, positive } from '../shape';

const rad = (d: number) => (d * Math.PI) / 180;
/** Where the ball passes into the cone: radius and height above the tip. */
const joint = (s: { tipRadius: number; halfAngle: number }) => ({
  rho: s.tipRadius * Math.cos(rad(s.halfAngle)),
  h: s.tipRadius * (1 - Math.sin(rad(s.halfAngle))),
});

export const taperedBall = cutterShape({
  id: 'taperedBall',
  name: 'Tapered ball',
  schema: z.object({ diameter: positive, tipRadius: positive, halfAngle: z.number().gt(0.1).lt(60) }),
  defaults: { diameter: 6, tipRadius: 0.5, halfAngle: 5 },
  fields: [
    { kind: 'length', key: 'diameter', label: 'Largest diameter', min: 0.1, max: 50 },
    { kind: 'length', key: 'tipRadius', label: 'Tip radius', min: 0.01, max: 20 },
    { kind: 'number', key: 'halfAngle', label: 'Half angle', unit: '°', min: 0.5, max: 59 },
  ],
  profile: (s, rho) => {
    if (rho > s.diameter / 2) return Infinity;
    const j = joint(s);
    return rho <= j.rho ? s.tipRadius - Math.sqrt(s.tipRadius * s.tipRadius - rho * rho) : j.h + (rho - j.rho) / Math.tan(rad(s.halfAngle));
  },
  radiusAt: (s, h) => {
    const j = joint(s);
    return h <= j.h ? Math.sqrt(Math.max(0, h * (2 * s.tipRadius - h))) : Math.min(s.diameter / 2, j.rho + (h - j.h) * Math.tan(rad(s.halfAngle)));
  },
  form: (s) => ({ form: 'general', radius: s.diameter / 2 }),
  radius: (s) => s.diameter / 2,
  plunges: true,
  turns: true,
  label: (s, length) => `${+s.halfAngle.toFixed(2)}° half, tip R ${length(s.tipRadius)}`,
  setup: (s) => ({ shape: 'taperedBall', diameter: s.diameter, tipRadius: s.tipRadius, halfAngle: s.halfAngle }),
  problem: (s) => (joint(s).rho >= s.diameter / 2 ? 'The tip radius does not fit into the diameter.' : null),
});
