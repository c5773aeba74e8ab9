/** Around a grip, what a finger needs to take it: 44 pixels wide, seen by no one, and only where one points with a finger (see the theme). */
export const Reach = ({ x, y }: { x: number; y: number }) => (
  <circle className="reach" cx={x} cy={y} r="22" fill="transparent" />
);
