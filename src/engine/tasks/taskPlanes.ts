type Numbers = Float32Array | Uint8Array | Int32Array;

/** Numbers of a picture in the order of its pixels, `each` to a pixel, of which work on a band reads those of the band, or makes them. */
export interface TaskPlane<P extends Float32Array | Uint8Array = Float32Array> {
  plane: P;
  each: number;
  isOutput: boolean;
}

/** A plane that work reads. */
export function input(plane: Float32Array): TaskPlane {
  return { plane, each: 1, isOutput: false };
}

/** A plane that work makes. */
export function output(plane: Float32Array): TaskPlane {
  return { plane, each: 1, isOutput: true };
}

/** Every plane and array in a description of work, replaced; whatever is there twice is replaced once. */
export function replaced<T>(work: T, plane: (plane: TaskPlane) => TaskPlane, array: <A extends Numbers>(array: A) => A): T {
  const known = new Map<object, unknown>();
  const replace = (value: unknown): unknown => {
    if (typeof value !== "object" || value === null) return value;
    if (!known.has(value)) known.set(value, replacedOne(value));
    return known.get(value);
  };
  const replacedOne = (value: object): unknown => {
    if (ArrayBuffer.isView(value)) return array(value as Numbers);
    if ("isOutput" in value) return plane(value as TaskPlane);
    if (Array.isArray(value)) return value.map(replace);
    if (value instanceof Map) return new Map([...value].map(([key, one]) => [key, replace(one)]));
    return Object.fromEntries(Object.entries(value).map(([key, one]) => [key, replace(one)]));
  };
  return replace(work) as T;
}
