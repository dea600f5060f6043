/** A copy of data that is JSON: documents, entries of the shop, settings. */
export const copyOf = <T>(data: T): T => JSON.parse(JSON.stringify(data)) as T;
