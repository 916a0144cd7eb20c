import type { Hues, OwnChroma } from "../machine/chromaBand";
import { ownOf, putColour, type TaskPlanes, type TaskColour } from "./bands";
import type { TaskPlane } from "./taskPlanes";
import type { Task } from "./tasks";

/** Finding what colours are: their hues, their own a and b with their light, or the tones of their luminance. */
export interface Find {
  colour: TaskColour;
  hues?: TaskPlanes<Hues>;
  own?: TaskPlanes<OwnChroma>;
  plain?: TaskPlane;
}

export const findTask: Task<Find> = {
  weigh: () => 6,
  perform(machine, { colour, hues, own, plain }, band) {
    putColour(machine, colour, band);
    if (hues) {
      machine.findHues();
      machine.take("hue", hues.hue.plane, band.first);
      machine.take("fade", hues.fade.plane, band.first);
    }
    if (own) {
      machine.findOwnChroma();
      machine.takeOwnChroma(ownOf(own), band.first);
    }
    if (plain) {
      machine.plainTone();
      machine.take("tone", plain.plane, band.first);
    }
  },
};
