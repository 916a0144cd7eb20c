/** What each part of a panel is for, in a sentence or two: shown on demand, by the part's title. */
export const PART_HELP = {
  // Frame
  Turn: "Turns the print by quarters or mirrors it. Nothing is lost by it: regions and strokes stay on what they were drawn on.",
  Straighten:
    "Turns the print by a little. Draw along a line that should be level or upright, or set the angle; what the corners lack is cut off.",
  Proportions:
    "Keeps the print's sides in a ratio while you pull its frame. The picture outside is only hidden; it comes back when the frame does.",
  Print: "How many pixels the print has at full size, and the way back to the whole picture.",
  // Spots
  Covering:
    "Dust, scratches and wires are covered with what lies elsewhere on the picture. Healing takes the texture from there and the light from here; a clone is laid as it is.",
  Spots: "What is covered so far, in order. Each can be moved, covered from elsewhere, or taken away again.",
  "Missed dust": "Pushes the contrast of small things, so that dust shows which the print hides. It changes nothing.",
  // Colour and mix
  Picture: "What the picture brought along. It is stored as it came and never changed.",
  "Before the mix":
    "Lights the scene otherwise, takes a tinge out, or parts colours, before they become greys. The original stays untouched.",
  "On the way in": "What was done so that the picture could be read, and what that means for its colours.",
  Look: "Shows the picture in its own colours instead of the print. It changes nothing.",
  Weights: "How much red, green and blue light makes the grey. A sum of 1 keeps neutrals as light as they are.",
  Hues: "Lightens or darkens single hues before they become grey. Neutrals stay as they are, whatever is pulled.",
  "Clean colour":
    "Keeps noise and the blocks of compressed colour out of the tones when you pull colours apart. Light itself, the edges of things and small coloured things stay as they are, as far as the file holds them: most JPEGs keep colour at half its size. Masks by colour read it cleaned too.",
  "Film and filter":
    "Weights as a film of the trade sees behind a glass of the trade. The curves are our own approximations; neutrals stay where they are.",
  Twins:
    "Pairs of areas that differ in colour and meet in tone. Point at one to see where; its slider makes the first lighter and the second darker.",
  Suggestions:
    "Mixes under which what differs in colour on this picture differs in tone, named by the hue each makes lightest. Nothing is changed until you choose one. Ready mixes are for any picture; you can keep your own among them.",
  "The whole mix":
    "How far the mix departs from what the eye sees as light: at 0 % not at all, at 200 % twice as far. And a look at the colour that goes into it.",
  // Every pass
  Where:
    "The part of the picture the pass, or all passes of the set, act in. Draw a region or use one that is there; none means all of the picture.",
  "Which tones":
    "The tones the pass, or all passes of the set, act on: a gate on the scale, single zones switched off, or one hue of the original.",
  "How it meets the print": "How strongly the pass acts, and how its tones meet those that were there before it.",
  "The pass": "Switches the pass off and on, copies it, gathers it in a set, or takes it away.",
  // Kinds of passes before the mix
  "Scene light": "Lights the scene otherwise before it is mixed, in stops: all of it, where it is dark, or where it is light.",
  Balance: "Warms or cools the colours, or takes the tinge out of something that was grey. What is grey stays as light as it is.",
  Colours: "Makes all colours more or less colourful before they are mixed. Light and neutrals stay.",
  "Part two colours":
    "Draws one colour away from another, which stays exactly as it is, so that the mix can tell them apart. A third one may be held too.",
  "Ranges of hues": "Turns single hues towards others, or makes them more or less colourful, smoothly into those beside them.",
  // Kinds of passes
  Placement:
    "Says where tones fall on paper. Each strand takes a tone of the upper rail to its place on the lower one; what lies between follows smoothly.",
  Grade: "Harder paper takes the tones apart around one tone that stays; softer paper brings them together.",
  "True black, true white": "From which tones on the print is full black or bare paper. Nothing else in the bench sets them.",
  "Contrast mask": "Lightens what is dark and darkens what is light over broad areas, and leaves fine detail as strong as it was.",
  Relief: "Raises or levels detail of three sizes. Below nothing it softens them: mist in the large, glow in the fine.",
  Softening: "Melts the print into what lies around each place, or lets lights glow over what is beside them, as a soft lens does.",
  Sharpening: "Raises contours at the size of the radius. What is below the threshold stays, and no contour goes beyond the limits.",
  "Ready tints": "What toners and papers of the darkroom are like, as our own approximations. Each is a line of points you can move.",
  Tint: "Lays colour on the tones, which stay: by hue and amount for each point, and smoothly from zone to zone between them.",
  "Colour return": "Lays the picture's own colour on the print's tones, so that its light stays as you made it.",
  Edges: "Burns the print down from its edges, or lightens it, as a print is finished under the enlarger.",
  Exposure: "Dodging and burning by hand: a brush that lightens or darkens a little with each stroke, up to its ceiling.",
  "All that is painted": "Acts on all strokes of this pass together: soften them, limit them, or clear a part.",
  // Sets, finish
  "Print tone":
    "Tones the whole print as the last of its passes. Choose None to take that away again; the pass itself has all there is to set.",
  "The whole set": "How strongly all passes of the set act together.",
  "Its passes": "Those in the set, in the order in which they act.",
  File: "What is written, how large and how fine. What you choose stays for the next export.",
  Exports: "What was made of this print. Each file can be fetched for as long as it is kept.",
} as const;

export type PartTitle = keyof typeof PART_HELP;
