import type { QueryClient } from "@tanstack/react-query";

/**
 * Asks anew for everything under these keys. A first look that is still under way may have been answered before
 * whatever changed, and is not broken off by being asked for again: it is asked for once more when it has ended.
 */
export async function askAnew(queries: QueryClient, keys: string[]): Promise<void> {
  await Promise.all(
    keys.map(async (key) => {
      const first = queries
        .getQueryCache()
        .findAll({ queryKey: [key], fetchStatus: "fetching" })
        .filter((query) => query.state.data === undefined);
      await Promise.all([
        queries.invalidateQueries({ queryKey: [key], predicate: (query) => !first.includes(query) }),
        ...first.map((query) =>
          Promise.resolve(query.promise)
            .catch(() => undefined)
            .then(() => queries.invalidateQueries({ queryKey: query.queryKey, exact: true })),
        ),
      ]);
    }),
  );
}
