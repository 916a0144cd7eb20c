import { AppError } from "@/server/errors";
import { routes } from "@/server/http";

const nothing = () => Promise.reject(new AppError("not_found", "there is nothing at this address"));

/** Whatever else is asked for. */
export const { GET, POST, PUT, PATCH, DELETE } = routes<{ path?: string[] }>({
  GET: nothing,
  POST: nothing,
  PUT: nothing,
  PATCH: nothing,
  DELETE: nothing,
});
