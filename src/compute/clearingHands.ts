import type { Cleared } from '@/core/cuts/clearing/clear';
import { clearAll, type ClearingHands, type ClearingWork } from '@/core/cuts/clearing/meanwhile';
import { stillWanted, whileWanted } from '@/core/units/stillWanted';
import { DONE, giveUp, lead, lend, makeBoard, SILENCE, type Board } from './board';
import { makeRoom, readRoom, writeRoom, type Room } from './room';

/** Clearing that one does while another goes on with its plan: a board (`./board.ts`) with one band, and room for what it comes to. */
export interface SharedClearing extends Board {
  readonly clearing: ClearingWork;
  readonly room: Room;
}

/** Does a clearing that somebody else has laid out, if it is still to be done. */
export function lendClearing({ clearing, room, ...board }: SharedClearing): void {
  lend(board, 1, (_k, still) => {
    // As long as it works, whoever waits for it hears of it.
    const wanted = () => {
      Atomics.add(board.board, DONE, 1);
      still();
    };
    try {
      whileWanted(wanted, () => writeRoom(room, clearAll(clearing, wanted)));
    } catch {
      // It is not wanted any more, or fails: whoever laid it out finds nothing, and fails at it in their own place.
    }
  });
}

interface Port {
  postMessage(what: SharedClearing): void;
}

/**
 * Those behind some ports, who answer with `lendClearing`; `ports` is looked at each time: others may come. `end` gives up what was
 * begun and not asked for.
 */
export function clearingHands(
  ports: readonly Port[],
  { silence = SILENCE, most = undefined as number | undefined } = {},
): { readonly begin: ClearingHands; end(): void } {
  let begun: Board[] = [];
  return {
    begin(clearing) {
      const room = ports.length ? makeRoom(most) : null;
      if (!room) return (progress) => clearAll(clearing, progress);
      const board = makeBoard(1);
      begun.push(board);
      for (const p of ports) p.postMessage({ ...board, clearing, room });
      return (progress) => {
        let own: Cleared | null = null;
        const missed = lead(
          board,
          1,
          () => (own = clearAll(clearing, progress)),
          () => stillWanted(Infinity),
          silence,
        );
        return own ?? (missed ? null : readRoom<Cleared>(room)) ?? clearAll(clearing, progress);
      };
    },
    end() {
      begun.forEach(giveUp);
      begun = [];
    },
  };
}
