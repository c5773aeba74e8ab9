/** A square box about the origin that reaches `radius` mm to each side. */
export const centredBox = (radius: number) => ({ x0: -radius, y0: -radius, x1: radius, y1: radius });
