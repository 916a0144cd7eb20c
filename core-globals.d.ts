// What the core may count on besides the language: the few globals that pages, workers and Node all have.

declare function atob(text: string): string;
declare function btoa(bytes: string): string;
declare function structuredClone<T>(value: T): T;

declare class TextEncoder {
  encode(text: string): Uint8Array;
  encodeInto(source: string, destination: Uint8Array): { read: number; written: number };
}

declare class TextDecoder {
  constructor(label?: string, options?: { fatal?: boolean; ignoreBOM?: boolean });
  decode(bytes: Uint8Array): string;
}

declare namespace WebAssembly {
  class Memory {
    constructor(descriptor: { initial: number; maximum?: number });
    readonly buffer: ArrayBuffer;
    grow(pages: number): number;
  }
  class Module {
    constructor(bytes: Uint8Array);
  }
  class Instance {
    constructor(module: Module, imports: Record<string, Record<string, unknown>>);
    readonly exports: Record<string, unknown>;
  }
}
