import { createStore, type StoreApi } from "zustand/vanilla";
import type { View } from "./view";

/** How a picture is looked at. */
export interface ViewState {
  /** Where one has zoomed to; absent where all of it is seen. */
  zoomed: View | undefined;
}
export type ViewStore = StoreApi<ViewState>;

/** A view's own store: zoom and place outlast what shows them. */
export function createViewStore(): ViewStore {
  return createStore<ViewState>(() => ({ zoomed: undefined }));
}

/**
 * Views that go along with each other from now on, beginning with the first: whichever is moved takes the others with it. Returns how to
 * part them.
 */
export function tieViews(stores: readonly ViewStore[]): () => void {
  const follow = ({ zoomed }: ViewState) => {
    for (const store of stores) if (store.getState().zoomed !== zoomed) store.setState({ zoomed });
  };
  if (stores[0]) follow(stores[0].getState());
  const ends = stores.map((store) => store.subscribe(follow));
  return () => ends.forEach((end) => end());
}
