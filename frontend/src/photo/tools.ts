/** Pointer tools on a photograph. */
export type Tool = "points" | "box" | "keep" | "leave" | "front" | "behind" | "spot";
