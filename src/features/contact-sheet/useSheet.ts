import { keepPreviousData, useQueries, useQuery, useQueryClient } from "@tanstack/react-query";
import { useCallback, useState } from "react";
import { CARDS_ON_A_PAGE, SheetPage, type SheetCard, type SheetRequest } from "@/contracts/contactSheet";

/** Which cards are wished for, and in which order. */
export type Asked = Pick<SheetRequest, "search" | "order">;

const queryOf = ({ search, order }: Asked, page: number) => ({
  queryKey: ["sheet", search, order, page],
  queryFn: ({ signal }: { signal: AbortSignal }) => fetchPage({ search, order, page }, signal),
});

/**
 * The contact sheet by pages: the first, and those that hold the cards in sight. While another search or order is fetched, what was shown
 * stays.
 */
export function useSheet(start: SheetRequest, first: SheetPage) {
  const [asked, setAsked] = useState<Asked>({ search: start.search, order: start.order });
  const [inSight, setInSight] = useState({ from: 0, to: 0 });
  const isStart = asked.search === start.search && asked.order === start.order;
  const head = useQuery({
    ...queryOf(asked, 0),
    placeholderData: keepPreviousData,
    ...(isStart && { initialData: { ...first, asked: { search: start.search, order: start.order } } }),
  });
  // What the cards shown were found by: another than is asked for, for a moment.
  const { found, all, asked: shown } = head.data ?? { found: 0, all: 0, asked };

  const [firstPage, lastPage] = [inSight.from, Math.min(inSight.to, found - 1)].map((card) => Math.floor(card / CARDS_ON_A_PAGE));
  const pages = Array.from({ length: Math.max(lastPage! - firstPage! + 1, 0) }, (_, k) => firstPage! + k).filter((page) => page > 0);
  const others = useQueries({ queries: pages.map((page) => queryOf(shown, page)) });

  const cardAt = (index: number): SheetCard | undefined => {
    const page = Math.floor(index / CARDS_ON_A_PAGE);
    const data = page === 0 ? head.data : others[pages.indexOf(page)]?.data;
    return data?.cards[index - page * CARDS_ON_A_PAGE];
  };
  const client = useQueryClient();
  const refresh = useCallback(() => void client.invalidateQueries({ queryKey: ["sheet"] }), [client]);
  const ask = (changed: Partial<Asked>) => {
    const next = { ...asked, ...changed };
    setAsked(next);
    window.history.replaceState(null, "", addressOf(next));
  };
  return {
    asked,
    ask,
    shown,
    found,
    all,
    cardAt,
    setInSight,
    refresh,
    isFailed: head.isError || others.some(({ isError }) => isError),
  };
}

/** The search stands in the address, so that a reload or a way back shows the same. */
function addressOf({ search, order }: Asked): string {
  const words = new URLSearchParams({ ...(search && { search }), ...(order !== "newest" && { order }) }).toString();
  return words ? `/?${words}` : "/";
}

async function fetchPage({ search, order, page }: SheetRequest, signal: AbortSignal): Promise<SheetPage & { asked: Asked }> {
  const response = await fetch(`/api/pictures?${new URLSearchParams({ search, order, page: String(page) }).toString()}`, { signal });
  if (!response.ok) throw new Error(`status ${response.status}`);
  return { ...SheetPage.parse(await response.json()), asked: { search, order } };
}
