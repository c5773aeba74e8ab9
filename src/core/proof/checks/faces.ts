import { areaText, lengthText } from '../../units/length';
import type { Check } from '../check';
import { THIN_WEB, websOf } from '../faces';

/** Between what is cut from one face and what was cut from the other, something stays. */
export const faces: Check = {
  id: 'faces',
  name: 'Keeps material between its faces',
  run: ({ found, job, field }) => {
    const webs = found && websOf(found.faces, field, job.blank.thickness);
    if (!webs || webs.thinnest >= THIN_WEB) return [];
    const { x, y, thinnest, met } = webs;
    const place = { check: 'faces', cutId: null, x, y };
    // About: each node stands for its cell.
    if (met > 0)
      return [
        {
          ...place,
          text: `What is cut here meets what "${found.from}" has cut from the other face: the blank is open there, over about ${areaText(met, job.unit)}. Cut less deep on one of them, or take a thicker blank.`,
        },
      ];
    return [
      {
        ...place,
        text: `Only ${lengthText(thinnest, job.unit)} stays between what is cut here and what "${found.from}" has cut from the other face. Cut less deep on one of them, or take a thicker blank.`,
      },
    ];
  },
};
