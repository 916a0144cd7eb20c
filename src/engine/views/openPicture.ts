import type { LevelRequest } from "@/contracts/api";
import { cleanedLevel, type PreparedPicture } from "@/contracts/preparedPicture";
import { ditherRow } from "@/core/view/dither";
import type { Cleaning } from "../messages/messages";
import type { TaskRunner } from "../pool/taskRunner";
import { LevelFetcher, type LevelArea } from "../source/levelFetcher";
import { Source } from "../source/source";
import { SmallPictures } from "./smallPictures";

/** Cleaned colours that could not be fetched are asked for again with the first frame after so long. */
const CLEAN_AGAIN_MS = 5000;

/** Whoever looks at a picture. */
export interface Looking {
  /** Its cleaned colours are on their way, there, or failed to come. */
  onCleaning(state: Cleaning, error?: unknown): void;
}

/** A picture that is open, as it was fetched: shared by all views of it. */
export class OpenPicture {
  readonly looking = new Set<Looking>();
  #cleaning: "unasked" | "asked" | "there" = "unasked";
  #small: SmallPictures;

  private constructor(
    readonly picture: PreparedPicture,
    readonly fetcher: LevelFetcher,
    /** Fetches the same levels with their colours cleaned. */
    readonly cleaned: LevelFetcher,
    /** The smallest level: all of the picture. */
    readonly preview: Source,
  ) {
    this.#small = new SmallPictures(preview, picture.levels[0]!);
  }

  /** Fetches a picture. Errors: whatever the fetch throws. */
  static async open(pictureId: string, picture: PreparedPicture, origin: string, runner: TaskRunner): Promise<OpenPicture> {
    const fetcher = new LevelFetcher(picture.levels, (area, of, signal) => fetchArea(origin, pictureId, { ...area, of }, signal));
    const cleaned = new LevelFetcher(picture.levels.map(cleanedLevel), (area, of, signal) =>
      fetchArea(origin, pictureId, { ...area, of: of === "grain" ? "clean-grain" : "clean" }, signal),
    );
    const { width, height, space } = picture.levels.at(-1)!;
    const reading = fetcher.read(previewArea(picture), new AbortController().signal);
    ditherRow(0); // takes longer to make than a frame: while the picture is on its way
    const { levels, grain } = await reading;
    return new OpenPicture(picture, fetcher, cleaned, Source.fromLevels(levels, { width, height }, space, { grain, runner }));
  }

  /** The picture smaller, for all that is asked of it besides frames. */
  get small(): SmallPictures {
    return this.#small;
  }

  get isCleaned(): boolean {
    return this.#cleaning === "there";
  }

  /** Fetches the preview's cleaned colours, once a plan asks for them: until they are there it is mixed from those found. */
  async fetchCleaned(): Promise<void> {
    if (this.#cleaning !== "unasked") return;
    this.#cleaning = "asked";
    this.#tell("under way");
    try {
      const { levels, grain } = await this.cleaned.read(previewArea(this.picture), new AbortController().signal);
      this.preview.giveCleaned({ levels, space: cleanedLevel(this.picture.levels.at(-1)!).space, grain });
      this.#cleaning = "there";
      this.#small = new SmallPictures(this.preview, this.picture.levels[0]!);
      this.#tell("there");
    } catch (error) {
      this.#tell("failed", error);
      setTimeout(() => (this.#cleaning = "unasked"), CLEAN_AGAIN_MS);
    }
  }

  #tell(state: Cleaning, error?: unknown): void {
    for (const looking of this.looking) looking.onCleaning(state, error);
  }
}

function previewArea({ levels }: PreparedPicture): LevelArea {
  const { width, height } = levels.at(-1)!;
  return { level: levels.length - 1, x: 0, y: 0, width, height };
}

async function fetchArea(origin: string, pictureId: string, asked: LevelRequest, signal: AbortSignal): Promise<ArrayBuffer> {
  const query = new URLSearchParams(Object.entries(asked).map(([key, value]) => [key, String(value)]));
  const response = await fetch(`${origin}/api/pictures/${pictureId}/levels?${query}`, { signal });
  if (!response.ok) {
    const problem = (await response.json().catch(() => ({}))) as { title?: string };
    throw new Error(problem.title ?? "the picture could not be fetched");
  }
  return response.arrayBuffer();
}
