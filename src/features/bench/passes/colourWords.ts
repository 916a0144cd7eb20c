/** Said between the rails while a pass before the mix is in hand. */
export const BEFORE_THE_MIX = "This pass changes colour, before there are tones; the rails show the tones it is mixed to.";
