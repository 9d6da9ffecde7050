/** The stations in the order of the work. */
export const STATIONS = ["artwork", "fit", "check", "mockups", "print", "press", "sell"] as const;
/** Addresses of earlier versions. */
export const RENAMED: Record<string, Station> = { prove: "check", show: "mockups" };
export type Station = (typeof STATIONS)[number];

/** Class names of the three columns of a pair's page, and of the first column. */
export const COLUMNS = "grid min-h-0 grow grid-rows-[minmax(0,1fr)] grid-cols-[18.5rem_minmax(0,1.25fr)_minmax(0,1fr)]";
export const COLUMN = "flex min-h-0 flex-col gap-4 scroll-pb-48 overflow-y-auto border-r border-rule p-4";
