import type { OwnChroma } from "../machine/chromaBand";
import type { Hues } from "../stageTypes";
import { ownOf, putColour, type StripsOf, type StripsOfColour } from "./bands";
import type { Strip } from "./strips";
import type { Work } from "./works";

/** Finding what colours are: their hues, their own a and b with their light, or the tones of their luminance. */
export interface Find {
  colour: StripsOfColour;
  hues?: StripsOf<Hues>;
  own?: StripsOf<OwnChroma>;
  plain?: Strip;
}

export const findWork: Work<Find> = {
  weigh: () => 6,
  perform(machine, { colour, hues, own, plain }, band) {
    putColour(machine, colour, band);
    if (hues) {
      machine.findHues();
      machine.take("hue", hues.hue.strip, band.first);
      machine.take("fade", hues.fade.strip, band.first);
    }
    if (own) {
      machine.findOwnChroma();
      machine.takeOwnChroma(ownOf(own), band.first);
    }
    if (plain) {
      machine.plainTone();
      machine.take("tone", plain.strip, band.first);
    }
  },
};
