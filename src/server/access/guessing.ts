import { AppError } from "../errors";

// How long one who guesses the passphrase waits. There is one passphrase, and whoever guesses must be slowed down; but not so that its
// owner is kept out by it.

/** Who guesses: a browser that signed in before, by its name, or any other, by its address. */
export type Guesser = { browser: string } | { address: string };

/** The first guesses are free, then each wrong one is waited for twice as long. */
const FREE_GUESSES = 3;
const LONGEST_WAIT_MS = 60_000;
/** Lanes are forgotten beyond so many, the least used first. */
const MOST_LANES = 10_000;
const OVERALL = "overall";

interface Lane {
  wrong: number;
  notBefore: number;
  lastGuess: number;
}

/**
 * Counts wrong guesses in lanes: one for each known browser, which waits for nobody else; one for each address; and one for all addresses
 * together. While that one waits, an address that has not guessed for a minute may all the same.
 */
export class Guessing {
  /** The least used first. */
  readonly #lanes = new Map<string, Lane>();

  /** Sees whether it is one's turn. Errors: AppError `slow_down` with the seconds to wait. */
  needTurn(guesser: Guesser, now: number): void {
    const own = this.#laneOf(nameOf(guesser));
    let notBefore = own.notBefore;
    if ("address" in guesser) {
      const overall = this.#laneOf(OVERALL).notBefore;
      notBefore = Math.max(notBefore, Math.min(overall, own.lastGuess + LONGEST_WAIT_MS));
    }
    if (now >= notBefore) return;
    const seconds = Math.ceil((notBefore - now) / 1000);
    throw new AppError("slow_down", `too many wrong guesses: try again in ${seconds} s`, {}, undefined, { "retry-after": String(seconds) });
  }

  note(guesser: Guesser, isRight: boolean, now: number): void {
    for (const name of "address" in guesser ? [nameOf(guesser), OVERALL] : [nameOf(guesser)]) {
      const wrong = isRight ? 0 : this.#laneOf(name).wrong + 1;
      const wait = wrong < FREE_GUESSES ? 0 : Math.min(1000 * 2 ** (wrong - FREE_GUESSES), LONGEST_WAIT_MS);
      this.#lanes.delete(name);
      this.#lanes.set(name, { wrong, notBefore: wait && now + wait, lastGuess: now });
    }
    for (const name of this.#lanes.keys()) {
      if (this.#lanes.size <= MOST_LANES) break;
      this.#lanes.delete(name);
    }
  }

  #laneOf(name: string): Lane {
    return this.#lanes.get(name) ?? { wrong: 0, notBefore: 0, lastGuess: -Infinity };
  }
}

function nameOf(guesser: Guesser): string {
  return "browser" in guesser ? `browser ${guesser.browser}` : `address ${guesser.address}`;
}
